/** Packages that were sent and are not imported yet: each a file that is removed once it is, or after a day. */
import { createWriteStream } from 'node:fs'
import { readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { Refused } from '../http/errors.ts'
import { MOST_PACKAGE_BYTES } from '../http/limits.ts'
import { makeFolder } from '../http/make-folder.ts'
import { newId } from '../http/new-id.ts'
import { faultWords } from '../http/storage-fault.ts'

const KEPT_MS = 24 * 3_600_000

function folderOf(dataDir: string): string {
  return join(dataDir, 'imports')
}

/** The file of a package that waits. Another site's packages are not found. */
export async function waitingPackage(dataDir: string, siteId: string, id: string): Promise<string> {
  const path = join(folderOf(dataDir), `${siteId}-${id}`)
  if ((await stat(path).catch(() => undefined))?.isFile()) return path
  throw new Refused(
    'not-found',
    'This package is not on the server any more. Nothing was changed; choose the file again.',
  )
}

/** Writes a package to a file as it comes, so that it is never in memory; returns its id. */
export async function receivePackage(
  dataDir: string,
  siteId: string,
  body: ReadableStream<Uint8Array>,
): Promise<string> {
  await removeOld(dataDir)
  const folder = folderOf(dataDir)
  await makeFolder(folder, 0o700)
  const id = newId()
  const path = join(folder, `${siteId}-${id}`)
  let bytes = 0
  try {
    await pipeline(
      Readable.fromWeb(body),
      async function* (chunks: AsyncIterable<Buffer>) {
        for await (const chunk of chunks) {
          bytes += chunk.length
          if (bytes > MOST_PACKAGE_BYTES) throw tooLarge()
          yield chunk
        }
      },
      createWriteStream(path, { mode: 0o600 }),
    )
  } catch (error) {
    await rm(path, { force: true })
    if (error instanceof Refused) throw error
    const words = faultWords(error)
    throw words === undefined
      ? new Refused('malformed', 'The package did not come whole. Nothing was changed; send it again.')
      : new Refused('storage', words)
  }
  return id
}

function tooLarge(): Refused {
  return new Refused(
    'too-large',
    `A package has at most ${MOST_PACKAGE_BYTES / 1024 ** 3} GB. Nothing was changed.`,
  )
}

export async function removePackage(dataDir: string, siteId: string, id: string): Promise<void> {
  await rm(join(folderOf(dataDir), `${siteId}-${id}`), { force: true })
}

async function removeOld(dataDir: string): Promise<void> {
  const folder = folderOf(dataDir)
  for (const name of await readdir(folder).catch(() => [])) {
    const file = join(folder, name)
    const facts = await stat(file).catch(() => undefined)
    if (facts && Date.now() - facts.mtimeMs > KEPT_MS) await rm(file, { force: true })
  }
}
