import { getKind, type Registry } from '../blocks/registry.ts'
import { findNode, getNode, type NodeId, type Nodes, type Page } from '../page/page.ts'
import { findPlace, subtreeIds } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'
import { unlistChild } from './children.ts'
import { defineEdit, ID } from './define-edit.ts'
import { describeNode } from './describe.ts'
import type { Remove } from './edit-shapes.ts'
import { refuse } from './result.ts'

export const remove = defineEdit<Remove>({
  fields: { nodeId: ID },
  apply(page, edit, registry) {
    const refusal = removeRefusal(page, edit.nodeId, registry)
    if (refusal) return refusal
    const place = findPlace(page, edit.nodeId)!
    const removed: Record<NodeId, Nodes[NodeId]> = {}
    for (const id of subtreeIds(page, edit.nodeId)) removed[id] = getNode(page, id)
    const parent = unlistChild(getNode(page, place.parentId), place.slot, edit.nodeId)
    return {
      ok: true,
      page: { ...page, nodes: withNodes(page.nodes, { [place.parentId]: parent }, Object.keys(removed)) },
      inverse: { edit: 'insert', ...place, rootId: edit.nodeId, nodes: removed },
    }
  },
  sentence(before, edit, registry) {
    return `Deleted ${describeNode(before, edit.nodeId, registry)}`
  },
})

/** Why a node can't be taken from where it stands, or undefined when it can. */
export function removeRefusal(
  page: Page,
  nodeId: NodeId,
  registry: Registry,
): ReturnType<typeof refuse> | undefined {
  const node = findNode(page, nodeId)
  if (!node) return refuse('unknown-node', `There is no block "${nodeId}" on this page`, nodeId)
  if (nodeId === page.root) return refuse('root-stays', 'The page itself stays where it is', nodeId)
  const { group, title } = getKind(registry, node.kind)
  // A shared section stands on other pages, too.
  if (group === 'root')
    return refuse('root-stays', `The ${title.toLowerCase()} stays where it is: it is on every page`, nodeId)
  return undefined
}
