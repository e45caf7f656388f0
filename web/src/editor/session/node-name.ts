import {
  fieldsOf,
  findNode,
  getKind,
  getNode,
  linkedPart,
  nodeLabel,
  type NodeId,
  type Page,
} from '@gullyline/core'
import type { EditorStore } from './editor-store.ts'

type Nodes = Pick<Page, 'nodes'>

/** What a block is called in lists: an instance without a name of its own by what it shows. */
export function nodeName({ linked, registry }: EditorStore, page: Nodes, id: NodeId): string {
  const node = getNode(page, id)
  const part = node.name === undefined ? linkedPart(node, registry) : undefined
  return (part === undefined ? undefined : linked.get()[part]?.name) ?? nodeLabel(page, id, registry)
}

/** What sort of block it is: an instance that says something of its own is one of a component. */
export function sortOf({ registry }: EditorStore, page: Nodes, id: NodeId): string {
  const node = getNode(page, id)
  return hasFields(page, linkedPart(node, registry)) ? 'Component' : getKind(registry, node.kind).title
}

/** Whether a part that is joined to the page has fields. */
export function hasFields(page: Nodes, part: string | undefined): boolean {
  const root = part === undefined ? undefined : findNode(page, part)
  return root !== undefined && fieldsOf(root).length > 0
}
