import type { PageSummary } from '@gullyline/core'

/** A page in the order of the tree, with its depth from 0. */
export interface TreeEntry {
  readonly page: PageSummary
  readonly depth: number
}

/** Pages as the tree shows them: each followed by its sub-pages. */
export function inTreeOrder(
  pages: readonly PageSummary[],
  parentId: string | null = null,
  depth = 0,
): TreeEntry[] {
  return pages
    .filter((page) => page.parentId === parentId)
    .sort((a, b) => a.position - b.position)
    .flatMap((page) => [{ page, depth }, ...inTreeOrder(pages, page.id, depth + 1)])
}
