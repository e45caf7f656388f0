import type { NodeId } from './page.ts'

const LETTERS = 'abcdefghijkmnpqrstuvwxyz'
const SIGNS = 'abcdefghijkmnpqrstuvwxyz23456789'

/** How many random bytes `idFrom` takes: 10 signs of 32 leave about 2^49 ids, so two made by chance never meet on a page. */
export const ID_BYTES = 10

/** Pattern of a node id. Also a valid CSS identifier and HTML id. */
export const ID_PATTERN = '^[a-z][a-z0-9]{0,23}$'

/** Makes an id of 10 signs, the first a letter, from random bytes (at least `ID_BYTES`); core itself has no randomness. */
export function idFrom(bytes: Uint8Array): NodeId {
  let id = ''
  for (let i = 0; i < ID_BYTES; i++) {
    const signs = i === 0 ? LETTERS : SIGNS
    id += signs[(bytes[i] ?? 0) % signs.length]
  }
  return id
}
