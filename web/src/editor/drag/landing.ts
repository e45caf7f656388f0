/**
 * Where a dragged block would land. Pure: boxes and axes are asked for, so it can be tested without a browser.
 *
 * A container's main axis is the one its children follow each other along. The place is found from the inside out:
 * the innermost container under the pointer that takes the block, unless the pointer is so near to that container's
 * edge that it points at the gap beside it.
 */
import {
  ancestry,
  findPlace,
  layoutRefusal,
  getKind,
  getNode,
  isSharedSlot,
  isWithin,
  moveRefusal,
  placingRefusal,
  shownSlots,
  type NodeId,
  type Page,
  type Registry,
  type Target,
} from '@gullyline/core'
import type { Box, Point } from '../canvas/boxes.ts'

export type Axis = 'x' | 'y'

export interface LandingQuery {
  readonly page: Page
  readonly registry: Registry
  /** The kind of what is dragged, and its id when it already stands on the page. */
  readonly kind: string
  readonly movingId: NodeId | undefined
  /** The innermost node under the pointer. */
  readonly hitId: NodeId
  /** The slot of the page under the pointer, where its template has several. */
  readonly hitSlot?: string | undefined
  readonly point: Point
  boxOf(id: NodeId): Box | undefined
  axisOf(containerId: NodeId): Axis
}

export interface Landing {
  readonly target: Target
  /** The line to draw, or the box of an empty container. */
  readonly mark: Box
  /** Set when it lands beside a block, which makes columns of both. */
  readonly beside?: { readonly id: NodeId; readonly side: 'before' | 'after' }
  /** Why it can't land here; absent when it can. */
  readonly refusal?: string
}

/** This near to a container's edge, in px, a pointer means the gap beside the container. */
const EDGE = 10
/** But never more than this share of the container, so that small ones keep an inside. */
const EDGE_SHARE = 0.25
/** A hand that drags a block over its own neighbour mostly means to change their order: only the middle is inside. */
const SIBLING_SHARE = 1 / 3
const LINE = 4

/** The landing for a pointer, refused or not; undefined where there is nothing to land in. */
export function findLanding(query: LandingQuery): Landing | undefined {
  const { page, hitId, movingId } = query
  const chain = ancestry(page, hitId)
  if (movingId !== undefined && isWithin(page, hitId, movingId)) return refusedInside(query, movingId)
  const containers = chain.filter((id) => isContainer(query, id))
  const accepting = containers.filter((id) => refusalIn(query, id) === undefined)
  const inner = accepting[0]
  if (inner === undefined) return refusedInside(query, containers[0] ?? hitId)
  const outer = accepting[1]
  const column = findBeside(query)
  if (column) return column
  const isNearEdge = outer !== undefined && nearEdge(query, inner, outer)
  return landIn(query, isNearEdge ? outer : inner)
}

/** Whether blocks can be put right into a block; what an instance holds stands in the slots of its part. */
function isContainer({ page, registry }: LandingQuery, id: NodeId): boolean {
  const { slots, linksTo } = getKind(registry, getNode(page, id).kind)
  return Object.keys(slots).length > 0 && !linksTo
}

function refusedInside(query: LandingQuery, id: NodeId): Landing | undefined {
  const mark = query.boxOf(id)
  const refusal = refusalIn(query, id) ?? 'A block can’t be placed inside itself'
  return mark && { target: { parentId: id, slot: slotOf(query, id), index: 0 }, mark, refusal }
}

/** This near to a block's side, as a share of its width and in px, a pointer means the place beside it. */
const BESIDE_SHARE = 0.12
const BESIDE_MOST = 36

/** A place beside the innermost block that is no container, where blocks follow each other downwards. */
function findBeside(query: LandingQuery): Landing | undefined {
  const { page, registry, hitId, kind, movingId, point } = query
  const place = findPlace(page, hitId)
  const hit = getNode(page, hitId)
  const isFlow = (one: string) => registry.kinds.get(one)?.group === 'flow'
  const isLeaf = !isContainer(query, hitId)
  if (!place || !isLeaf || !isFlow(hit.kind) || !isFlow(kind) || hitId === movingId) return undefined
  const holder = getNode(page, place.parentId)
  const takesColumns = getKind(registry, holder.kind).slots[place.slot]?.allow.includes('flow') ?? false
  const box = query.boxOf(hitId)
  if (
    !box ||
    !takesColumns ||
    query.axisOf(place.parentId) !== 'y' ||
    layoutRefusal(page, 'columns', registry)
  )
    return undefined
  const edge = Math.min(BESIDE_MOST, box.width * BESIDE_SHARE)
  const [left, right] = [point.x - box.left, box.left + box.width - point.x]
  if (Math.min(left, right) > edge) return undefined
  const side = left < right ? 'before' : 'after'
  const x = side === 'before' ? box.left : box.left + box.width
  return {
    target: place,
    beside: { id: hitId, side },
    mark: { left: x - LINE / 2, top: box.top, width: LINE, height: box.height },
  }
}

