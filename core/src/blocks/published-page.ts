import { getKind, type Registry } from './registry.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { shownIds } from './shown.ts'
import { childIds, subtreeIds } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'

/** Ids of the items of a page that have nothing to publish: the outermost of each. */
export function emptyItems(page: Page, registry: Registry): NodeId[] {
  return shownIds(page, page.root, registry).filter((id) => isEmptyItem(getNode(page, id), registry))
}

/** Whether a node is an item with nothing in it to publish. */
export function isEmptyItem(node: PageNode, registry: Registry): boolean {
  return getKind(registry, node.kind).isEmpty?.(node.content, childIds(node).length > 0) ?? false
}

/** The page as visitors get it: without items that hold nothing. The same page when there are none. */
export function publishedPage(page: Page, registry: Registry): Page {
  const gone = new Set(emptyItems(page, registry))
  if (gone.size === 0) return page
  const changed: Record<NodeId, PageNode> = {}
  const removed = new Set([...gone].flatMap((id) => subtreeIds(page, id)))
  for (const [id, node] of Object.entries(page.nodes)) {
    if (removed.has(id) || !childIds(node).some((child) => gone.has(child))) continue
    const slots = Object.entries(node.slots).map(([slot, children]) => [
      slot,
      children.filter((child) => !gone.has(child)),
    ])
    changed[id] = { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }
  }
  return { ...page, nodes: withNodes(page.nodes, changed, [...removed]) }
}
