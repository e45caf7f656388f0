/** The files of the release that visitors see, as they are answered: small ones from memory, each read once. */
import { createHash } from 'node:crypto'
import { readFile, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { getMimeType } from 'hono/utils/mime'
import { contentFolder } from '../media/folders.ts'
import type { Manifest } from '@gullyline/core'
import { Releases } from '../publish/manifest.ts'

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

interface Live {
  readonly id: string
  readonly manifest: Manifest
}

export class SiteFiles {
  readonly #siteId: string
  readonly #releases: Releases
  readonly #content: string
  #live: Live | undefined
  /** By their names in the content store, where they never change: another release does not forget them. */
  readonly #files = new Map<string, Promise<SiteFile | undefined>>()
  #held = 0

  /** `siteId` names the site that visitors see. */
  constructor({ dataDir, siteId }: { readonly dataDir: string; readonly siteId: string }) {
    this.#siteId = siteId
    this.#releases = new Releases(dataDir)
    this.#content = contentFolder(dataDir)
  }

  /** The file at a path that begins with a slash; undefined where there is none. Folders have no file of their own. */
  async find(path: string): Promise<SiteFile | undefined> {
    const addresses = this.#current()?.manifest.addresses ?? {}
    return Object.hasOwn(addresses, path) ? this.#read(addresses[path]!) : undefined
  }

  /** Where an address leads that a page had before. */
  oldAddress(path: string): string | undefined {
    const redirects = this.#current()?.manifest.redirects ?? {}
    return Object.hasOwn(redirects, path) ? redirects[path] : undefined
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

  #current(): Live | undefined {
    const id = this.release
    if (id === undefined) return undefined
    if (id !== this.#live?.id) {
      const manifest = this.#releases.manifest(id)
      if (manifest) this.#live = { id, manifest }
    }
    return this.#live
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
