/**
 * Text that did not make it into the page: the side of a conflict that was not chosen, edits that no longer fit. It is
 * set aside in this browser, by person and page, until somebody has fetched it back or removed it.
 */
import type { Json, JournalEntry } from '@gullyline/core'
import { useValue, Value } from '../../ui/value.ts'
import { newId } from './new-id.ts'
import type { JournalOwner } from './journal.ts'

export interface SetAsideItem {
  readonly id: string
  /** What it was and why it is here. */
  readonly title: string
  readonly text: string
  /** Milliseconds since 1970. */
  readonly at: number
}

type Owner = Pick<JournalOwner, 'personId' | 'pageId'>

const PREFIX = 'gullyline.set-aside.'
/** The oldest give way: text that nobody fetched back after so many others. */
const MOST_ITEMS = 100
const NONE: readonly SetAsideItem[] = []

/** Counts up when something was set aside or taken back. */
const changes = new Value(0)
const read = new Map<string, { readonly json: string; readonly items: readonly SetAsideItem[] }>()

/** What is set aside of a page, newest first. The same list for the same content. */
function setAsideItems(owner: Owner): readonly SetAsideItem[] {
  const key = keyOf(owner)
  const json = localStorage.getItem(key) ?? '[]'
  const known = read.get(key)
  if (known?.json === json) return known.items
  const items = parse(json)
  read.set(key, { json, items })
  return items
}

/** False when the browser had no room for them. */
export function addSetAside(owner: Owner, added: readonly Pick<SetAsideItem, 'title' | 'text'>[]): boolean {
  if (added.length === 0) return true
  const at = Date.now()
  return write(
    owner,
    [...added.map((one) => ({ ...one, id: newId(), at })), ...setAsideItems(owner)].slice(0, MOST_ITEMS),
  )
}

export function removeSetAside(owner: Owner, id: string): void {
  write(
    owner,
    setAsideItems(owner).filter((one) => one.id !== id),
  )
}

export function useSetAside(owner: Owner): readonly SetAsideItem[] {
  useValue(changes)
  return setAsideItems(owner)
}

/**
 * Sets aside journaled edits that could not be done again, as the text that is in them. False when the browser had no room
 * for them: then the journal must go on having them.
 */
export function setAsideEntries(owner: Owner, entries: readonly JournalEntry[]): boolean {
  return addSetAside(
    owner,
    entries.map((entry) => ({
      title: 'Unsaved edit that no longer fits the page',
      text: textIn(entry.edits),
    })),
  )
}

/** Every text in a value, one on each line: what a person wrote is found again whatever it stood in. */
function textIn(value: unknown): string {
  const found: string[] = []
  const visit = (one: unknown, key: string): void => {
    if (typeof one === 'string' && TEXT_KEYS.test(key)) found.push(one)
    else if (Array.isArray(one)) for (const inside of one) visit(inside, key)
    else if (typeof one === 'object' && one !== null)
      for (const [name, inside] of Object.entries(one as Record<string, Json>)) visit(inside, name)
  }
  visit(value, '')
  return found.join('\n') || JSON.stringify(value).slice(0, 1000)
}

/** Fields that hold what a person typed; others are names of kinds, tokens and ids. */
const TEXT_KEYS =
  /^(value|text|label|heading|said|who|role|source|caption|alt|title|summary|author|rows|words|brand|action)$/

function write(owner: Owner, items: readonly SetAsideItem[]): boolean {
  try {
    localStorage.setItem(keyOf(owner), JSON.stringify(items))
  } catch {
    return false
  }
  changes.set(changes.get() + 1)
  return true
}

function parse(json: string): readonly SetAsideItem[] {
  try {
    const value: unknown = JSON.parse(json)
    return Array.isArray(value) ? (value as SetAsideItem[]) : NONE
  } catch {
    return NONE
  }
}

function keyOf({ personId, pageId }: Owner): string {
  return `${PREFIX}${personId}.${pageId}`
}
