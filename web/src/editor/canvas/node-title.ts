import type { NodeId } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'
import { nodeName, sortOf } from '../session/node-name.ts'

/** What a block is called where it is pointed at: its kind, and its name or first words. */
export function useNodeTitle(id: NodeId): string {
  const store = useStore()
  return usePage((page) => {
    if (!page.nodes[id]) return ''
    const [sort, name] = [sortOf(store, page, id), nodeName(store, page, id)]
    return name === sort ? sort : `${sort}: ${name}`
  })
}
