import { getKind, type Registry } from './registry.ts'
import { getNode, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { shownIds, shownSlots } from './shown.ts'
import { subtreeIds } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'

interface Known {
  readonly registry: Registry
  readonly root: NodeId
  readonly ids: ReadonlySet<NodeId>
}

const known = new WeakMap<Nodes, Known>()

/**
 * Ids of the blocks that visitors don't get: those that say nothing, such as a heading without words or a panel without
 * blocks, and what holds nothing else.
 */
export function leftOut(page: Page, registry: Registry): ReadonlySet<NodeId> {
  const last = known.get(page.nodes)
  if (last?.registry === registry && last.root === page.root) return last.ids
  const ids = new Set<NodeId>()
  // Parents come before what is in them, so from behind every child is decided before its parent.
  const order = shownIds(page, page.root, registry)
  for (const id of order.toReversed()) {
    const node = getNode(page, id)
    const children = shownChildren(node, registry)
    if (id !== page.root && saysNothing(node, children, ids, registry)) ids.add(id)
  }
  known.set(page.nodes, { registry, root: page.root, ids })
  return ids
}

/** Whether a block is of a kind that says nothing when it is empty, and is. */
export function isSilent(page: Page, id: NodeId, registry: Registry): boolean {
  const node = getNode(page, id)
  const gone = leftOut(page, registry)
  const hasInside = shownChildren(node, registry).some((child) => !gone.has(child))
  return getKind(registry, node.kind).isEmpty?.(node.content, hasInside) ?? false
}

/** The page as visitors get it: without what says nothing. The same page when all of it says something. */
export function publishedPage(page: Page, registry: Registry): Page {
  const gone = leftOut(page, registry)
  if (gone.size === 0) return page
  const changed: Record<NodeId, PageNode> = {}
  const removed = new Set([...gone].flatMap((id) => subtreeIds(page, id)))
  for (const [id, node] of Object.entries(page.nodes)) {
    const slots = Object.entries(node.slots)
    if (removed.has(id) || !slots.some(([, children]) => children.some((child) => gone.has(child)))) continue
    const kept = slots.map(([slot, children]) => [slot, children.filter((child) => !gone.has(child))])
    changed[id] = { ...node, slots: Object.fromEntries(kept) as PageNode['slots'] }
  }
  return { ...page, nodes: withNodes(page.nodes, changed, [...removed]) }
}

function saysNothing(
  node: PageNode,
  children: readonly NodeId[],
  gone: ReadonlySet<NodeId>,
  registry: Registry,
): boolean {
  const kind = getKind(registry, node.kind)
  const isLeft = children.every((child) => gone.has(child))
  if (kind.isEmpty) return kind.isEmpty(node.content, !isLeft)
  // A container that never held a block is published, and so is one that shows a picture or that links point to.
  const facts = kind.facts?.(node.content) ?? {}
  const isMore = kind.isDerived === true || facts.anchor !== undefined || (facts.pictures ?? []).length > 0
  const hasWords = kind.words(node.content).some((words) => words.trim() !== '')
  return children.length > 0 && isLeft && !isMore && !hasWords
}

function shownChildren(node: PageNode, registry: Registry): NodeId[] {
  return shownSlots(node, registry).flatMap((slot) => node.slots[slot] ?? [])
}
