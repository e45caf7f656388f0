import { getKind, slotAt, type NodeId, type Page, type Registry } from '@gullyline/core'

/** The kind of item that a block repeats, when it holds nothing else. */
export function repeatedKind(page: Page, id: NodeId, registry: Registry): string | undefined {
  const { kind } = page.nodes[id]!
  const slots = Object.keys(getKind(registry, kind).slots)
  const taking = slots.length === 1 ? slotAt(page, { parentId: id, slot: slots[0]! }, registry) : undefined
  const only = taking?.allow.length === 1 ? registry.kinds.get(taking.allow[0]!) : undefined
  return only && !only.fillsSlot ? only.kind : undefined
}
