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

export type PageRecords = ReadonlyMap<string, PageRecord>
/** A part of them, as it is kept. */
type RecordPart = Readonly<Record<string, PageRecord>>

/** The pages of a release, and those of them that are other ones than in the release before. */
interface Released {
  readonly pages: PageRecords
  readonly changed: ReadonlySet<string>
}

/** The parts are told by the first letters of a page's id: enough of them that each is small on a site of thousands. */
const LETTERS = 2

/** The parts of releases, each read once: what has another content has another name. */
export class RecordParts {
  readonly #known = new Map<string, RecordPart>()
  /** The names of the files of a part, made when they are asked for. */
  readonly #files = new WeakMap<RecordPart, ReadonlySet<string>>()

  /** Reads what the pages of a release were made from. What can't be read is left out: those pages are made anew. */
  async read(store: ContentStore, names: readonly string[]): Promise<PageRecords> {
    const parts = await Promise.all(names.map((name) => this.#part(store, name).catch(() => ({}))))
    return new Map(parts.flatMap((part) => Object.entries(part)))
  }

  /**
   * Writes what the pages of a release are made from, and returns the names of its parts. Those of the release before
   * (`names`) in which no page is another one are not made again.
   */
  async write(
    store: ContentStore,
    { pages, changed }: Released,
    names: readonly string[],
  ): Promise<readonly string[]> {
    const before = names.map((name) => this.#known.get(name))
    // None are named where what the release before said can't be read: all are written.
    const isKnown = names.length > 0 && before.every((part) => part !== undefined)
    const parts = isKnown ? otherParts(before, pages, changed) : allParts(pages)
    const kept = names.filter((_name, i) => isKnown && !parts.has(lettersIn(before[i]!)))
    const written: string[] = []
    for (const part of parts.values()) {
      if (Object.keys(part).length === 0) continue
      const name = await store.putData(Buffer.from(JSON.stringify(part)))
      this.#known.set(name, part)
      written.push(name)
    }
    return [...kept, ...written]
  }

  /** Gives the names of the files that parts of releases name. Rejects when one of the parts can't be read. */
  async fileNames(store: ContentStore, names: readonly string[]): Promise<Set<string>> {
    const parts = await Promise.all(names.map((name) => this.#part(store, name)))
    return new Set(parts.flatMap((part) => [...this.#filesOf(part)]))
  }

  /** Gives those of some files that no part of releases names. Rejects when one of the parts can't be read. */
  async unnamed(
    store: ContentStore,
    names: readonly string[],
    files: Iterable<string>,
  ): Promise<Set<string>> {
    const left = new Set(files)
    for (const name of names) {
      const named = this.#filesOf(this.#known.get(name) ?? (await this.#part(store, name)))
      for (const file of left) if (named.has(file)) left.delete(file)
    }
    return left
  }

  #filesOf(part: RecordPart): ReadonlySet<string> {
    let files = this.#files.get(part)
    if (!files) {
      files = new Set(Object.values(part satisfies ReleasedPages).flatMap((one) => Object.values(one.files)))
      this.#files.set(part, files)
    }
    return files
  }

  /** Forgets all parts but these. */
  keep(names: ReadonlySet<string>): void {
    for (const name of this.#known.keys()) if (!names.has(name)) this.#known.delete(name)
  }

  async #part(store: ContentStore, name: string): Promise<RecordPart> {
    const known = this.#known.get(name)
    if (known) return known
    const part = JSON.parse(await store.readText(name)) as RecordPart
    this.#known.set(name, part)
    return part
  }
}

/** The parts of a release, by the letters that tell them. */
function allParts(pages: PageRecords): Map<string, RecordPart> {
  const parts = new Map<string, Record<string, PageRecord>>()
  for (const [id, record] of pages) {
    const part = parts.get(lettersOf(id))
    if (part) part[id] = record
    else parts.set(lettersOf(id), { [id]: record })
  }
  return parts
}

/** Those of them that are other ones than before. One whose pages are all gone is empty. */
function otherParts(
  before: readonly RecordPart[],
  pages: PageRecords,
  changed: ReadonlySet<string>,
): Map<string, RecordPart> {
  const letters = new Set([...changed].map(lettersOf))
  const known = before.filter((part) => letters.has(lettersIn(part)))
  const parts = new Map([...letters].map((own): [string, Record<string, PageRecord>] => [own, {}]))
  const ids = [...known.flatMap((part) => Object.keys(part)), ...changed]
  for (const id of ids) {
    const record = pages.get(id)
    if (record) parts.get(lettersOf(id))![id] = record
  }
  return parts
}

function lettersIn(part: RecordPart): string {
  for (const id in part) return lettersOf(id)
  return ''
}

function lettersOf(id: string): string {
  return id.slice(-LETTERS)
}
