/** Where a dragged thing would land in the spine. Pure but for reading where rows are. */
import {
  findPlace,
  layoutRefusal,
  getKind,
  getNode,
  moveRefusal,
  placingRefusal,
  type NodeId,
  type Page,
  type Registry,
  type Target,
} from '@gullyline/core'
import type { Box, Point } from '../canvas/boxes.ts'
import type { DragItem, ShownLanding } from '../drag/drag-store.ts'

const LINE = 3

/** The row under the pointer. */
export interface SpineRow {
  readonly id: NodeId
  readonly box: Box
}

/** The upper third of a row means before it, the lower third after it, and the middle inside it; a leaf has no middle. */
export function landingOnRow(
  page: Page,
  registry: Registry,
  item: DragItem,
  row: SpineRow,
  point: Point,
): ShownLanding | undefined {
  const slot = Object.keys(getKind(registry, getNode(page, row.id).kind).slots)[0]
  const share = (point.y - row.box.top) / row.box.height
  const zone =
    slot !== undefined && share > 1 / 3 && share < 2 / 3 ? 'inside' : share < 0.5 ? 'before' : 'after'
  const target =
    zone === 'inside' ? targetInside(page, row.id, slot!) : targetBeside(page, row.id, zone, item)
  if (!target) return undefined
  const refusal = refusalOf(page, registry, item, target)
  const { left, top, width, height } = row.box
  const mark =
    zone === 'inside' || refusal
      ? row.box
      : { left, width, height: LINE, top: (zone === 'before' ? top : top + height) - LINE / 2 }
  return { landing: { target, mark, ...(refusal ? { refusal } : {}) }, mark, refusal }
}

function targetInside(page: Page, id: NodeId, slot: string): Target {
  return { parentId: id, slot, index: getNode(page, id).slots[slot]?.length ?? 0 }
}

function targetBeside(page: Page, id: NodeId, zone: 'before' | 'after', item: DragItem): Target | undefined {
  const place = findPlace(page, id)
  if (!place) return undefined
  const movingId = item.type === 'node' ? item.id : undefined
  const siblings = getNode(page, place.parentId).slots[place.slot]!.filter((one) => one !== movingId)
  const at = siblings.indexOf(id)
  const index = at < 0 ? place.index : zone === 'before' ? at : at + 1
  return { parentId: place.parentId, slot: place.slot, index }
}

function refusalOf(page: Page, registry: Registry, item: DragItem, target: Target): string | undefined {
  if (item.type === 'starter')
    return (
      layoutRefusal(page, item.kind, registry) ?? placingRefusal(page, target, item.kind, registry)?.message
    )
  const inside = getNode(page, target.parentId).slots[target.slot] ?? []
  const toIndex = Math.min(target.index, inside.filter((id) => id !== item.id).length)
  const edit = {
    edit: 'move',
    nodeId: item.id,
    toParentId: target.parentId,
    toSlot: target.slot,
    toIndex,
  } as const
  return moveRefusal(page, edit, registry)?.message
}
