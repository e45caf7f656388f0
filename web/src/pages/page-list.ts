/** Which pages the list shows, and how. Pure. */
import { matchSorter } from 'match-sorter'
import type { PageState, PageSummary } from '@gullyline/core'
import { inTreeOrder, subPagesOf } from './page-order.ts'

export interface ListedPage {
  readonly page: PageSummary
  readonly depth: number
  /** Undefined for a page without sub-pages, and where pages are not shown as a tree. */
  readonly isExpanded: boolean | undefined
}

/** All pages as a tree, without what stands under collapsed ones. */
export function listPages(pages: readonly PageSummary[], collapsed: ReadonlySet<string>): ListedPage[] {
  return inTreeOrder(pages, (id) => collapsed.has(id)).map(({ page, depth }) => ({
    page,
    depth,
    isExpanded: subPagesOf(pages, page.id).length > 0 ? !collapsed.has(page.id) : undefined,
  }))
}

/** Pages in a state whose title or address has every word that was typed, the best match first; else in tree order. */
export function findPages(
  pages: readonly PageSummary[],
  search: string,
  state: PageState | 'all',
): ListedPage[] {
  const inState = inTreeOrder(pages)
    .map(({ page }) => page)
    .filter((page) => state === 'all' || page.state === state)
  const words = search.trim().split(/\s+/).filter(Boolean)
  const found = words.reduceRight<readonly PageSummary[]>(
    (left, word) =>
      matchSorter(left, word, { keys: ['title', 'path'], threshold: matchSorter.rankings.CONTAINS }),
    inState,
  )
  return found.map((page) => ({ page, depth: 0, isExpanded: undefined }))
}
