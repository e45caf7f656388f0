import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { ancestry, subtreeIds } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'
import { shownIds, shownSlots } from './shown.ts'

interface Known {
  readonly registry: Registry
  readonly root: NodeId
  readonly ids: ReadonlySet<NodeId>
}

/** A page may hold several documents that were joined: one is known of each root. */
const known = new WeakMap<Nodes, Known[]>()

/**
 * Ids of the blocks that visitors don't get: those that say nothing, such as a heading without words or a panel without
 * blocks, and what holds nothing else.
 */
export function leftOut(page: Page, root: NodeId, registry: Registry): ReadonlySet<NodeId> {
  const ofPage = known.get(page.nodes) ?? []
  const last = ofPage.find((one) => one.registry === registry && one.root === root)
  if (last) return last.ids
  const ids = new Set<NodeId>()
  // Parents come before what is in them, so from behind every child is decided before its parent.
  const order = shownIds(page, root, registry)
  for (const id of order.toReversed()) {
    const node = getNode(page, id)
    const children = shownChildren(node, registry)
    if (id !== root && saysNothing(node, children, ids, registry)) ids.add(id)
  }
  known.set(page.nodes, [...ofPage, { registry, root, ids }])
  return ids
}

/** Whether a block is of a kind that says nothing when it is empty, and is. */
export function isSilent(page: Page, id: NodeId, registry: Registry): boolean {
  const node = getNode(page, id)
  const gone = leftOut(page, page.root, registry)
  const hasInside = shownChildren(node, registry).some((child) => !gone.has(child))
  return getKind(registry, node.kind).isEmpty?.(node.content, hasInside) ?? false
}

/**
 * The page as visitors get it: without what says nothing under a root. The same page when all of it says something. `kept`
 * stays with all that holds it, whether it says something or not: it is being typed in.
 */
export function withoutSilent(page: Page, root: NodeId, registry: Registry, kept?: NodeId): Page {
  const silent = leftOut(page, root, registry)
  const gone = kept === undefined || !silent.has(kept) ? silent : without(silent, ancestry(page, kept))
  if (gone.size === 0) return page
  const changed: Record<NodeId, PageNode> = {}
  const removed = new Set([...gone].flatMap((id) => subtreeIds(page, id)))
  for (const [id, node] of Object.entries(page.nodes)) {
    const slots = Object.entries(node.slots)
    if (removed.has(id) || !slots.some(([, children]) => children.some((child) => gone.has(child)))) continue
    const kept = slots.map(([slot, children]) => [slot, children.filter((child) => !gone.has(child))])
    changed[id] = withSlots(node, Object.fromEntries(kept) as PageNode['slots'])
  }
  return { ...page, nodes: withNodes(page.nodes, changed, [...removed]) }
}

function without<T>(set: ReadonlySet<T>, some: readonly T[]): ReadonlySet<T> {
  const rest = new Set(set)
  for (const one of some) rest.delete(one)
  return rest
}

const trimmed = new WeakMap<PageNode, PageNode>()

/** The node with other slots: the same one as the last time, where those are as they were. */
function withSlots(node: PageNode, slots: PageNode['slots']): PageNode {
  const last = trimmed.get(node)
  if (last && Object.keys(slots).every((slot) => sameList(slots[slot]!, last.slots[slot]!))) return last
  const made = { ...node, slots }
  trimmed.set(node, made)
  return made
}

function sameList(a: readonly NodeId[], b: readonly NodeId[]): boolean {
  return a.length === b.length && a.every((id, i) => id === b[i])
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
