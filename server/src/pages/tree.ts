/** Rules of the page tree: addresses, order and states. Pure. */
import { sameJson, type JsonObject, type PageMore, type PageState, type PageSummary } from '@gullyline/core'
import type { PageRow, VersionRow } from '../db/rows.ts'

const LONGEST_SLUG = 80

/** The page's part of an address made from its title: letters and digits of ASCII, words joined by hyphens. */
export function slugOf(title: string): string {
  const plain = title.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
  const slug = plain
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, LONGEST_SLUG)
  return slug || 'page'
}

/** A slug that none of the siblings has: the one wanted, else with the first free number behind it. */
export function freeSlug(wanted: string, siblings: readonly string[]): string {
  let slug = wanted
  for (let n = 2; siblings.includes(slug); n++) slug = `${wanted}-${n}`
  return slug
}

/** The whole address of each page by id, starting and ending with a slash. */
export function pagePaths(
  pages: readonly Pick<PageRow, 'id' | 'parentId' | 'slug'>[],
): Record<string, string> {
  const byId = new Map(pages.map((page) => [page.id, page]))
  const pathOf = (page: (typeof pages)[number]): string => {
    const parent = page.parentId === null ? undefined : byId.get(page.parentId)
    return `${parent ? pathOf(parent) : '/'}${page.slug === '' ? '' : `${page.slug}/`}`
  }
  return Object.fromEntries(pages.map((page) => [page.id, pathOf(page)]))
}

function pageState(page: PageRow): PageState {
  if (page.liveVersion === null) return 'never-published'
  const isLive =
    page.liveVersion === page.version &&
    page.liveTitle === page.title &&
    page.liveDescription === page.description &&
    Boolean(page.liveInNavigation) === Boolean(page.inNavigation) &&
    sameJson(page.liveMore as JsonObject, page.more as JsonObject)
  return isLive ? 'live' : 'changed'
}

export function summarize(
  page: PageRow,
  path: string,
  saved: Pick<VersionRow, 'savedAt' | 'savedBy'>,
): PageSummary {
  return {
    id: page.id,
    parentId: page.parentId,
    position: page.position,
    title: page.title,
    slug: page.slug,
    path,
    description: page.description,
    inNavigation: page.inNavigation,
    more: page.more as PageMore,
    state: pageState(page),
    version: page.version,
    savedAt: saved.savedAt.toISOString(),
    savedBy: saved.savedBy,
    liveSince: page.liveSince?.toISOString() ?? null,
  }
}

/** A page and all under it, parents before their sub-pages. */
export function subtreeOf<R extends Pick<PageRow, 'id' | 'parentId'>>(
  rows: readonly R[],
  pageId: string,
): R[] {
  const page = rows.find((row) => row.id === pageId)
  if (!page) return []
  const inside = rows.filter((row) => row.parentId === pageId && row.id !== pageId)
  return [page, ...inside.flatMap((row) => subtreeOf(rows, row.id))]
}

/** What a page is that visitors have never seen. */
export const NEVER_LIVE = {
  liveVersion: null,
  liveTitle: null,
  liveDescription: null,
  liveInNavigation: null,
  liveSince: null,
  liveMore: null,
} as const
