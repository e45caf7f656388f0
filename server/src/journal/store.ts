import { In, IsNull, LessThan } from 'typeorm'
import { type Edit, type JournalEntry, type KeptJournal, type SharedVersions } from '@gullyline/core'
import { JournalEntity, type JournalRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { findDocument } from '../documents/store.ts'
import type { SiteData } from '../db/site-scope.ts'

/** Whose edits to which document: each tab of a browser keeps a journal of its own. */
export interface JournalKey {
  readonly documentId: string
  readonly personId: string
  readonly tab: string
}

/** What is journaled of one tab, and of all tabs of a person on one page, in bytes: far more than a day of typing. */
const MOST_OF_TAB = 4_000_000
const MOST_OF_PERSON = 8_000_000
/** As MariaDB reads JSON: 32 levels from the list of edits on, which stands in an entry of a list. */
const DEEPEST = 33
/** The journal of a tab that is closed is offered for so long after it was offered first. */
const OFFERED_FOR_MS = 30 * 24 * 3_600_000

/** Journals entries; one that is there already is replaced, so that sending twice does no harm. */
export async function keepEntries(
  at: SiteData,
  key: JournalKey,
  entries: readonly JournalEntry[],
): Promise<void> {
  if (isDeeperThan(entries, DEEPEST))
    throw new Refused('malformed', 'These edits can’t be journaled. Nothing was changed.', {
      problems: [{ pointer: '/entries', message: 'has an edit that is nested too deep' }],
    })
  await findDocument(at, key.documentId)
  const rows = entries.map(({ number, base, shared, at, edits }) => ({
    ...key,
    number,
    base,
    shared: shared ? { ...shared } : null,
    at: new Date(at),
    edits: [...edits],
    offeredAt: null,
  }))
  if (rows.length === 0) return
  await refuseTooMuch(at, key, rows)
  await at.manager.upsert(JournalEntity, rows, ['documentId', 'personId', 'tab', 'number'])
}

/** Refuses, with `journal-full`, what would make opening the page slow for everybody. */
async function refuseTooMuch(
  at: SiteData,
  { documentId, personId, tab }: JournalKey,
  rows: readonly Pick<JournalRow, 'number' | 'edits'>[],
): Promise<void> {
  const numbers = rows.map(({ number }) => number)
  const stay = (await at.manager
    .createQueryBuilder(JournalEntity, 'j')
    .select('SUM(LENGTH(j.edits))', 'ofPerson')
    .addSelect('SUM(IF(j.tab = :tab, LENGTH(j.edits), 0))', 'ofTab')
    .where('j.document_id = :documentId AND j.person_id = :personId', { documentId, personId })
    .andWhere('NOT (j.tab = :tab AND j.number IN (:...numbers))', { tab, numbers })
    .getRawOne<Record<'ofPerson' | 'ofTab', string | null>>())!
  const added = rows.reduce((all, { edits }) => all + Buffer.byteLength(JSON.stringify(edits)), 0)
  const isOver = added + Number(stay.ofTab) > MOST_OF_TAB || added + Number(stay.ofPerson) > MOST_OF_PERSON
  if (isOver)
    throw new Refused(
      'journal-full',
      'There are too many unsaved edits of this page for the server’s journal. They are still in this browser: save the page.',
    )
}

function isDeeperThan(value: unknown, most: number): boolean {
  if (typeof value !== 'object' || value === null) return false
  return most === 0 || Object.values(value).some((one) => isDeeperThan(one, most - 1))
}

/**
 * What is journaled of a person's edits to a page, tab by tab, the newest tab first. Of tabs that are closed it is
 * offered for 30 days from now on.
 */
export async function listJournals(
  at: SiteData,
  documentId: string,
  personId: string,
  open: ReadonlySet<string>,
): Promise<KeptJournal[]> {
  await findDocument(at, documentId)
  await at.manager.delete(JournalEntity, { offeredAt: LessThan(new Date(Date.now() - OFFERED_FOR_MS)) })
  const rows = await at.manager.find(JournalEntity, {
    where: { documentId, personId },
    order: { number: 'ASC' },
  })
  const tabs = [...new Set(rows.map((row) => row.tab))]
  const offered = tabs.filter((tab) => !open.has(tab))
  if (offered.length > 0) {
    const mine = { documentId, personId, tab: In(offered), offeredAt: IsNull() }
    await at.manager.update(JournalEntity, mine, { offeredAt: new Date() })
  }
  return tabs
    .map((tab) => ({
      tab,
      isOpen: open.has(tab),
      entries: rows.filter((row) => row.tab === tab).map(toEntry),
    }))
    .sort((a, b) => b.entries.at(-1)!.at - a.entries.at(-1)!.at)
}

/** What is journaled of one tab, in its order. */
export async function entriesOf({ manager }: SiteData, key: JournalKey): Promise<readonly JournalEntry[]> {
  const rows = await manager.find(JournalEntity, { where: { ...key }, order: { number: 'ASC' } })
  return rows.map(toEntry)
}

/** Another value after each change of what is journaled of a tab. */
export async function journalMark({ manager }: Pick<SiteData, 'manager'>, key: JournalKey): Promise<string> {
  const { count, number, at } = (await manager
    .createQueryBuilder(JournalEntity, 'j')
    .select(['COUNT(*) AS count', 'MAX(j.number) AS number', 'MAX(j.at) AS at'])
    .where('j.document_id = :documentId AND j.person_id = :personId AND j.tab = :tab', { ...key })
    .getRawOne<{ count: string; number: number | null; at: Date | null }>())!
  return `${count}.${number ?? ''}.${at?.getTime() ?? ''}`
}

function toEntry({ number, base, shared, at, edits }: JournalRow): JournalEntry {
  const on = shared === null ? {} : { shared: shared as NonNullable<JournalEntry['shared']> }
  return { number, base, ...on, at: at.getTime(), edits: edits as readonly Edit[] }
}

interface DropOptions {
  readonly until?: number
  readonly base?: number
  readonly shared?: SharedVersions
}

/** Drops entries with numbers below `until`, or all. Those that stay stand on the versions given from now on. */
export async function dropEntries(
  at: SiteData,
  key: JournalKey,
  { until, base, shared = {} }: DropOptions = {},
): Promise<void> {
  await at.manager.delete(JournalEntity, {
    ...key,
    ...(until === undefined ? {} : { number: LessThan(until) }),
  })
  if (base !== undefined) await at.manager.update(JournalEntity, { ...key }, { base })
  for (const [name, version] of Object.entries(shared))
    await at.manager.query(
      `UPDATE journal_entries SET shared = JSON_SET(COALESCE(shared, '{}'), ?, ?)
       WHERE document_id = ? AND person_id = ? AND tab = ?`,
      [`$.${name}`, version, key.documentId, key.personId, key.tab],
    )
}
