/** Edits that put blocks of a grid section where they are wanted at one size. */
import { readingOrder } from '../grid/reading-order.ts'
import type { GridPlace, Placed } from '../grid/placed.ts'
import { findNode, getNode, type NodeId, type Page, type SizeKey } from '../page/page.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { findPlace } from '../page/walk.ts'
import { arrangedAt } from '../grid/arrangement.ts'
import { arrangedGrid } from '../resolve/spots.ts'
import type { Edit, SetValue } from './edit-shapes.ts'

/** Under which keys of its arrangement a block has its place. */
export const GRID_KEYS = {
  column: 'gridColumn',
  row: 'gridRow',
  columns: 'gridColumns',
  rows: 'gridRows',
} as const satisfies Readonly<Record<keyof GridPlace, string>>

/** The grid section that a block stands in, where it is one of the blocks placed in it. */
export function gridOf(page: Page, id: NodeId, registry: Registry): NodeId | undefined {
  const place = findPlace(page, id)
  const holder = place && findNode(page, place.parentId)
  if (!place || !holder) return undefined
  return getKind(registry, holder.kind).slots[place.slot]?.isPlaced === true ? place.parentId : undefined
}

/** The places of a grid's blocks at a size, and how many columns it has there. */
export function placesAt(
  page: Page,
  gridId: NodeId,
  { registry, size }: { readonly registry: Registry; readonly size: SizeKey },
) {
  const { columns, placed } = arrangedAt(arrangedGrid(page, gridId, registry).sizes, size)
  return { columns, placed }
}

/** Sets the places of blocks at a size, where they are others than before. A place is set whole: then it stays where it is put. */
export function placeBlocksEdits(
  before: readonly Placed[],
  after: readonly Placed[],
  size: SizeKey,
): readonly SetValue[] {
  const known = new Map(before.map((one) => [one.id, one]))
  return after.flatMap((one) => {
    const was = known.get(one.id)
    const keys = Object.keys(GRID_KEYS) as (keyof GridPlace)[]
    const isMoved = !was || keys.some((key) => was[key] !== one[key])
    const set = (at: string, value: number): SetValue => ({
      edit: 'set',
      nodeId: one.id,
      at: ['sizes', size, at],
      value,
    })
    return [
      ...(isMoved ? keys.map((key) => set(GRID_KEYS[key], one[key])) : []),
      ...((was?.layer ?? 0) === one.layer ? [] : [set('layer', one.layer)]),
    ]
  })
}

/** Puts a block back to where it is derived to stand at a size. */
export function derivedPlaceEdits(page: Page, id: NodeId, size: SizeKey): readonly Edit[] {
  const own = getNode(page, id).sizes[size] ?? {}
  return [...Object.values(GRID_KEYS), 'layer']
    .filter((key) => own[key] !== undefined)
    .map((key) => ({ edit: 'set', nodeId: id, at: ['sizes', size, key] }))
}

/** Puts the blocks of a grid section into the order in which eyes read them at the widest size. */
export function agreeingOrderEdits(page: Page, gridId: NodeId, registry: Registry): readonly Edit[] {
  const { children, sizes } = arrangedGrid(page, gridId, registry)
  const seen = readingOrder(arrangedAt(sizes, 'base').placed)
  const left = children.map(({ id }) => id)
  const place = children[0] && findPlace(page, children[0].id)
  if (!place) return []
  const { slot } = place
  const now = [...left]
  // Blocks that are hidden at the widest size come last.
  const wanted = [...seen, ...left.filter((id) => !seen.includes(id))]
  return wanted.flatMap((id, toIndex): Edit[] => {
    const at = now.indexOf(id)
    if (at === toIndex) return []
    now.splice(at, 1)
    now.splice(toIndex, 0, id)
    return [{ edit: 'move', nodeId: id, toParentId: gridId, toSlot: slot, toIndex }]
  })
}
