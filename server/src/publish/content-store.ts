import { createHash } from 'node:crypto'
import { copyFile, link, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { makeFolder } from '../http/make-folder.ts'
import { newId } from '../http/new-id.ts'
import { contentFolder } from '../media/folders.ts'

/** In smaller ones the headers of a coding eat what it saves. */
const WORTH_IT = 400
/** Of 11: a third of the time of 11 for 2 % more bytes, measured on the sample site's pages. */
const BROTLI_QUALITY = 9

const compress = [
  [
    '.br',
    (bytes: Buffer) =>
      promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } }),
  ],
  ['.gz', (bytes: Buffer) => promisify(gzip)(bytes, { level: 9 })],
] as const

/** Files of the library keep their address as their name here: it changes when what is in them does. */
const LIBRARY = 'library'
/** What a file is called while it is written. */
const BEGUN = '.begun-'

/**
 * Holds every file that a release shows, once. Files that were made are named by a digest of their bytes; files of the
 * library by their address. A file that is here is whole and is never written again, so releases can share it.
 */
export class ContentStore {
  readonly #folder: string

  constructor(dataDir: string) {
    this.#folder = contentFolder(dataDir)
  }

  /** Puts a text, and beside it what is sent to browsers that take it compressed. Returns the name of the file. */
  async putText(text: string, ending: string): Promise<string> {
    const bytes = Buffer.from(text)
    const name = nameFor(bytes, ending)
    if (await this.has(name)) return name
    if (bytes.length >= WORTH_IT)
      for (const [coding, make] of compress) await this.#write(name + coding, await make(bytes))
    await this.#write(name, bytes)
    return name
  }

  /** Puts data of our own, which no visitor is given. */
  putData(bytes: Buffer): Promise<string> {
    return this.putMade(bytes, '.json', () => Promise.resolve(bytes))
  }

  /** Reads a text; rejects where it is not here. */
  readText(name: string): Promise<string> {
    return readFile(join(this.#folder, name), 'utf8')
  }

  /** Puts bytes as they are, under a name that `of` stands for: what they were made of. Makes them only where they are not here. */
  async putMade(of: Buffer, ending: string, make: () => Promise<Buffer>): Promise<string> {
    const name = nameFor(of, ending)
    if (!(await this.has(name))) await this.#write(name, await make())
    return name
  }

  /**
   * Takes the file of an address of the library in, from the first of these places that has it. Returns its name here;
   * undefined when it is nowhere. A hard link costs no room; where the file system has none, a copy does the same.
   */
  async adopt(address: string, sources: readonly string[]): Promise<string | undefined> {
    const name = LIBRARY + address
    if (await this.has(name)) return name
    for (const source of sources) {
      try {
        await this.#place(name, (to) => link(source, to).catch(() => copyFile(source, to)))
        return name
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error
      }
    }
    return undefined
  }

  async has(name: string): Promise<boolean> {
    return (await stat(join(this.#folder, name)).catch(() => undefined))?.isFile() ?? false
  }

  async hasAll(names: readonly string[]): Promise<boolean> {
    return (await Promise.all(names.map((name) => this.has(name)))).every(Boolean)
  }

  /** Removes files with what belongs to them. */
  async remove(names: Iterable<string>): Promise<void> {
    for (const name of names)
      for (const ending of ['', ...compress.map(([coding]) => coding)])
        await rm(join(this.#folder, name + ending), { force: true })
  }

  /** The names of all files that are here, those half-written by a server that was killed among them. */
  async list(): Promise<string[]> {
    const entries = await readdir(this.#folder, { recursive: true, withFileTypes: true }).catch(() => [])
    const codings: readonly string[] = compress.map(([coding]) => coding)
    return entries
      .filter((entry) => entry.isFile() && !codings.some((coding) => entry.name.endsWith(coding)))
      .map((entry) => join(entry.parentPath, entry.name).slice(this.#folder.length + 1))
  }

  async #write(name: string, bytes: Buffer): Promise<void> {
    await this.#place(name, (to) => writeFile(to, bytes))
  }

  /** Has a file made beside its place, and moves it there once it is whole. */
  async #place(name: string, make: (to: string) => Promise<void>): Promise<void> {
    const file = join(this.#folder, name)
    await makeFolder(dirname(file))
    const begun = join(dirname(file), BEGUN + newId())
    try {
      await make(begun)
      await rename(begun, file)
    } catch (error) {
      await rm(begun, { force: true })
      throw error
    }
  }
}

function nameFor(bytes: Buffer, ending: string): string {
  const digest = createHash('sha256').update(bytes).digest('hex')
  return `${digest.slice(0, 2)}/${digest.slice(2, 34)}${ending}`
}
