/**
 * Every edit since the last save, kept in the browser at once, so that a tab that dies loses nothing. One entry for
 * each act, under a key of its own: writing one costs the same however many there are, and letters typed into one value
 * are one entry. What the journal holds is in memory; the browser's storage is a copy, and may be full.
 */
import { mergePair, type Edit, type JournalEntry, type SharedVersions } from '@gullyline/core'
import type { EditorAction, EditorState } from './editor-state.ts'

/** The part of the browser's storage that a journal needs. */
export type JournalStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** Whose journal it is: each tab has one of its own for each page. */
export interface JournalOwner {
  readonly personId: string
  readonly pageId: string
  readonly tab: string
}

/** What was journaled of a page, as what it takes to go on from there. */
export interface Journaled {
  /** Number of the version that the first edit was made on. */
  readonly base: number
  /** Number of the version that the last edit stands on: what others saved up to there is among the edits. */
  readonly newest: number
  /** Versions of what is shared with other pages that the first and the last edit were made on; absent in old entries. */
  readonly shared?: { readonly base: SharedVersions; readonly newest: SharedVersions }
  readonly at: number
  readonly entries: readonly JournalEntry[]
  /** How many acts there were. */
  readonly acts: number
}

const PREFIX = 'gullyline.journal.'
/** Entries are read back in the order of their keys, so numbers have a fixed width. */
const DIGITS = 8

export class Journal {
  readonly owner: JournalOwner
  readonly #storage: JournalStorage
  readonly #prefix: string
  #entries: JournalEntry[]
  #next: number
  /** Entries below this number belong to a save that is under way, and are not added to. */
  #sealed = 0
  /** Numbers of entries that the browser's storage had no room for. */
  readonly #unstored = new Set<number>()

  constructor(storage: JournalStorage, owner: JournalOwner) {
    this.owner = owner
    this.#storage = storage
    this.#prefix = prefixOf(owner)
    this.#entries = keysWith(storage, this.#prefix).flatMap((key) => readEntry(storage, key) ?? [])
    this.#next = (this.#entries.at(-1)?.number ?? -1) + 1
  }

