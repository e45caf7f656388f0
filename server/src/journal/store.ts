import { LessThan, type EntityManager } from 'typeorm'
import type { Edit, JournalEntry, KeptJournal, Problem } from '@gullyline/core'
import { JournalEntity, type JournalRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { findPageRow } from '../pages/store.ts'

/** Whose edits to which page: each tab of a browser keeps a journal of its own. */
export interface JournalKey {
  readonly pageId: string
  readonly personId: string
  readonly tab: string
}

const TAB = /^[a-z0-9]{1,24}$/
/** Entries in one request: a tab that was offline for a day sends them in parts. */
const MOST_ENTRIES = 500

/** Keeps entries; one that is kept already is replaced, so that sending twice does no harm. */
export async function keepEntries(manager: EntityManager, key: JournalKey, entries: unknown): Promise<void> {
  const problems = entriesProblems(entries)
  if (!TAB.test(key.tab)) problems.push({ pointer: '/tab', message: 'must be letters and digits' })
  if (problems.length > 0) {
    throw new Refused('malformed', 'The journal can’t be kept like this. Nothing was changed.', {
      problems,
    })
  }
  await findPageRow(manager, key.pageId)
  const rows = (entries as readonly JournalEntry[]).map(({ number, base, at, edits }) => ({
    ...key,
    number,
    base,
    at: new Date(at),
    edits: [...edits],
  }))
  if (rows.length > 0) await manager.upsert(JournalEntity, rows, ['pageId', 'personId', 'tab', 'number'])
}

function entriesProblems(entries: unknown): Problem[] {
  if (!Array.isArray(entries) || entries.length > MOST_ENTRIES)
    return [{ pointer: '/entries', message: `must be a list of at most ${MOST_ENTRIES}` }]
  return entries.flatMap((entry: unknown, index) => {
    const { number, base, at, edits } = (entry ?? {}) as Record<string, unknown>
    const isWhole = [number, base].every((one) => Number.isInteger(one) && Math.abs(one as number) < 2 ** 31)
    const isMoment =
      typeof at === 'number' && !Number.isNaN(new Date(at).getTime()) && at >= 0 && at < 2 ** 42
    const isList = Array.isArray(edits) && edits.every((one) => typeof one === 'object' && one !== null)
    return isWhole && isMoment && isList
      ? []
      : [{ pointer: `/entries/${index}`, message: 'must have whole numbers, a moment and a list of edits' }]
  })
}

/** What is kept of a person's edits to a page, tab by tab, the newest tab first. */
export async function listJournals(
  manager: EntityManager,
  pageId: string,
  personId: string,
  isOpen: (tab: string) => boolean,
): Promise<KeptJournal[]> {
  await findPageRow(manager, pageId)
  const rows = await manager.find(JournalEntity, { where: { pageId, personId }, order: { number: 'ASC' } })
  const tabs = [...new Set(rows.map((row) => row.tab))]
  return tabs
    .map((tab) => ({
      tab,
      isOpen: isOpen(tab),
      entries: rows.filter((row) => row.tab === tab).map(toEntry),
    }))
    .sort((a, b) => b.entries.at(-1)!.at - a.entries.at(-1)!.at)
}

function toEntry({ number, base, at, edits }: JournalRow): JournalEntry {
  return { number, base, at: at.getTime(), edits: edits as readonly Edit[] }
}

/** Drops entries with numbers below `until`, or all. Those that stay stand on version `base` from now on, where it is given. */
export async function dropEntries(
  manager: EntityManager,
  key: JournalKey,
  { until, base }: { readonly until?: number; readonly base?: number } = {},
): Promise<void> {
  await manager.delete(JournalEntity, { ...key, ...(until === undefined ? {} : { number: LessThan(until) }) })
  if (base !== undefined) await manager.update(JournalEntity, { ...key }, { base })
}
