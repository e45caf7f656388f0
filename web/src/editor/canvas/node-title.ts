import { getKind, nodeLabel, type NodeId } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'

/** What a block is called where it is pointed at: its kind, and its name or first words. */
export function useNodeTitle(id: NodeId): string {
  const { registry } = useStore()
  return usePage((page) => {
    const node = page.nodes[id]
    if (!node) return ''
    const title = getKind(registry, node.kind).title
    const label = nodeLabel(page, id, registry)
    return label === title ? title : `${title}: ${label}`
  })
}
