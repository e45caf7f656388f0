/** The pages of a site, as blocks that lead to other pages ask for them. */
import type { PageTree, TreePage } from '../kit/site-context.ts'

/** Pages that are given with siblings in their order. */
export function pageTree(pages: readonly TreePage[]): PageTree {
  const byId = new Map(pages.map((page) => [page.id, page]))
  const byParent = new Map<string | null, TreePage[]>()
  for (const page of pages) {
    const inside = byParent.get(page.parentId)
    if (inside) inside.push(page)
    else byParent.set(page.parentId, [page])
  }
  return { find: (id) => byId.get(id), inside: (id) => byParent.get(id) ?? [] }
}
