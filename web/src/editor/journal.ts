/**
 * Every edit since the last save, kept in the browser at once, so that a tab that dies loses nothing. One entry for
 * each act, under a key of its own: keeping one costs the same however many there are.
 */
import { applyEdits, type Edit, type JournalEntry, type Page, type Registry } from '@gullyline/core'
import { openEditor, type EditorAction, type EditorState } from './editor-state.ts'

/** The part of the browser's storage that a journal needs. */
export type JournalStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** Whose journal it is: each tab keeps one of its own for each page. */
export interface JournalOwner {
  readonly personId: string
  readonly pageId: string
  readonly tab: string
}

/** What was kept of a page, as what it takes to go on from there. */
export interface Kept {
  /** Number of the version that the first edit was made on. */
  readonly base: number
  /** Number of the version that the last edit stands on: what others saved up to there is among the edits. */
  readonly newest: number
  readonly at: number
  readonly edits: readonly Edit[]
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
  #next: number

  constructor(storage: JournalStorage, owner: JournalOwner) {
    this.owner = owner
    this.#storage = storage
    this.#prefix = prefixOf(owner)
    this.#next = (this.entries().at(-1)?.number ?? -1) + 1
  }

  /** Keeps one act. False when the browser has no room: then the person has to be told to save. */
  keep(base: number, at: number, edits: readonly Edit[]): boolean {
    const entry: JournalEntry = { number: this.#next++, base, at, edits }
    try {
      this.#storage.setItem(this.#keyOf(entry.number), JSON.stringify(entry))
      return true
    } catch {
      return false
    }
  }

  /** Marks a point that `dropUntil` can be given later: everything kept so far has a lower number. */
  mark(): number {
    return this.#next
  }

  /** Drops what was kept before a mark: it has been saved. What was kept since now stands on version `base`. */
  dropUntil(mark: number, base: number): void {
    for (const entry of this.entries()) {
      if (entry.number < mark) this.#storage.removeItem(this.#keyOf(entry.number))
      else this.#storage.setItem(this.#keyOf(entry.number), JSON.stringify({ ...entry, base }))
    }
  }

  /** What is kept, in order, from a number on. What can't be read is left out. */
  entries(from = 0): JournalEntry[] {
    return keysWith(this.#storage, this.#prefix)
      .flatMap((key) => readEntry(this.#storage, key) ?? [])
      .filter((entry) => entry.number >= from)
  }

  /** What is kept, or undefined when that is nothing, or nothing that can be read. */
  read(): Kept | undefined {
    return keptFrom(this.entries())
  }

  #keyOf(number: number): string {
    return this.#prefix + String(number).padStart(DIGITS, '0')
  }
}

/** Journals that tabs of this browser have kept of a page, by tab. */
export function journalsInBrowser(
  storage: JournalStorage,
  personId: string,
  pageId: string,
): { readonly tab: string; readonly entries: readonly JournalEntry[] }[] {
  const prefix = prefixOf({ personId, pageId, tab: '' }).slice(0, -1)
  const tabs = new Set(keysWith(storage, prefix).map((key) => key.slice(prefix.length).split('.')[0]!))
  return [...tabs].map((tab) => ({ tab, entries: new Journal(storage, { personId, pageId, tab }).entries() }))
}

/** What entries amount to, or undefined when there are none. */
export function keptFrom(entries: readonly JournalEntry[]): Kept | undefined {
  const [first, last] = [entries[0], entries.at(-1)]
  if (!first || !last) return undefined
  return {
    base: first.base,
    newest: last.base,
    at: last.at,
    edits: entries.flatMap((entry) => entry.edits),
    acts: entries.length,
  }
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

/**
 * The editor on the version that the edits were made on, with all that was kept done again as one step: it can be
 * undone as one, and counts as not saved. When it does not fit, the page is as it was saved and the notice says so;
 * the journal still has what was kept.
 */
export function goOnFrom(base: Page, kept: Kept, registry: Registry): EditorState {
  const state = openEditor(base, kept.newest)
  const { edits, at } = kept
  const result = applyEdits(base, edits, registry)
  if (!result.ok) {
    const words = `The kept edits do not fit this page and were left in the journal. ${result.message}`
    return { ...state, notice: { words, tone: 'refused', count: 1 } }
  }
  const transaction = { label: 'Edits kept from last time', origin: 'journal', at, edits }
  return {
    ...state,
    page: result.page,
    history: { done: [{ transaction, inverse: result.inverse }], undone: [] },
  }
}
