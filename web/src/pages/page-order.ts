import type { PageSummary } from '@gullyline/core'

/** A page in the order of the tree, with its depth from 0. */
export interface TreeEntry {
  readonly page: PageSummary
  readonly depth: number
}

type Children = ReadonlyMap<string | null, readonly PageSummary[]>

/** Made once for a list of pages: a tree of thousands is looked through at every key. */
const childrenOf = new WeakMap<readonly PageSummary[], Children>()

/** The sub-pages of a page in their order; with null, the pages at the top. */
export function subPagesOf(pages: readonly PageSummary[], parentId: string | null): readonly PageSummary[] {
  let children = childrenOf.get(pages)
  if (!children) childrenOf.set(pages, (children = group(pages)))
  return children.get(parentId) ?? []
}

function group(pages: readonly PageSummary[]): Children {
  const children = new Map<string | null, PageSummary[]>()
  for (const page of pages) {
    const siblings = children.get(page.parentId)
    if (siblings) siblings.push(page)
    else children.set(page.parentId, [page])
  }
  for (const siblings of children.values()) siblings.sort(inOrder)
  return children
}

/** Those of one position by their ids, as the server has them. */
function inOrder(a: PageSummary, b: PageSummary): number {
  return a.position - b.position || (a.id < b.id ? -1 : 1)
}

/** Pages as the tree shows them: each followed by its sub-pages, but for those of pages that are collapsed. */
export function inTreeOrder(
  pages: readonly PageSummary[],
  isCollapsed: (id: string) => boolean = () => false,
): TreeEntry[] {
  const entries: TreeEntry[] = []
  const add = (parentId: string | null, depth: number): void => {
    for (const page of subPagesOf(pages, parentId)) {
      entries.push({ page, depth })
      if (!isCollapsed(page.id)) add(page.id, depth + 1)
    }
  }
  add(null, 0)
  return entries
}
