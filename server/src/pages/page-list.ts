/** The list of a site's pages, in parts: the first screen at once, then the rest, then only what changed. */
import { In } from 'typeorm'
import type { PageListPart, PageSummary } from '@gullyline/core'
import { CHANGED_PAGES, databaseMark, lastPageChange } from '../db/page-changes.ts'
import { PageEntity, type PageRow } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { liveVersions } from '../documents/live.ts'
import { newestVersions } from '../documents/versions.ts'
import { summarize } from './tree.ts'

/** A site of so many pages is sent at once. */
const FEW = 100
/** More rows than a screen shows. */
const FIRST = 50
const NEXT = 1_000

/** Returns the beginning of the list: all pages of a site with few of them, else the first ones at the top of the tree. */
export async function firstPages(at: SiteData): Promise<PageListPart> {
  const total = await countPages(at)
  const isAll = total <= FEW
  const pages = await pagesWhere(
    at,
    `${isAll ? '' : 'AND p.parent_id IS NULL'} ORDER BY p.position, p.id LIMIT ?`,
    [isAll ? FEW : FIRST],
  )
  return { pages, gone: [], total, mark: await markNow(at), next: isAll ? null : '' }
}

/** Returns the pages whose ids come after one, in the order of ids: after the empty id, the first of them. */
export async function pagesAfter(at: SiteData, id: string): Promise<PageListPart> {
  const pages = await pagesWhere(at, 'AND p.id > ? ORDER BY p.id LIMIT ?', [id, NEXT])
  const next = pages.length < NEXT ? null : pages.at(-1)!.id
  return { pages, gone: [], total: await countPages(at), mark: await markNow(at), next }
}

/**
 * Returns the pages that changed since a mark, and which are gone. Where the mark is of no change that is known, as after a
 * backup was restored, the list begins anew.
 */
export async function pagesSince(at: SiteData, mark: string): Promise<PageListPart> {
  const now = await markNow(at)
  const [database, number = ''] = mark.split('.', 2)
  const since = /^\d{1,15}$/.test(number) ? Number(number) : Infinity
  if (database !== now.split('.', 1)[0] || since > (await lastPageChange(at)))
    return { ...(await firstPages(at)), isAnew: true }
  const changed = await at.manager.query<{ id: string; isGone: number }[]>(
    `SELECT p.id, p.binned_at IS NOT NULL AS isGone FROM ${CHANGED_PAGES}`,
    [at.siteId, since],
  )
  const idsOf = (isGone: boolean) =>
    changed.filter((one) => Boolean(one.isGone) === isGone).map(({ id }) => id)
  const pages = await listedPages(at, idsOf(false))
  return { pages, gone: idsOf(true), total: await countPages(at), mark: now, next: null }
}

async function markNow(at: SiteData): Promise<string> {
  return `${await databaseMark(at)}.${await lastPageChange(at)}`
}

/** Returns what lists tell of pages that stand in the tree. */
export async function listedPages(at: SiteData, ids: readonly string[]): Promise<PageSummary[]> {
  return ids.length === 0 ? [] : pagesWhere(at, 'AND p.id IN (?)', [ids])
}

async function pagesWhere(at: SiteData, where: string, values: readonly unknown[]): Promise<PageSummary[]> {
  const found = await at.manager.query<{ id: string }[]>(
    `SELECT p.id FROM pages p WHERE p.site_id = ? AND p.binned_at IS NULL ${where}`,
    [at.siteId, ...values],
  )
  const ids = found.map(({ id }) => id)
  if (ids.length === 0) return []
  const rows = new Map(
    (await at.manager.findBy(PageEntity, { siteId: at.siteId, id: In(ids) })).map((row) => [row.id, row]),
  )
  const newest = await newestVersions(at, ids)
  const live = await liveVersions(at, ids)
  return ids.map((id) => {
    const row = rows.get(id) as StandingRow
    return summarize(row, row.address, newest.get(id)!, live.get(id))
  })
}

/** A page that stands in the tree has an address. */
type StandingRow = PageRow & { readonly address: string }

async function countPages({ manager, siteId }: SiteData): Promise<number> {
  const [row] = await manager.query<{ total: string }[]>(
    'SELECT COUNT(address) AS total FROM pages WHERE site_id = ?',
    [siteId],
  )
  return Number(row!.total)
}
