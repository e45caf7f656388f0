/** Acts on blocks that are placed on a grid section, at the size that the canvas shows. */
import {
  agreeingOrderEdits,
  aligned,
  ancestry,
  closeUp,
  convertsTo,
  derivedPlaceEdits,
  distributed,
  emptyRowsAbove,
  gridOf,
  makeRoom,
  placeBlocksEdits,
  placesAt,
  relayered,
  toFlow,
  toGrid,
  type Edit,
  type GridAlignment,
  type LayerStep,
  type NodeId,
  type Placed,
  type SizeKey,
} from '@gullyline/core'
import { centringNote } from '../canvas/grid-landing.ts'
import { movedBy } from '../drag/drop-in-cell.ts'
import { selectedIds } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { blocks } from './acts.ts'
import { counted } from '../../ui/counted.ts'

interface InGrid {
  readonly gridId: NodeId
  readonly size: SizeKey
  readonly columns: number
  readonly placed: readonly Placed[]
  readonly chosen: ReadonlySet<NodeId>
}

/** The grid section of what is selected; tells why not, and gives undefined, where it stands in none. */
function inGrid(store: EditorStore, size: SizeKey): InGrid | undefined {
  const ids = selectedIds(store.state)
  const gridId = ids[0] === undefined ? undefined : gridOf(store.state.page, ids[0], store.registry)
  if (gridId === undefined) {
    store.dispatch({ type: 'tell', words: 'Select a block in a grid section first', tone: 'refused' })
    return undefined
  }
  const { columns, placed } = placesAt(store.state.page, gridId, { registry: store.registry, size })
  return { gridId, size, columns, placed, chosen: new Set(ids) }
}

function change(
  store: EditorStore,
  size: SizeKey,
  label: (count: string) => string,
  next: (grid: InGrid) => readonly Placed[],
): void {
  const grid = inGrid(store, size)
  if (!grid) return
  const edits = placeBlocksEdits(grid.placed, next(grid), size)
  const { selection, also } = store.state
  if (edits.length === 0)
    return store.dispatch({ type: 'tell', words: 'Nothing to move: it is there already', tone: 'refused' })
  store.do(label(blocks(grid.chosen.size).toLowerCase()), edits, { select: selection!, also })
}

export function moveOnGrid(
  store: EditorStore,
  size: SizeKey,
  by: { readonly across: number; readonly down: number },
): void {
  const where = by.across < 0 ? 'left' : by.across > 0 ? 'right' : by.down < 0 ? 'up' : 'down'
  change(
    store,
    size,
    (count) => `Moved ${count} ${where}`,
    ({ placed, chosen, columns }) => movedBy(placed, chosen, { ...by, columns }),
  )
  if (by.across !== 0) tellOfCentring(store, size)
}

/** Says of one block next to the middle of its grid section that its span keeps it from standing there, as the guides say where it is dragged. */
function tellOfCentring(store: EditorStore, size: SizeKey): void {
  const [id, ...more] = selectedIds(store.state)
  const gridId =
    id === undefined || more.length > 0 ? undefined : gridOf(store.state.page, id, store.registry)
  if (gridId === undefined) return
  const { columns, placed } = placesAt(store.state.page, gridId, { registry: store.registry, size })
  const own = placed.find((one) => one.id === id)
  const words = own && centringNote(own, columns)
  if (words !== undefined) store.dispatch({ type: 'tell', words, tone: 'done' })
}

export function align(store: EditorStore, size: SizeKey, alignment: GridAlignment): void {
  if (selectedIds(store.state).length < 2)
    return store.dispatch({ type: 'tell', words: 'Select at least 2 blocks to align', tone: 'refused' })
  change(
    store,
    size,
    (count) => `Aligned ${count}`,
    ({ placed, chosen }) => aligned(placed, chosen, alignment),
  )
}

