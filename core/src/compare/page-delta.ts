/** What of a document differs from another one, so that a version can be stored by what changed. */
import { sameJson, type JsonObject } from '../page/json.ts'
import type { NodeId, Nodes, Page } from '../page/page.ts'

/** Everything that `withDelta` needs to make a document from the one that it differs from. */
export interface PageDelta {
  readonly format: number
  readonly root: NodeId
  /** Nodes that are new or differ in anything, whole. */
  readonly nodes: Nodes
  /** Ids of nodes that are gone. */
  readonly gone: readonly NodeId[]
}

/** Returns what `to` differs in from `from`. The two need not have anything in common. */
export function deltaBetween(from: Page, to: Page): PageDelta {
  const nodes = Object.entries(to.nodes).filter(([id, node]) => {
    const before = Object.hasOwn(from.nodes, id) ? from.nodes[id] : undefined
    return before !== node && !sameJson(before as JsonObject | undefined, node as unknown as JsonObject)
  })
  const gone = Object.keys(from.nodes).filter((id) => !Object.hasOwn(to.nodes, id))
  return { format: to.format, root: to.root, nodes: Object.fromEntries(nodes), gone }
}

/** Returns the document that `delta` leads to from `from`: `withDelta(a, deltaBetween(a, b))` says what `b` says. */
export function withDelta(from: Page, { format, root, nodes, gone }: PageDelta): Page {
  const next: Record<NodeId, Nodes[NodeId]> = { ...from.nodes, ...nodes }
  for (const id of gone) delete next[id]
  return { format: format as Page['format'], root, nodes: next }
}
