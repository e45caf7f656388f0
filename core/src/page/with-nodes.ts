import type { NodeId, Nodes, PageNode } from './page.ts'

/**
 * The nodes with some put in or replaced and some taken out: one copy of the map, however much changes. Copied onto an
 * object without a prototype, which V8 does in half the time of a spread once there are many keys (measured with
 * `npm run bench`, figure a).
 */
export function withNodes(nodes: Nodes, changed: Nodes, removed: readonly NodeId[] = []): Nodes {
  const next = Object.assign(Object.create(null) as Record<NodeId, PageNode>, nodes, changed)
  for (const id of removed) delete next[id]
  madeFrom.set(next, { nodes: new WeakRef(nodes), ids: [...Object.keys(changed), ...removed] })
  return next
}

/** What nodes were made from, and which ids differ. Held weakly, so that no page is kept alive by those after it. */
const madeFrom = new WeakMap<Nodes, { readonly nodes: WeakRef<Nodes>; readonly ids: readonly NodeId[] }>()
/** How far back a common beginning is looked for. */
const MOST_STEPS = 8

/**
 * Ids of nodes that are new, gone or different, perhaps with some that are not. Quick when the two are a few edits
 * apart; otherwise all nodes are compared.
 */
export function changedIds(before: Nodes, after: Nodes): readonly NodeId[] {
  const backFromAfter = stepsBack(after)
  for (const { nodes, ids } of stepsBack(before)) {
    const same = backFromAfter.find((step) => step.nodes === nodes)
    if (same) return [...new Set([...ids, ...same.ids])]
  }
  return comparedIds(before, after)
}

/** What nodes were made from in one step, when that is still known. */
export function lastStep(
  nodes: Nodes,
): { readonly from: Nodes; readonly ids: readonly NodeId[] } | undefined {
  const made = madeFrom.get(nodes)
  const from = made?.nodes.deref()
  return made && from ? { from, ids: made.ids } : undefined
}

interface Step {
  readonly nodes: Nodes
  /** All ids that were changed from there on. */
  readonly ids: readonly NodeId[]
}

function stepsBack(nodes: Nodes): Step[] {
  const steps: Step[] = [{ nodes, ids: [] }]
  while (steps.length <= MOST_STEPS) {
    const last = steps.at(-1)!
    const step = lastStep(last.nodes)
    if (!step) break
    steps.push({ nodes: step.from, ids: [...last.ids, ...step.ids] })
  }
  return steps
}

function comparedIds(before: Nodes, after: Nodes): NodeId[] {
  const changed = Object.keys(after).filter((id) => before[id] !== after[id])
  return [...changed, ...Object.keys(before).filter((id) => !Object.hasOwn(after, id))]
}