  /** Journals one act. False when the browser had no room for it: then only the server's copy will have it. */
  keep(base: number, at: number, edits: readonly Edit[], shared?: SharedVersions): boolean {
    const last = this.#entries.at(-1)
    const isOnSame = last?.base === base && sameVersions(last.shared, shared)
    const joined = isOnSame && last.number >= this.#sealed && mergeInto(last, edits)
    const entry: JournalEntry = joined
      ? { ...last, at, edits: [joined] }
      : { number: this.#next++, base, ...(shared ? { shared } : {}), at, edits }
    if (joined) this.#entries[this.#entries.length - 1] = entry
    else this.#entries.push(entry)
    return this.#store(entry)
  }

  /** Whether something is journaled that the browser's storage does not hold. */
  get isOverfull(): boolean {
    return this.#unstored.size > 0
  }

  /** Number of the newest entry; -1 when there has been none. */
  get lastNumber(): number {
    return this.#next - 1
  }

  /** Marks a point that `dropUntil` can be given later: everything journaled so far has a lower number. */
  mark(): number {
    this.#sealed = this.#next
    return this.#next
  }

  /** Drops what was journaled before a mark: it has been saved. What came since stands on these versions from now on. */
  dropUntil(mark: number, base: number, shared?: SharedVersions): void {
    for (const { number } of this.#entries) if (number < mark) this.#forget(number)
    this.#entries = this.#entries
      .filter(({ number }) => number >= mark)
      .map((entry) => ({ ...entry, base, ...(shared ? { shared } : {}) }))
    for (const entry of this.#entries) this.#store(entry)
  }

  /** What is journaled, in order, from a number on. */
  entries(from = 0): JournalEntry[] {
    return this.#entries.filter((entry) => entry.number >= from)
  }

  hasFrom(number: number): boolean {
    return (this.#entries.at(-1)?.number ?? -1) >= number
  }

  /** What is journaled, or undefined when that is nothing. */
  read(): Journaled | undefined {
    return journaledFrom(this.#entries)
  }

  #store(entry: JournalEntry): boolean {
    try {
      this.#storage.setItem(this.#keyOf(entry.number), JSON.stringify(entry))
      this.#unstored.delete(entry.number)
      return true
    } catch {
      // What stands there is older than what was typed: read back, it would pass for the newest.
      this.#storage.removeItem(this.#keyOf(entry.number))
      this.#unstored.add(entry.number)
      return false
    }
  }

  #forget(number: number): void {
    this.#storage.removeItem(this.#keyOf(number))
    this.#unstored.delete(number)
  }

  #keyOf(number: number): string {
    return this.#prefix + String(number).padStart(DIGITS, '0')
  }
}

function sameVersions(one: SharedVersions = {}, other: SharedVersions = {}): boolean {
  const names = new Set([...Object.keys(one), ...Object.keys(other)])
  return [...names].every((name) => one[name] === other[name])
}

/** The one edit that an entry and what follows it come to, when both only set one and the same value. */
function mergeInto(entry: JournalEntry, edits: readonly Edit[]): Edit | undefined {
  const [first, next] = [entry.edits[0], edits[0]]
  return entry.edits.length === 1 && edits.length === 1 && first && next ? mergePair(first, next) : undefined
}

/** Journals that tabs of this browser have of a page, by tab. */
export function journalsInBrowser(
  storage: JournalStorage,
  personId: string,
  pageId: string,
): { readonly tab: string; readonly entries: readonly JournalEntry[] }[] {
  const prefix = prefixOf({ personId, pageId, tab: '' }).slice(0, -1)
  const tabs = new Set(keysWith(storage, prefix).map((key) => key.slice(prefix.length).split('.')[0]!))
  return [...tabs].map((tab) => ({ tab, entries: new Journal(storage, { personId, pageId, tab }).entries() }))
}

/**
 * The entries of one tab from both places they are in. An entry that both have is taken as the later one: what the
 * browser had no room for, the server has.
 */
export function joinEntries(
  here: readonly JournalEntry[],
  onServer: readonly JournalEntry[],
): readonly JournalEntry[] {
  const byNumber = new Map<number, JournalEntry>()
  for (const entry of [...onServer, ...here]) {
    const known = byNumber.get(entry.number)
    if (!known || entry.at >= known.at) byNumber.set(entry.number, entry)
  }
  return [...byNumber.values()].sort((a, b) => a.number - b.number)
}

/** What entries amount to, or undefined when there are none. */
export function journaledFrom(entries: readonly JournalEntry[]): Journaled | undefined {
  const [first, last] = [entries[0], entries.at(-1)]
  if (!first || !last) return undefined
  const shared = first.shared && last.shared && { base: first.shared, newest: last.shared }
  const on = shared ? { shared } : {}
  return { base: first.base, newest: last.base, ...on, at: last.at, entries, acts: entries.length }
}

function prefixOf({ personId, pageId, tab }: JournalOwner): string {
  return `${PREFIX}${personId}.${pageId}.${tab}.`
}

function keysWith(storage: JournalStorage, prefix: string): string[] {
  const keys: string[] = []
  for (let i = 0; i < storage.length; i++) {
    const key = storage.key(i)
    if (key?.startsWith(prefix)) keys.push(key)
  }
  return keys.sort()
}

function readEntry(storage: JournalStorage, key: string): JournalEntry | undefined {
  try {
    const entry = JSON.parse(storage.getItem(key) ?? '') as Partial<JournalEntry>
    const isWhole = [entry.number, entry.base, entry.at].every((one) => typeof one === 'number')
    return isWhole && Array.isArray(entry.edits) ? (entry as JournalEntry) : undefined
  } catch {
    return undefined
  }
}

/** The edits by which an action changes the page, undo and redo included; undefined when it leaves the page as it is. */
export function editsOf(before: EditorState, action: EditorAction): readonly Edit[] | undefined {
  switch (action.type) {
    case 'do':
      return action.transaction.edits
    case 'undo':
      return before.history.done.at(-1)?.inverse
    case 'redo':
      return before.history.undone.at(-1)?.transaction.edits
    default:
      return undefined
  }
}
