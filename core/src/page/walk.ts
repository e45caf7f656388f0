import { lastStep } from './with-nodes.ts'
import { findNode, getNode, type NodeId, type Nodes, type Page, type PageNode } from './page.ts'

/** Where a node stands: the slot of a parent, and the index among that slot's children. */
export interface Place {
  readonly parentId: NodeId
  readonly slot: string
  readonly index: number
}

const placesOf = new WeakMap<Nodes, Map<NodeId, Place>>()

/** The place of every node but the root. Linear the first time for a page, then kept. */
function indexPlaces(page: Pick<Page, 'nodes'>): ReadonlyMap<NodeId, Place> {
  const known = placesOf.get(page.nodes) ?? placesFromStep(page.nodes)
  if (known) {
    placesOf.set(page.nodes, known)
    return known
  }
  const places = new Map<NodeId, Place>()
  for (const [parentId, node] of Object.entries(page.nodes)) listPlaces(places, parentId, node)
  placesOf.set(page.nodes, places)
  return places
}

/** From the places that are known of what these nodes were made from: typing moves nothing, and a move concerns two parents. */
function placesFromStep(nodes: Nodes): Map<NodeId, Place> | undefined {
  const step = lastStep(nodes)
  const known = step && placesOf.get(step.from)
  if (!known) return undefined
  const rearranged = step.ids.filter((id) => nodes[id]?.slots !== step.from[id]?.slots)
  if (rearranged.length === 0) return known
  const places = new Map(known)
  for (const id of rearranged) for (const child of childIdsOf(step.from[id])) places.delete(child)
  for (const id of rearranged) {
    const node = nodes[id]
    if (node) listPlaces(places, id, node)
  }
  return places
}

function listPlaces(places: Map<NodeId, Place>, parentId: NodeId, node: PageNode): void {
  for (const [slot, children] of Object.entries(node.slots)) {
    children.forEach((id, index) => places.set(id, { parentId, slot, index }))
  }
}

function childIdsOf(node: PageNode | undefined): readonly NodeId[] {
  return node ? childIds(node) : []
}

/** The place of a node, or undefined for the root and for ids that the page does not have. */
export function findPlace(page: Pick<Page, 'nodes'>, id: NodeId): Place | undefined {
  return indexPlaces(page).get(id)
}

/** The node and all that holds it, from the node itself up to the root. Empty when the page has no such node. */
export function ancestry(page: Page, id: NodeId): NodeId[] {
  const chain: NodeId[] = []
  const places = indexPlaces(page)
  for (
    let at: NodeId | undefined = findNode(page, id) && id;
    at !== undefined;
    at = places.get(at)?.parentId
  ) {
    chain.push(at)
  }
  return chain
}

/** True when `id` is `ancestorId` or stands somewhere inside it. */
export function isWithin(page: Page, id: NodeId, ancestorId: NodeId): boolean {
  return ancestry(page, id).includes(ancestorId)
}

/** Ids of a node and all inside it, in reading order: parents before children, slots in the order the node lists them. */
export function subtreeIds(page: Pick<Page, 'nodes'>, rootId: NodeId): NodeId[] {
  const ids: NodeId[] = []
  const pending = [rootId]
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    ids.push(id)
    pending.push(...childIds(getNode(page, id)).reverse())
  }
  return ids
}

/** All children of a node over all its slots, in order. A fresh array. */
export function childIds(node: PageNode): NodeId[] {
  return Object.values(node.slots).flat()
}
