import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

let known: string | undefined

/**
 * Tells this program from every other version of it, which may render the same page or answer the same request in another
 * way: a digest of its code, which is one file once it is built.
 */
export function programId(): string {
  known ??= createHash('sha256')
    .update(readFileSync(fileURLToPath(import.meta.url)))
    .digest('base64url')
    .slice(0, 22)
  return known
}
