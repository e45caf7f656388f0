import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'

let known: Promise<string> | undefined

/** Tells this program from every other version of it, which may render the same page in another way: a digest of its code. */
export function programId(): Promise<string> {
  return (known ??= readFile(fileURLToPath(import.meta.url)).then((code) =>
    createHash('sha256').update(code).digest('base64url').slice(0, 22),
  ))
}
