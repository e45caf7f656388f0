import {
  describeNode,
  findPlace,
  getNode,
  placeBlocksEdits,
  placesAt,
  type Edit,
  type GridPlace,
  type NodeId,
  type Placed,
} from '@gullyline/core'
import type { CellLanding } from './cell-landing.ts'
import { selectedIds } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import type { DragItem } from './drag-store.ts'

/** Puts what was dragged on its place of a grid section. Of several blocks that are selected, all go as far as the one that is held. */
export function dropInCell(store: EditorStore, item: DragItem, cell: CellLanding): void {
  const { page } = store.state
  const { gridId, slot, size } = cell
  if (item.type === 'starter') {
    const fragment = item.starter.build(newId)
    const index = getNode(page, gridId).slots[slot]?.length ?? 0
    // What is new stands at its place at every size; narrower ones derive theirs.
    const edits: Edit[] = [
      { edit: 'insert', parentId: gridId, slot, index, ...fragment },
      ...placed(fragment.rootId, cell.place, 'base'),
      ...(size === 'base' ? [] : placed(fragment.rootId, cell.place, size)),
    ]
    store.do(`Added ${item.title.toLowerCase()}`, edits, { select: fragment.rootId, origin: 'pointer' })
    return
  }
  const label = `Moved ${describeNode(page, item.id, store.registry)} to column ${cell.place.column}, row ${cell.place.row}`
  const at = findPlace(page, item.id)
  if (at?.parentId === gridId) {
    const edits = movedTogether(store, item.id, cell)
    if (edits.length > 0)
      store.do(label, edits, { select: item.id, also: store.state.also, origin: 'pointer' })
    return
  }
  const toIndex = getNode(page, gridId).slots[slot]?.length ?? 0
  const move: Edit = { edit: 'move', nodeId: item.id, toParentId: gridId, toSlot: slot, toIndex }
  const edits = [
    move,
    ...placed(item.id, cell.place, 'base'),
    ...(size === 'base' ? [] : placed(item.id, cell.place, size)),
  ]
  store.do(label, edits, { select: item.id, origin: 'pointer' })
}

function placed(id: NodeId, place: GridPlace, size: CellLanding['size']): readonly Edit[] {
  return placeBlocksEdits([], [{ id, ...place, layer: 0 }], size)
}

function movedTogether(
  store: EditorStore,
  id: NodeId,
  { gridId, size, place }: CellLanding,
): readonly Edit[] {
  const { columns, placed: all } = placesAt(store.state.page, gridId, { registry: store.registry, size })
  const held = all.find((one) => one.id === id)
  if (!held) return placed(id, place, size)
  const chosen = new Set(selectedIds(store.state).includes(id) ? selectedIds(store.state) : [id])
  return placeBlocksEdits(
    all,
    movedBy(all, chosen, { across: place.column - held.column, down: place.row - held.row, columns }),
    size,
  )
}

/** Chosen blocks moved by so many columns and rows, as far as the outermost of them can go. */
export function movedBy(
  all: readonly Placed[],
  chosen: ReadonlySet<NodeId>,
  { across, down, columns }: { readonly across: number; readonly down: number; readonly columns: number },
): readonly Placed[] {
  const own = all.filter(({ id }) => chosen.has(id))
  const left = Math.max(across, ...own.map(({ column }) => 1 - column))
  const right = Math.min(left, ...own.map((one) => columns + 1 - one.columns - one.column))
  const up = Math.max(down, ...own.map(({ row }) => 1 - row))
  return all.map((one) =>
    chosen.has(one.id) ? { ...one, column: one.column + right, row: one.row + up } : one,
  )
}
