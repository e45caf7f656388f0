import { randomBytes } from 'node:crypto'
import { ID_BYTES, idFrom } from '@gullyline/core'

/** A new random id; see `idFrom`. */
export function newId(): string {
  return idFrom(randomBytes(ID_BYTES))
}
