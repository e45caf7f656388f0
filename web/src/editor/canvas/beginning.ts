import { getNode, isSharedSlot, subtreeIds, withNodes, type NodeId, type Page } from '@gullyline/core'

/** A block seldom takes less of the height. Where it does, the foot of the window is filled a moment after the rest. */
const PX_OF_A_BLOCK = 18

/** As many blocks as fill a window of that height, in px, on most pages. */
export function blocksIn(height: number): number {
  return Math.ceil(height / PX_OF_A_BLOCK)
}

/**
 * A page with only so many of its blocks, and what of them stands in one section: the first of each of its slots, under
 * the header and without the footer. The page itself where it has no more.
 */
export function beginningOf(page: Page, most: number): Page {
  const root = getNode(page, page.root)
  const own = Object.entries(root.slots).filter(([name]) => !isSharedSlot(name))
  const first = own.map(([name, ids]) => [name, firstOf(page, ids, most)] as const)
  if (first.every(([name, ids]) => ids.length === root.slots[name]!.length)) return page
  const slots = { ...root.slots, ...Object.fromEntries(first), footer: [] }
  return { ...page, nodes: withNodes(page.nodes, { [page.root]: { ...root, slots } }) }
}

function firstOf(page: Page, ids: readonly NodeId[], most: number): readonly NodeId[] {
  let blocks = 0
  return ids.filter((id) => {
    const isFirst = blocks < most
    if (isFirst) blocks += subtreeIds(page, id).length
    return isFirst
  })
}
