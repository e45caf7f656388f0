/** What of a page is shown: content in slots that the page's layout does not show stands aside. */
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'

/** The slots of a node whose children are shown, in their order on the page. */
export function shownSlots(node: PageNode, registry: Registry): readonly string[] {
  return getKind(registry, node.kind).shows?.(node.content) ?? Object.keys(node.slots)
}

/** Ids of a node and all inside it that is shown, in reading order. */
export function shownIds(page: Page, rootId: NodeId, registry: Registry): NodeId[] {
  const ids: NodeId[] = []
  const pending = [rootId]
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    ids.push(id)
    const node = getNode(page, id)
    for (const slot of shownSlots(node, registry).toReversed())
      for (const child of (node.slots[slot] ?? []).toReversed()) pending.push(child)
  }
  return ids
}
