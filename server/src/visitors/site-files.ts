/** The files of the release that visitors see, as they are answered: small ones from memory, each read once. */
import { createHash } from 'node:crypto'
import { readFileSync, readlinkSync } from 'node:fs'
import { readFile, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { getMimeType } from 'hono/utils/mime'
import { liveDir } from '../media/folders.ts'
import { redirectsOf } from '../publish/redirects.ts'

/** A file as it lies there, or compressed. */
export type Coding = 'identity' | 'br' | 'gzip'

export interface SiteFile {
  readonly path: string
  readonly type: string
  readonly size: number
  readonly modified: Date
  /** Differs when the bytes do; of a coding, with its name behind it (RFC 9110, 8.8.3.3). */
  readonly tag: string
  /** Undefined for a file that is too large to be held in memory. */
  readonly bytes: Readonly<Partial<Record<Coding, Buffer>>> | undefined
}

/** Files up to this size are answered from memory. */
const LARGEST_HELD = 256 * 1024
/** All that is held together; then it is begun anew. */
const MOST_HELD = 96 * 1024 * 1024

const ENDINGS = { br: '.br', gzip: '.gz' } as const

interface Release {
  readonly folder: string
  readonly files: Map<string, Promise<SiteFile | undefined>>
  held: number
  redirects?: Readonly<Record<string, string>>
}

export class SiteFiles {
  readonly #link: string
  #release: Release | undefined
  #name = ''

  constructor(dataDir: string) {
    this.#link = liveDir(dataDir)
  }

  /** The file at a path that begins with a slash; undefined where there is none. Folders have no file of their own. */
  async find(path: string): Promise<SiteFile | undefined> {
    const release = this.#current()
    if (!release) return undefined
    let found = release.files.get(path)
    if (!found) {
      if (release.held > MOST_HELD) {
        release.files.clear()
        release.held = 0
      }
      found = read(join(release.folder, path)).catch(() => undefined)
      release.files.set(path, found)
      const file = await found
      // What does not exist is not remembered: anybody can ask for anything.
      if (!file) release.files.delete(path)
      for (const bytes of Object.values(file?.bytes ?? {})) release.held += bytes.length
    }
    return found
  }

  /** Where an address leads that a page had before. */
  oldAddress(path: string): string | undefined {
    const release = this.#current()
    if (!release) return undefined
    release.redirects ??= readRedirects(release.folder)
    return Object.hasOwn(release.redirects, path) ? release.redirects[path] : undefined
  }

  /** The name of the release that the link names now: another server may have switched it. */
  get release(): string | undefined {
    try {
      return readlinkSync(this.#link)
    } catch {
      return undefined
    }
  }

  #current(): Release | undefined {
    const name = this.release
    if (name === undefined) return undefined
    if (name !== this.#name) {
      this.#name = name
      this.#release = { folder: join(dirname(this.#link), name), files: new Map(), held: 0 }
    }
    return this.#release
  }
}

function readRedirects(folder: string): Readonly<Record<string, string>> {
  try {
    return JSON.parse(readFileSync(redirectsOf(folder), 'utf8')) as Record<string, string>
  } catch {
    return {}
  }
}

async function read(path: string): Promise<SiteFile | undefined> {
  const facts = await stat(path)
  if (!facts.isFile()) return undefined
  const { size, mtime } = facts
  const type = getMimeType(path) ?? 'application/octet-stream'
  const about = { path, size, modified: mtime, type: type.startsWith('text/') ? withCharset(type) : type }
  if (size > LARGEST_HELD)
    return { ...about, tag: `${size.toString(36)}-${mtime.getTime().toString(36)}`, bytes: undefined }
  const identity = await readFile(path)
  const [br, gzip] = await Promise.all(
    Object.values(ENDINGS).map((ending) => readFile(path + ending).catch(() => undefined)),
  )
  return {
    ...about,
    tag: createHash('sha256').update(identity).digest('base64url').slice(0, 16),
    bytes: { identity, ...(br ? { br } : {}), ...(gzip ? { gzip } : {}) },
  }
}

function withCharset(type: string): string {
  return type.includes('charset') ? type : `${type}; charset=utf-8`
}
