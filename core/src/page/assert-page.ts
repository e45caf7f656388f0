import { findNode, type NodeId, type Nodes } from './page.ts'
import { childIds } from './walk.ts'

/** The first law of a tree that these nodes break, as a sentence; undefined when they are one tree under `rootId`. */
export function findTreeFault(nodes: Nodes, rootId: NodeId): string | undefined {
  if (!findNode({ nodes }, rootId)) return `there is no node "${rootId}", which should hold all others`
  const seen = new Set<NodeId>([rootId])
  const pending = [rootId]
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    const node = findNode({ nodes }, id)
    if (!node) continue
    for (const child of childIds(node)) {
      if (!findNode({ nodes }, child)) return `node "${id}" lists a child "${child}" that does not exist`
      if (seen.has(child)) return `node "${child}" stands in two places, or inside itself`
      seen.add(child)
      pending.push(child)
    }
  }
  const orphan = Object.keys(nodes).find((id) => !seen.has(id))
  return orphan === undefined ? undefined : `node "${orphan}" stands nowhere on the page`
}
