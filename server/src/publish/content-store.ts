import { createHash } from 'node:crypto'
import { copyFile, link, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { makeFolder } from '../http/make-folder.ts'
import { newId } from '../http/new-id.ts'
import { contentFolder } from '../media/folders.ts'
import { allEnded } from './all-ended.ts'

/** In smaller ones the headers of a coding eat what it saves. */
const WORTH_IT = 400
/** Of 11: 0.5 ms for a page of the sample site, where 11 takes 15 ms and saves a tenth of its bytes. */
const USUAL_QUALITY = 9
/** What many pages share, so that there is little of it, and browsers keep it for ever. */
const SHARED_QUALITY = 11
const SHARED: readonly string[] = ['.css', '.js', '.svg']

/** Codings of HTTP by the endings of their files. */
const compress = [
  [
    '.br',
    (bytes: Buffer, ending: string) =>
      promisify(brotliCompress)(bytes, {
        params: {
          [constants.BROTLI_PARAM_QUALITY]: SHARED.includes(ending) ? SHARED_QUALITY : USUAL_QUALITY,
          [constants.BROTLI_PARAM_LGWIN]: windowFor(bytes.length),
        },
      }),
  ],
  ['.gz', (bytes: Buffer) => promisify(gzip)(bytes, { level: 9 })],
] as const

/**
 * The window, as a power of two, that reaches back over so many bytes (RFC 7932, 9.1, "WBITS"). Preparing one of the usual
 * 4 MiB takes ten times as long as compressing a page.
 */
function windowFor(bytes: number): number {
  const { BROTLI_MIN_WINDOW_BITS: least, BROTLI_MAX_WINDOW_BITS: most } = constants
  return Math.min(most, Math.max(least, Math.ceil(Math.log2(bytes + 16))))
}

/** As many as keep the disk busy, and hold no more than a few names in memory. */
const REMOVED_AT_ONCE = 64

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
  /** Names of files that were here when they were looked for: nothing takes them away while a site is compiled. */
  readonly #there = new Set<string>()
  readonly #folders = new Map<string, Promise<void>>()
  readonly #placing = new Map<string, Promise<void>>()

  constructor(dataDir: string) {
    this.#folder = contentFolder(dataDir)
  }

  /** Puts a text, and beside it what is sent to browsers that take it compressed. Returns the name of the file. */
  async putText(text: string, ending: string): Promise<string> {
    const bytes = Buffer.from(text)
    const name = nameFor(bytes, ending)
    if (await this.has(name)) return name
    if (bytes.length >= WORTH_IT) {
      const file = join(this.#folder, name)
      await this.#makeFolder(dirname(file))
      // Nobody looks for these before the file itself is there.
      await allEnded(
        compress.map(async ([coding, make]) => writeFile(file + coding, await make(bytes, ending))),
      )
    }
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
    if (this.#there.has(name)) return true
    const isThere = (await stat(join(this.#folder, name)).catch(() => undefined))?.isFile() ?? false
    if (isThere) this.#there.add(name)
    return isThere
  }

  async hasAll(names: readonly string[]): Promise<boolean> {
    return (await Promise.all(names.map((name) => this.has(name)))).every(Boolean)
  }

  /** Removes files with what belongs to them. */
  async remove(names: Iterable<string>): Promise<void> {
    const endings = ['', ...compress.map(([coding]) => coding)]
    const files = [...names].flatMap((name) => {
      this.#there.delete(name)
      return endings.map((ending) => join(this.#folder, name + ending))
    })
    for (let from = 0; from < files.length; from += REMOVED_AT_ONCE)
      await Promise.all(files.slice(from, from + REMOVED_AT_ONCE).map((file) => rm(file, { force: true })))
  }

  /**
   * The names of all files that are here, those half-written by a server that was killed among them. What is sent
   * compressed belongs to its file, and has a name of its own only where that was never written.
   */
  async list(): Promise<string[]> {
    const entries = await readdir(this.#folder, { recursive: true, withFileTypes: true }).catch(() => [])
    const names = entries
      .filter((entry) => entry.isFile())
      .map((entry) => join(entry.parentPath, entry.name).slice(this.#folder.length + 1))
    const all = new Set(names)
    const belongs = (name: string): boolean =>
      compress.some(([coding]) => name.endsWith(coding) && all.has(name.slice(0, -coding.length)))
    return names.filter((name) => !belongs(name))
  }

  async #write(name: string, bytes: Buffer): Promise<void> {
    await this.#place(name, (to) => writeFile(to, bytes))
  }

  /** Each folder once. */
  #makeFolder(folder: string): Promise<void> {
    let made = this.#folders.get(folder)
    if (!made) this.#folders.set(folder, (made = makeFolder(folder)))
    return made
  }

  /**
   * Has a file made beside its place, and moves it there once it is whole. What is wanted by several at once is made once:
   * of two links to one file, rename(2) leaves both.
   */
  #place(name: string, make: (to: string) => Promise<void>): Promise<void> {
    let placing = this.#placing.get(name)
    if (!placing) {
      placing = this.#placeAlone(name, make).finally(() => this.#placing.delete(name))
      this.#placing.set(name, placing)
    }
    return placing
  }

  async #placeAlone(name: string, make: (to: string) => Promise<void>): Promise<void> {
    const file = join(this.#folder, name)
    await this.#makeFolder(dirname(file))
    const begun = join(dirname(file), BEGUN + newId())
    try {
      await make(begun)
      await rename(begun, file)
      this.#there.add(name)
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
