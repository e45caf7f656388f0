import {
  getKind,
  getNode,
  isComponent,
  linkedPart,
  nodeLabel,
  slotOfFill,
  type NodeId,
  type Page,
} from '@gullyline/core'
import type { EditorStore } from './editor-store.ts'

type Nodes = Page | Pick<Page, 'nodes'>

/** What a block is called in lists: an instance without a name of its own by what it shows. */
export function nodeName({ linked, registry }: EditorStore, page: Nodes, id: NodeId): string {
  const node = getNode(page, id)
  const slot = 'root' in page ? slotOfFill(page, id, registry)?.slot : undefined
  if (slot) return slot.name
  const part = node.name === undefined ? linkedPart(node, registry) : undefined
  return (part === undefined ? undefined : linked.get()[part]?.name) ?? nodeLabel(page, id, registry)
}

/** What sort of block it is: an instance that says something of its own is one of a component. */
export function sortOf({ registry }: EditorStore, page: Nodes, id: NodeId): string {
  const node = getNode(page, id)
  return isOfComponent(page, linkedPart(node, registry)) ? 'Component' : getKind(registry, node.kind).title
}

/** Whether a part that is joined to the page is a component: it has fields or slots. */
export function isOfComponent({ nodes }: Nodes, part: string | undefined): boolean {
  return part !== undefined && isComponent({ nodes, root: part })
}
