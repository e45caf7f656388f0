/** The files of the release that visitors see, as they are answered: small ones from memory, each read once. */
import { createHash } from 'node:crypto'
import { readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { getMimeType } from 'hono/utils/mime'
import { contentFolder } from '../media/folders.ts'
import { Releases } from '../publish/manifest.ts'
import { ReleaseAddresses } from './release-addresses.ts'

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

export class SiteFiles {
  readonly #siteId: string
  readonly #releases: Releases
  readonly #content: string
  readonly #addresses: ReleaseAddresses
  /** The release that these addresses are of. */
  #shown: string | undefined
  /** By their names in the content store, where they never change: another release does not forget them. */
  readonly #files = new Map<string, Promise<SiteFile | undefined>>()
  #held = 0

  /** `siteId` names the site that visitors see. */
  constructor({ dataDir, siteId }: { readonly dataDir: string; readonly siteId: string }) {
    this.#siteId = siteId
    this.#releases = new Releases(dataDir)
    this.#content = contentFolder(dataDir)
    this.#addresses = new ReleaseAddresses(this.#content)
  }

  /** The file at a path that begins with a slash; undefined where there is none. Folders have no file of their own. */
  async find(path: string): Promise<SiteFile | undefined> {
    const name = this.#current()?.find(path)
    return name === undefined ? undefined : this.#read(name)
  }

  /** Where an address leads that a page had before. */
  oldAddress(path: string): string | undefined {
    return this.#current()?.redirect(path)
  }

  /** The id of the release that is live now: another server may have switched it. */
  get release(): string | undefined {
    return this.#releases.current(this.#siteId)
  }

  async #read(name: string): Promise<SiteFile | undefined> {
    let found = this.#files.get(name)
    if (!found) {
      if (this.#held > MOST_HELD) {
        this.#files.clear()
        this.#held = 0
      }
      found = read(join(this.#content, name)).catch(() => undefined)
      this.#files.set(name, found)
      const file = await found
      // What can't be read now may be later.
      if (!file) this.#files.delete(name)
      for (const bytes of Object.values(file?.bytes ?? {})) this.#held += bytes.length
    }
    return found
  }

  #current(): ReleaseAddresses | undefined {
    const id = this.release
    if (id === undefined) return undefined
    if (id !== this.#shown && this.#show(id)) this.#shown = id
    return this.#shown === undefined ? undefined : this.#addresses
  }

  /** False where the release is gone already, because others came after it: the next request finds those. */
  #show(id: string): boolean {
    const manifest = this.#releases.manifest(id)
    if (!manifest) return false
    try {
      this.#addresses.show(manifest)
      return true
    } catch {
      return false
    }
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
