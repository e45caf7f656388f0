/**
 * What the pages of a release were made from, which the next publish compares with. Kept in parts, so that of a large
 * site little is written when little has changed.
 */
import type { PageSettings, ReadName, ReleasedPages } from '@gullyline/core'
import type { ContentStore } from './content-store.ts'

/** A published page: which version, and what its files were made from. */
export interface PageRecord {
  readonly version: number
  readonly savedAt: string
  readonly settings: PageSettings
  /** What was read of the site to render it. */
  readonly reads: readonly ReadName[]
  /** A digest of the version, of all that was read, and of the program: with the same key come the same files. */
  readonly key: string
  /** Its files, by address. */
  readonly files: Readonly<Record<string, string>>
}

export type PageRecords = Readonly<Record<string, PageRecord>>

/** The parts are told by the first letters of a page's id: enough of them that each is small on a site of thousands. */
const LETTERS = 2

/** The parts of releases, each read once: what has another content has another name. */
export class RecordParts {
  #known = new Map<string, PageRecords>()

  /** Reads what the pages of a release were made from. What can't be read is left out: those pages are made anew. */
  async read(store: ContentStore, names: readonly string[]): Promise<PageRecords> {
    const parts = await Promise.all(names.map((name) => this.#part(store, name).catch(() => ({}))))
    return Object.assign({}, ...parts) as PageRecords
  }

  /**
   * Writes what the pages of a release are made from, and returns the names of its parts. Those of the release before
   * (`names`) in which nothing changed are not made again.
   */
  async write(store: ContentStore, pages: PageRecords, names: readonly string[]): Promise<readonly string[]> {
    const parts = new Map<string, Record<string, PageRecord>>()
    for (const [id, record] of Object.entries(pages)) {
      const letters = id.slice(-LETTERS)
      const part = parts.get(letters) ?? {}
      part[id] = record
      parts.set(letters, part)
    }
    const before = new Map<string | undefined, { readonly name: string; readonly part: PageRecords }>()
    for (const name of names) {
      const part = this.#known.get(name)
      if (part) before.set(lettersOf(part), { name, part })
    }
    const written: string[] = []
    for (const [letters, part] of parts) {
      const same = before.get(letters)
      if (same && isSame(same.part, part)) written.push(same.name)
      else {
        const name = await store.putData(Buffer.from(JSON.stringify(part)))
        this.#known.set(name, part)
        written.push(name)
      }
    }
    return written
  }

  /** Gives the names of the files that parts of releases name. Rejects when one of the parts can't be read. */
  async fileNames(store: ContentStore, names: readonly string[]): Promise<Set<string>> {
    const parts: ReleasedPages[] = await Promise.all(names.map((name) => this.#part(store, name)))
    return new Set(parts.flatMap((part) => Object.values(part)).flatMap(({ files }) => Object.values(files)))
  }

  /** Forgets all parts but these. */
  keep(names: ReadonlySet<string>): void {
    for (const name of this.#known.keys()) if (!names.has(name)) this.#known.delete(name)
  }

  async #part(store: ContentStore, name: string): Promise<PageRecords> {
    const known = this.#known.get(name)
    if (known) return known
    const part = JSON.parse(await store.readText(name)) as PageRecords
    this.#known.set(name, part)
    return part
  }
}

function lettersOf(part: PageRecords): string | undefined {
  return Object.keys(part)[0]?.slice(-LETTERS)
}

function isSame(one: PageRecords, other: PageRecords): boolean {
  const ids = Object.keys(one)
  return ids.length === Object.keys(other).length && ids.every((id) => one[id] === other[id])
}
