/** Where a page can be moved in the tree. Pure. */
import type { PageSummary, PlacePageRequest } from '@gullyline/core'
import { subPagesOf } from './page-order.ts'

export type MoveDirection = 'up' | 'down' | 'in' | 'out'

/** The page and all under it. */
export function withSubPages(pages: readonly PageSummary[], id: string): ReadonlySet<string> {
  const ids = new Set([id])
  // What is added while the set is walked is walked, too.
  for (const above of ids) for (const page of subPagesOf(pages, above)) ids.add(page.id)
  return ids
}

/**
 * The place one step away: up or down among its siblings, in under the one before it, or out after the one it stands
 * under. Undefined where there is none. `homeId` is the first page: no page is before it or under it.
 */
export function stepPlace(
  pages: readonly PageSummary[],
  page: PageSummary,
  direction: MoveDirection,
  homeId: string,
): PlacePageRequest | undefined {
  if (page.id === homeId) return undefined
  const siblings = subPagesOf(pages, page.parentId)
  const at = siblings.findIndex((one) => one.id === page.id)
  const before = siblings[at - 1]
  switch (direction) {
    case 'up':
      return before && before.id !== homeId ? { parentId: page.parentId, position: at - 1 } : undefined
    case 'down':
      return at < siblings.length - 1 ? { parentId: page.parentId, position: at + 1 } : undefined
    case 'in':
      return before && before.id !== homeId
        ? { parentId: before.id, position: subPagesOf(pages, before.id).length }
        : undefined
    case 'out': {
      const parent = pages.find((one) => one.id === page.parentId)
      return parent && { parentId: parent.parentId, position: positionAfter(pages, parent, page.id) }
    }
  }
}

/** The place right after a page, or the last one under it, for a page that is dropped there. */
export function dropPlace(
  pages: readonly PageSummary[],
  moving: string,
  on: PageSummary,
  where: 'after' | 'inside',
): PlacePageRequest {
  if (where === 'after') return { parentId: on.parentId, position: positionAfter(pages, on, moving) }
  const inside = subPagesOf(pages, on.id).filter((one) => one.id !== moving)
  return { parentId: on.id, position: inside.length }
}

function positionAfter(pages: readonly PageSummary[], page: PageSummary, moving: string): number {
  const siblings = subPagesOf(pages, page.parentId).filter((one) => one.id !== moving)
  return siblings.findIndex((one) => one.id === page.id) + 1
}
