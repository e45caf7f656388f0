import { getKind, type NodeId } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'
import { nodeName } from '../session/node-name.ts'

/** What a block is called where it is pointed at: its kind, and its name or first words. */
export function useNodeTitle(id: NodeId): string {
  const store = useStore()
  return usePage((page) => {
    const node = page.nodes[id]
    if (!node) return ''
    const title = getKind(store.registry, node.kind).title
    const label = nodeName(store, page, id)
    return label === title ? title : `${title}: ${label}`
  })
}