export function distribute(store: EditorStore, size: SizeKey, axis: 'column' | 'row'): void {
  if (selectedIds(store.state).length < 3)
    return store.dispatch({ type: 'tell', words: 'Select at least 3 blocks to distribute', tone: 'refused' })
  change(
    store,
    size,
    (count) => `Distributed ${count}`,
    ({ placed, chosen }) => distributed(placed, chosen, axis),
  )
}

const STEPPED: Readonly<Record<LayerStep, string>> = {
  forward: 'forward',
  backward: 'backward',
  front: 'to the front',
  back: 'to the back',
}

export function relayer(store: EditorStore, size: SizeKey, step: LayerStep): void {
  change(
    store,
    size,
    (count) => `Moved ${count} ${STEPPED[step]}`,
    ({ placed, chosen }) => relayered(placed, chosen, step),
  )
}

/** Opens a row above what is selected: it and all that begins at its row or below goes down. */
export function openRow(store: EditorStore, size: SizeKey): void {
  change(
    store,
    size,
    () => 'Made room for a row',
    ({ placed, chosen }) => makeRoom(placed, topOf(placed, chosen), 1),
  )
}

/** Closes the empty rows above what is selected. */
export function closeRows(store: EditorStore, size: SizeKey): void {
  const grid = inGrid(store, size)
  if (!grid) return
  const line = topOf(grid.placed, grid.chosen)
  const empty = emptyRowsAbove(grid.placed, line)
  if (empty === 0)
    return store.dispatch({ type: 'tell', words: 'There is no empty row above this block', tone: 'refused' })
  change(
    store,
    size,
    () => `Closed up ${counted(empty, 'row')}`,
    ({ placed }) => closeUp(placed, line, empty),
  )
}

function topOf(placed: readonly Placed[], chosen: ReadonlySet<NodeId>): number {
  return Math.min(...placed.filter(({ id }) => chosen.has(id)).map(({ row }) => row))
}

/** Puts what is selected back to where it is derived to stand. */
export function derivePlaces(store: EditorStore, size: SizeKey): void {
  const grid = inGrid(store, size)
  if (!grid) return
  const edits = [...grid.chosen].flatMap((id): readonly Edit[] =>
    derivedPlaceEdits(store.state.page, id, size),
  )
  if (edits.length === 0)
    return store.dispatch({ type: 'tell', words: 'It follows the wider size already', tone: 'refused' })
  const { selection, also } = store.state
  store.do(`Reset the place of ${blocks(grid.chosen.size).toLowerCase()}`, edits, {
    select: selection!,
    also,
  })
}

/** Puts the blocks of the grid section into the order in which they are seen. */
export function agreeOrder(store: EditorStore, size: SizeKey): void {
  const grid = inGrid(store, size)
  if (!grid) return
  const edits = agreeingOrderEdits(store.state.page, grid.gridId, store.registry)
  if (edits.length === 0)
    return store.dispatch({
      type: 'tell',
      words: 'They are read aloud in the order in which they are seen',
      tone: 'done',
    })
  const { selection, also } = store.state
  store.do('Matched the reading order', edits, { select: selection!, also })
}

/** Turns the section of what is selected into a grid section with the same look, or a grid section into a section in reading order. */
export function convertSection(store: EditorStore): void {
  const { page, selection } = store.state
  const around = selection === undefined ? [] : ancestry(page, selection)
  const id = around.find((one) => convertsTo(page, one, store.registry) !== undefined)
  if (id === undefined)
    return store.dispatch({
      type: 'tell',
      words: 'Select a section, or a block in one, first',
      tone: 'refused',
    })
  const isToGrid = convertsTo(page, id, store.registry) === 'grid'
  const converted = (isToGrid ? toGrid : toFlow)(page, id, store.registry, newId)
  if (!converted.ok)
    return store.dispatch({ type: 'tell', words: `${converted.why}. Nothing was changed`, tone: 'refused' })
  const label = isToGrid ? 'Turned the section into a grid section' : 'Turned the grid section into a section'
  store.do(label, converted.edits, { select: converted.id })
}
