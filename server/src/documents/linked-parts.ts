/** Parts that documents show, and where they are shown: by what is recorded of versions, and never by searching documents. */
import type { LinkedPart, PartPage, PartUse, Reach } from '@gullyline/core'
import { PartEntity } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { isLive, liveVersions } from './live.ts'
import { thingsUsedBy, usesOf } from './uses.ts'
import { findVersions, newestVersions, readDocument } from './versions.ts'

/** The parts that the newest versions of documents show, also inside of other parts. */
export async function partsBelow(at: SiteData, documentIds: readonly string[]): Promise<readonly string[]> {
  const found = new Set<string>()
  let pending = documentIds
  while (pending.length > 0) {
    const used = await thingsUsedBy(at, pending)
    pending = used.flatMap(({ thing, target }) => (thing === 'part' && !found.has(target) ? [target] : []))
    for (const id of pending) found.add(id)
  }
  return [...found]
}

/** Returns the parts that the newest versions of documents show, as they are edited with them; those that do not exist are left out. */
export async function linkedParts(
  at: SiteData,
  documentIds: readonly string[],
): Promise<Readonly<Record<string, LinkedPart>>> {
  return describeParts(at, await partsBelow(at, documentIds))
}

async function describeParts(
  at: SiteData,
  ids: readonly string[],
): Promise<Readonly<Record<string, LinkedPart>>> {
  if (ids.length === 0) return {}
  const rows = await at.manager
    .createQueryBuilder(PartEntity, 'p')
    .where('p.id IN (:...ids) AND p.site_id = :siteId', { ids, siteId: at.siteId })
    .getMany()
  const known = rows.map(({ id }) => id)
  if (known.length === 0) return {}
  const newest = await newestVersions(at, known)
  const wanted = known.map((documentId) => ({ documentId, number: newest.get(documentId)!.number }))
  const documents = await findVersions(at, wanted, readDocument)
  const live = await liveVersions(at, known)
  const reach = await reachOf(at, known)
  return Object.fromEntries(
    rows.map(({ id, name }): [string, LinkedPart] => [
      id,
      {
        name,
        document: documents.get(id)!,
        version: newest.get(id)!.number,
        liveVersion: live.get(id)?.version ?? null,
        reach: reach.get(id)!,
      },
    ]),
  )
}

/** What shows parts or was made from them, by the part: documents whose newest version does. */
interface Shower {
  readonly part: string
  readonly id: string
  readonly type: string
}

/** What shows parts itself, and what shows that, up to pages and to what stands on all of them. */
async function showersOf(at: SiteData, ids: readonly string[]): Promise<readonly Shower[]> {
  const asked = new Set(ids)
  const all: Shower[] = []
  let pending = ids
  while (pending.length > 0) {
    const found = await at.manager.query<Shower[]>(
      `SELECT u.target AS part, d.id, d.type FROM uses u
       JOIN documents d ON d.id = u.document_id AND d.version = u.version
       WHERE u.thing IN ('part', 'template') AND u.target IN (?) AND d.site_id = ?`,
      [pending, at.siteId],
    )
    all.push(...found)
    const next = new Set(found.flatMap(({ id, type }) => (type === 'shared' && !asked.has(id) ? [id] : [])))
    for (const id of next) asked.add(id)
    pending = [...next]
  }
  return all
}

/** Where parts are shown, also inside of other parts: the ids of pages, or all pages, in the bin or not. */
async function pagesShowing(
  at: SiteData,
  ids: readonly string[],
): Promise<ReadonlyMap<string, ReadonlySet<string> | 'all'>> {
  const byPart = new Map<string, Shower[]>()
  for (const one of await showersOf(at, ids)) byPart.set(one.part, [...(byPart.get(one.part) ?? []), one])
  const pagesOf = (part: string): ReadonlySet<string> | 'all' => {
    const pages = new Set<string>()
    const seen = new Set([part])
    for (const one of seen)
      for (const { id, type } of byPart.get(one) ?? []) {
        if (type === 'header' || type === 'footer') return 'all'
        if (type === 'shared') seen.add(id)
        if (type === 'page') pages.add(id)
      }
    return pages
  }
  return new Map(ids.map((id) => [id, pagesOf(id)]))
}

interface StandingRow {
  readonly id: string
  readonly title: string
  readonly path: string
  readonly isLive: 0 | 1
}

/** Pages that stand in the tree: some of them, or all. */
function standingPages(at: SiteData, ids: ReadonlySet<string> | 'all'): Promise<StandingRow[]> {
  if (ids !== 'all' && ids.size === 0) return Promise.resolve([])
  return at.manager.query<StandingRow[]>(
    `SELECT p.id, p.title, p.address AS path, ${isLive('p.id')} AS isLive FROM pages p
     WHERE p.site_id = ? AND p.address IS NOT NULL ${ids === 'all' ? '' : 'AND p.id IN (?)'} ORDER BY p.address`,
    [at.siteId, ids === 'all' ? undefined : [...ids]],
  )
}

/** Returns on how many pages parts stand, also inside of other parts, by their ids. */
export async function reachOf(at: SiteData, ids: readonly string[]): Promise<ReadonlyMap<string, Reach>> {
  if (ids.length === 0) return new Map()
  const showing = await pagesShowing(at, ids)
  const isEverywhere = [...showing.values()].includes('all')
  const wanted = new Set([...showing.values()].flatMap((pages) => (pages === 'all' ? [] : [...pages])))
  const standing = await standingPages(at, isEverywhere ? 'all' : wanted)
  return new Map(
    [...showing].map(([id, pages]) => {
      const there = pages === 'all' ? standing : standing.filter((page) => pages.has(page.id))
      return [id, { pages: there.length, live: there.filter((page) => Number(page.isLive) === 1).length }]
    }),
  )
}

/** Returns the pages on which a part stands, also inside of other parts, by their addresses. */
export async function pagesWithPart(at: SiteData, id: string): Promise<PartPage[]> {
  const showing = await pagesShowing(at, [id])
  const rows = await standingPages(at, showing.get(id)!)
  return rows.map((row) => ({
    pageId: row.id,
    title: row.title,
    path: row.path,
    isLive: Number(row.isLive) === 1,
  }))
}

/** Returns the documents whose newest version shows a part itself, in an order that is the same for everybody. */
export async function documentsShowing(
  at: SiteData,
  id: string,
): Promise<readonly { readonly id: string; readonly type: string }[]> {
  const using = await usesOf(at, 'part', id)
  return using.sort((a, b) => (a.id < b.id ? -1 : 1))
}

/** Returns which documents show which parts themselves, by their newest versions; of pages, those that stand in the tree. */
export async function partUses(at: SiteData): Promise<PartUse[]> {
  const rows = await at.manager.query<PartUse[]>(
    `SELECT u.target AS part, d.id AS \`by\`, d.type, u.count FROM uses u
     JOIN documents d ON d.id = u.document_id AND d.version = u.version
     JOIN parts p ON p.id = u.target AND p.site_id = d.site_id AND p.binned_at IS NULL
     LEFT JOIN pages g ON g.id = d.id
     LEFT JOIN parts q ON q.id = d.id
     WHERE u.thing = 'part' AND d.site_id = ? AND (d.type <> 'page' OR g.address IS NOT NULL) AND q.binned_at IS NULL
     ORDER BY part, \`by\``,
    [at.siteId],
  )
  return rows.map(({ part, by, type, count }) => ({ part, by, type, count: Number(count) }))
}
