/** What becomes of the grids of a page at each size, as plain data: for programs, and for checks. */
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Page, type SizeKey } from '../page/page.ts'
import { shownIds } from './shown.ts'
import { arrangedGrid } from './spots.ts'
import { arrangedAt } from '../grid/arrangement.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import type { Placed } from '../grid/placed.ts'
import { readingOrder } from '../grid/reading-order.ts'

export interface GridReport {
  readonly nodeId: NodeId
  /** The order in which its blocks stand in the document, which is the one in which they are read aloud and tabbed through. */
  readonly written: readonly NodeId[]
  /** At each size of the site, from the widest. */
  readonly sizes: Readonly<Record<SizeKey, GridAtSize>>
}

export interface GridAtSize {
  readonly columns: number
  /** The order in which eyes read it. */
  readonly order: readonly NodeId[]
  readonly placed: readonly Placed[]
  readonly hidden: readonly NodeId[]
}

/** A report for each grid that the page shows, in reading order. */
export function gridReports(page: Page, registry: Registry, at: WithSizes): readonly GridReport[] {
  return shownIds(page, page.root, registry).flatMap((nodeId) => {
    const { placeChildren } = getKind(registry, getNode(page, nodeId).kind)
    if (!placeChildren) return []
    const { children, sizes: arranged } = arrangedGrid(page, nodeId, registry)
    const sizes = at.sizes.map(({ key }): [SizeKey, GridAtSize] => {
      const { columns, placed, hidden } = arrangedAt(arranged, key)
      return [key, { columns, order: readingOrder(placed), placed, hidden }]
    })
    return [
      {
        nodeId,
        written: children.map(({ id }) => id),
        sizes: Object.fromEntries(sizes),
      },
    ]
  })
}
