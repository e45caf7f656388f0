import { getNode, isSharedSlot, subtreeIds, withNodes, type NodeId, type Page } from '@gullyline/core'

/** More blocks than the window of a desk shows of any page. */
const ENOUGH = 60

/**
 * A page with only as many of its blocks as fill a window: the first of each of its slots, under the header and without
 * the footer. The page itself where it has no more.
 */
export function beginningOf(page: Page): Page {
  const root = getNode(page, page.root)
  const own = Object.entries(root.slots).filter(([name]) => !isSharedSlot(name))
  const first = own.map(([name, ids]) => [name, firstOf(page, ids)] as const)
  if (first.every(([name, ids]) => ids.length === root.slots[name]!.length)) return page
  const slots = { ...root.slots, ...Object.fromEntries(first), footer: [] }
  return { ...page, nodes: withNodes(page.nodes, { [page.root]: { ...root, slots } }) }
}

function firstOf(page: Page, ids: readonly NodeId[]): readonly NodeId[] {
  let blocks = 0
  return ids.filter((id) => {
    const isFirst = blocks < ENOUGH
    if (isFirst) blocks += subtreeIds(page, id).length
    return isFirst
  })
}
