/** Changes of the list of children in one slot. Nothing here checks anything: the edits do. */
import type { NodeId, PageNode } from '../page/page.ts'

/** The parent with `childId` listed at `index` of a slot. */
export function listChild(parent: PageNode, slot: string, index: number, childId: NodeId): PageNode {
  return withSlot(parent, slot, (children) => children.toSpliced(index, 0, childId))
}

/** The parent with `childId` no longer listed in a slot. */
export function unlistChild(parent: PageNode, slot: string, childId: NodeId): PageNode {
  return withSlot(parent, slot, (children) => children.filter((id) => id !== childId))
}

function withSlot(
  parent: PageNode,
  slot: string,
  change: (children: readonly NodeId[]) => readonly NodeId[],
): PageNode {
  return { ...parent, slots: { ...parent.slots, [slot]: change(parent.slots[slot] ?? []) } }
}
