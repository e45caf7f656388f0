/**
 * What the pages of a release were made from, which the next publish compares with. Kept in parts, so that of a large
 * site little is written when little has changed.
 */
import type { PageSettings, ReadName } from '@gullyline/core'
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

/** Parts that were read or written last, by their names, which change when what is in them does. */
let known: ReadonlyMap<string, PageRecords> = new Map()

/** Reads what the pages of a release were made from. What can't be read is left out: those pages are made anew. */
export async function readRecords(store: ContentStore, names: readonly string[]): Promise<PageRecords> {
  const parts = new Map<string, PageRecords>()
  for (const name of names) parts.set(name, known.get(name) ?? (await readPart(store, name)))
  known = parts
  return Object.assign({}, ...parts.values()) as PageRecords
}

async function readPart(store: ContentStore, name: string): Promise<PageRecords> {
  try {
    return JSON.parse(await store.readText(name)) as PageRecords
  } catch {
    return {}
  }
}

/** Writes what the pages of a release are made from, and returns the names of its parts. Parts that are known are not made again. */
export async function writeRecords(store: ContentStore, pages: PageRecords): Promise<readonly string[]> {
  const parts = new Map<string, Record<string, PageRecord>>()
  for (const [id, record] of Object.entries(pages)) {
    const letters = id.slice(-LETTERS)
    const part = parts.get(letters) ?? {}
    part[id] = record
    parts.set(letters, part)
  }
  const before = new Map([...known].map(([name, part]) => [lettersOf(part), { name, part }]))
  const written = new Map<string, PageRecords>()
  for (const [letters, part] of parts) {
    const same = before.get(letters)
    const name =
      same && isSame(same.part, part) ? same.name : await store.putData(Buffer.from(JSON.stringify(part)))
    written.set(name, part)
  }
  known = written
  return [...written.keys()]
}

function lettersOf(part: PageRecords): string | undefined {
  return Object.keys(part)[0]?.slice(-LETTERS)
}

function isSame(one: PageRecords, other: PageRecords): boolean {
  const ids = Object.keys(one)
  return ids.length === Object.keys(other).length && ids.every((id) => one[id] === other[id])
}
