import { readFile as readText, stat } from 'node:fs/promises'
import { basename } from 'node:path'
import { randomBytes } from 'node:crypto'
import { defaultRegistry, ID_BYTES, idFrom, readFile, UnreadableFile } from '@gullyline/core'
import { fileAndOptions } from './arguments.ts'
import { EXIT, Unusable, type Exit, type Streams } from './outcome.ts'

/** A file of more bytes has more characters than are read, whatever they are. */
const MAX_BYTES = 20_000_000

/** Prints an HTML or Markdown file as a page of blocks, and says on the error stream what was not taken over. */
export async function read(args: readonly string[], { out, error: warn }: Streams): Promise<Exit> {
  const { file } = fileAndOptions(args, {}, 'read FILE')
  const found = await stat(file).catch(() => undefined)
  if (!found?.isFile()) throw new Unusable(`${file}: there is no such file`)
  if (found.size > MAX_BYTES) throw new Unusable(`${file}: is larger than ${MAX_BYTES / 1_000_000} MB`)
  try {
    const newId = () => idFrom(randomBytes(ID_BYTES))
    const { notUnderstood, ...page } = readFile(
      basename(file),
      await readText(file, 'utf8'),
      defaultRegistry,
      newId,
    )
    out(`${JSON.stringify(page, undefined, 2)}\n`)
    for (const { what, count, kept } of notUnderstood) warn(`${count} × ${what}: ${kept}\n`)
    return EXIT.done
  } catch (error) {
    if (error instanceof UnreadableFile) throw new Unusable(error.message)
    throw error
  }
}