/** Why a container does not take what is dragged. */
function refusalIn(query: LandingQuery, containerId: NodeId): string | undefined {
  const { page, registry, kind, movingId } = query
  const strange = movingId === undefined ? layoutRefusal(page, kind, registry) : undefined
  if (strange !== undefined) return strange
  const target: Target = { parentId: containerId, slot: slotOf(query, containerId), index: 0 }
  const refusal =
    movingId === undefined
      ? placingRefusal(page, target, kind, registry)
      : moveRefusal(
          page,
          { edit: 'move', nodeId: movingId, toParentId: containerId, toSlot: target.slot, toIndex: 0 },
          registry,
        )
  return refusal?.message
}

/** The slot that is meant: the only one, or that of the page which the pointer is in. */
function slotOf({ page, registry, hitId, hitSlot }: LandingQuery, id: NodeId): string {
  if (id !== page.root) return Object.keys(getKind(registry, getNode(page, id).kind).slots)[0] ?? ''
  const chain = ancestry(page, hitId)
  const inRoot = chain.length > 1 ? findPlace(page, chain.at(-2)!)?.slot : undefined
  // Over the header the beginning of the page is meant, and over the footer its end.
  const own = inRoot !== undefined && isSharedSlot(inRoot) ? undefined : inRoot
  return own ?? hitSlot ?? shownSlots(getNode(page, id), registry)[0] ?? ''
}

function nearEdge(query: LandingQuery, inner: NodeId, outer: NodeId): boolean {
  const chain = ancestry(query.page, inner)
  const child = chain[chain.indexOf(outer) - 1]
  const box = child === undefined ? undefined : query.boxOf(child)
  if (!box) return false
  const [start, length] = along(box, query.axisOf(outer))
  const at = query.axisOf(outer) === 'x' ? query.point.x : query.point.y
  const isSibling = query.movingId !== undefined && findPlace(query.page, query.movingId)?.parentId === outer
  const edge = isSibling ? length * SIBLING_SHARE : Math.min(EDGE, length * EDGE_SHARE)
  return at < start + edge || at > start + length - edge
}

function landIn(query: LandingQuery, containerId: NodeId): Landing | undefined {
  const slot = slotOf(query, containerId)
  const axis = query.axisOf(containerId)
  const box = query.boxOf(containerId)
  if (!box) return undefined
  const children = (getNode(query.page, containerId).slots[slot] ?? []).filter((id) => id !== query.movingId)
  const boxes = children.map((id) => query.boxOf(id)).filter((one) => one !== undefined)
  const at = axis === 'x' ? query.point.x : query.point.y
  const index = boxes.filter((one) => middle(one, axis) < at).length
  const target: Target = { parentId: containerId, slot, index }
  if (boxes.length === 0) return { target, mark: box }
  return { target, mark: lineAt(box, boxes, index, axis) }
}

/** A line in the middle of the gap before the child at `index`, or after the last. */
function lineAt(container: Box, boxes: readonly Box[], index: number, axis: Axis): Box {
  const before = boxes[index - 1]
  const after = boxes[index]
  const end = before && sum(along(before, axis))
  const start = after && along(after, axis)[0]
  const at = end !== undefined && start !== undefined ? (end + start) / 2 : (start ?? end ?? 0)
  const beside = after ?? before ?? container
  return axis === 'y'
    ? { left: beside.left, top: at - LINE / 2, width: beside.width, height: LINE }
    : { left: at - LINE / 2, top: beside.top, width: LINE, height: beside.height }
}

function along(box: Box, axis: Axis): readonly [start: number, length: number] {
  return axis === 'x' ? [box.left, box.width] : [box.top, box.height]
}

function sum([start, length]: readonly [number, number]): number {
  return start + length
}

function middle(box: Box, axis: Axis): number {
  const [start, length] = along(box, axis)
  return start + length / 2
}
