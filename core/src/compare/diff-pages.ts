/**
 * Two pages as the edits that lead from one to the other: what goes entirely, what comes, what stands elsewhere, what
 * goes after its survivors were moved out, and which values changed, in that order.
 */
import type { Registry } from '../blocks/registry.ts'
import { replaceEdits } from '../edits/compose.ts'
import type { Edit, Insert } from '../edits/edit-shapes.ts'
import { readValue } from '../edits/set.ts'
import { applyEdits } from '../edits/transaction.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { findPlace, subtreeIds } from '../page/walk.ts'
import { sharedIds } from '../site/session-page.ts'
import { longestIncreasingRun } from './longest-run.ts'
import { changedAddresses } from './values.ts'

/**
 * Edits that turn `from` into `to`; none when they are alike. Both pages must have the same root, and a node that
 * both have must be of one kind: throws RangeError otherwise. Blocks that need not move stay where they are.
 */
export function diffPages(from: Page, to: Page, registry: Registry): Edit[] {
  if (from === to) return []
  assertComparable(from, to)
  const edits = [...structureEdits(from, to), ...valueEdits(from, to)]
  // A slot with a limit may be full for a moment while one block replaces another; then all is placed anew.
  if (applyEdits(from, edits, registry).ok) return edits
  const staying = [to.root, ...sharedIds(to)]
  return [...replaceEdits(from, to), ...valueEdits(from, to).filter(({ nodeId }) => staying.includes(nodeId))]
}

function assertComparable(from: Page, to: Page): void {
  if (from.root !== to.root)
    throw new RangeError(`The pages have different roots: "${from.root}", "${to.root}"`)
  for (const [id, node] of Object.entries(to.nodes)) {
    const before = findNode(from, id)
    if (before && before.kind !== node.kind)
      throw new RangeError(`"${id}" is a ${before.kind} on one page and a ${node.kind} on the other`)
  }
}

function valueEdits(from: Page, to: Page) {
  return Object.entries(to.nodes).flatMap(([nodeId, node]) => {
    const before = findNode(from, nodeId)
    if (!before) return []
    return changedAddresses(before, node).map((at) => {
      const value = readValue(node, at)
      return { edit: 'set' as const, nodeId, at, ...(value === undefined ? {} : { value }) }
    })
  })
}

function structureEdits(from: Page, to: Page): Edit[] {
  const draft = new Draft(from)
  const gone = Object.keys(from.nodes).filter(
    (id) => !findNode(to, id) && findNode(to, findPlace(from, id)?.parentId ?? from.root) !== undefined,
  )
  const hasSurvivors = (id: NodeId) => subtreeIds(from, id).some((inside) => findNode(to, inside))
  const [later, now] = [gone.filter(hasSurvivors), gone.filter((id) => !hasSurvivors(id))]
  return [
    ...now.map((id) => draft.remove(id)),
    ...insertEdits(from, to, draft),
    ...moveEdits(to, draft),
    ...later.map((id) => draft.remove(id)),
  ]
}

/** New blocks, each with the new ones inside it; blocks that were there before are moved in afterwards. */
function insertEdits(from: Page, to: Page, draft: Draft): Edit[] {
  const isNew = (id: NodeId) => findNode(from, id) === undefined
  return subtreeIds(to, to.root).flatMap((rootId): Edit[] => {
    const place = findPlace(to, rootId)
    if (!isNew(rootId) || !place || isNew(place.parentId)) return []
    const nodes: Record<NodeId, PageNode> = {}
    const take = (id: NodeId): void => {
      const node = getNode(to, id)
      const slots = Object.entries(node.slots).map(([slot, ids]) => [slot, ids.filter(isNew)] as const)
      nodes[id] = { ...node, slots: Object.fromEntries(slots) }
      for (const [, ids] of slots) ids.forEach(take)
    }
    take(rootId)
    return [draft.insert(to, rootId, nodes)]
  })
}

/** Parents before children, so that a block is never moved into a place that itself still has to be moved. */
function moveEdits(to: Page, draft: Draft): Edit[] {
  return subtreeIds(to, to.root).flatMap((parentId) =>
    Object.entries(getNode(to, parentId).slots).flatMap(([slot, wanted]): Edit[] => {
      const present = draft.list(parentId, slot)
      const staying = wanted.filter((id) => present.includes(id))
      const run = longestIncreasingRun(staying.map((id) => present.indexOf(id)))
      const stable = new Set(run.map((at) => staying[at]))
      return wanted.filter((id) => !stable.has(id)).map((id) => draft.move(to, id))
    }),
  )
}

/** The page between the edits: children by slot, and where each node stands. */
class Draft {
  readonly #lists = new Map<string, NodeId[]>()
  readonly #keyOf = new Map<NodeId, string>()

  constructor(page: Page) {
    for (const [id, node] of Object.entries(page.nodes)) this.#take(id, node)
  }

  list(parentId: NodeId, slot: string): NodeId[] {
    return this.#lists.get(`${parentId}/${slot}`) ?? []
  }

  remove(id: NodeId): Edit {
    this.#unlist(id)
    return { edit: 'remove', nodeId: id }
  }

  insert(to: Page, rootId: NodeId, nodes: Insert['nodes']): Edit {
    for (const [id, node] of Object.entries(nodes)) this.#take(id, node)
    const { parentId, slot, index } = this.#put(to, rootId)
    return { edit: 'insert', parentId, slot, index, rootId, nodes }
  }

  move(to: Page, nodeId: NodeId): Edit {
    this.#unlist(nodeId)
    const { parentId, slot, index } = this.#put(to, nodeId)
    return { edit: 'move', nodeId, toParentId: parentId, toSlot: slot, toIndex: index }
  }

  /** Lists a node right behind the one it follows on the page to come, if that is here already. */
  #put(to: Page, id: NodeId): { parentId: NodeId; slot: string; index: number } {
    const { parentId, slot, index: wanted } = findPlace(to, id)!
    const list = this.list(parentId, slot)
    const before = getNode(to, parentId)
      .slots[slot]!.slice(0, wanted)
      .findLast((one) => list.includes(one))
    const index = before === undefined ? 0 : list.indexOf(before) + 1
    list.splice(index, 0, id)
    this.#keyOf.set(id, `${parentId}/${slot}`)
    return { parentId, slot, index }
  }

  #take(id: NodeId, node: PageNode): void {
    for (const [slot, ids] of Object.entries(node.slots)) {
      this.#lists.set(`${id}/${slot}`, [...ids])
      for (const child of ids) this.#keyOf.set(child, `${id}/${slot}`)
    }
  }

  #unlist(id: NodeId): void {
    const list = this.#lists.get(this.#keyOf.get(id) ?? '')
    list?.splice(list.indexOf(id), 1)
  }
}
