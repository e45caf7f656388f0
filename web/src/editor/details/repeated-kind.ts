import { getKind, type PageNode } from '@gullyline/core'

/** The kind of item that a block repeats, when it holds nothing else. */
export function repeatedKind(node: PageNode, registry: Parameters<typeof getKind>[0]): string | undefined {
  const slots = Object.values(getKind(registry, node.kind).slots)
  const [slot] = slots
  const only = slots.length === 1 && slot?.allow.length === 1 ? slot.allow[0] : undefined
  return only !== undefined && registry.kinds.has(only) ? only : undefined
}
