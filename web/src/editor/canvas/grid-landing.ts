import {
  ancestry,
  getKind,
  getNode,
  guidesOf,
  placesAt,
  placingRefusal,
  sizeAt,
  type WithSizes,
  snapped,
  spansThatCentre,
  type GridPlace,
  type Guide,
  type NodeId,
  type SizeKey,
} from '@gullyline/core'
import type { CellLanding } from '../drag/cell-landing.ts'
import type { DragItem } from '../drag/drag-store.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { elementOf, type Box, type Point } from './boxes.ts'
import { boxOfPlace, cellAt, gridLinesOf, lineStart, type GridLines } from './grid-geometry.ts'
import { shownId } from './shown-ids.ts'
import { counted } from '../../ui/counted.ts'

/** What comes from the shelf is so wide at first, as a share of the columns, and so many rows high. */
const NEW_SHARE = 1 / 3
const LINE = 1.5

/** A grid section with its lines, as the canvas shows it now. */
export interface ShownGrid {
  readonly gridId: NodeId
  readonly slot: string
  readonly size: SizeKey
  readonly cells: Element
  readonly lines: GridLines
}

/** A grid section on the canvas; undefined where a node is none, or is not shown. */
export function shownGrid(
  inner: Document,
  store: EditorStore,
  gridId: NodeId,
  look: WithSizes,
): ShownGrid | undefined {
  const { slots } = getKind(store.registry, getNode(store.state.page, gridId).kind)
  const placed = Object.entries(slots).find(([, one]) => one.isPlaced === true)
  if (!placed) return undefined
  const [slot, { element = '*' }] = placed
  const cells = elementOf(inner, shownId(store, gridId))?.querySelector(element)
  const lines = cells ? gridLinesOf(cells) : undefined
  return cells && lines
    ? { gridId, slot, size: sizeAt(inner.documentElement.clientWidth, look), cells, lines }
    : undefined
}

/** Where something that is dragged would land on a grid section under a point; undefined where there is none that takes it. */
export function landingOnGrid(
  inner: Document,
  store: EditorStore,
  {
    item,
    point,
    hitId,
    look,
  }: {
    readonly item: DragItem
    readonly point: Point
    readonly hitId: NodeId
    readonly look: WithSizes
  },
): CellLanding | undefined {
  const { page } = store.state
  const { registry } = store
  const moving = item.type === 'node' ? item.id : undefined
  // A block over itself is over what it stands in.
  const chain = ancestry(page, hitId)
  const from = moving !== undefined && chain.includes(moving) ? chain.slice(chain.indexOf(moving) + 1) : chain
  const holder = from.find((id) => Object.keys(getKind(registry, getNode(page, id).kind).slots).length > 0)
  const grid = holder === undefined ? undefined : shownGrid(inner, store, holder, look)
  if (
    !grid ||
    placingRefusal(page, { parentId: grid.gridId, slot: grid.slot, index: 0 }, item.kind, registry)
  )
    return undefined
  const { columns, placed } = placesAt(page, grid.gridId, { registry, size: grid.size })
  const own = placed.find(({ id }) => id === moving)
  const others = placed.filter(({ id }) => id !== moving)
  const grab = item.type === 'node' ? (item.grab ?? { x: 0, y: 0 }) : { x: 0, y: 0 }
  const wish = cellAt(grid.lines, { x: point.x - grab.x, y: point.y - grab.y })
  const span = own ?? { columns: Math.max(2, Math.round(columns * NEW_SHARE)), rows: 1 }
  // A point means the cell that it is in; the corner of what is held means the nearest line.
  const at = own ? wish : { column: Math.floor(wish.column), row: Math.floor(wish.row) }
  const place = snapped({ ...at, columns: span.columns, rows: span.rows }, others, columns)
  return { ...grid, place, ...drawnGuides(grid, place, { others, columns }) }
}

/** The box of a place with its guides, in px of the frame, and what is to be said of it. */
export function drawnGuides(
  { lines, cells }: Pick<ShownGrid, 'lines' | 'cells'>,
  place: GridPlace,
  { others, columns }: { readonly others: Parameters<typeof guidesOf>[1]; readonly columns: number },
): Pick<CellLanding, 'box' | 'guides' | 'note'> {
  const area = cells.getBoundingClientRect()
  return {
    box: boxOfPlace(lines, place),
    guides: guidesOf(place, others, columns).map((guide) => guideBox(guide, lines, area)),
    note: centringNote(place, columns),
  }
}

function guideBox({ axis, line }: Guide, lines: GridLines, area: Box): Box {
  if (axis === 'row') {
    const at = lineStart(lines, 'rows', line) - lines.gaps.down / 2
    return { left: area.left, top: at - LINE / 2, width: area.width, height: LINE }
  }
  const at = lineStart(lines, 'columns', line) - lines.gaps.across / 2
  return { left: at - LINE / 2, top: area.top, width: LINE, height: area.height }
}

/** What is said of a rectangle next to the middle that can’t stand in it; undefined of all others. */
export function centringNote(place: GridPlace, columns: number): string | undefined {
  const spans = spansThatCentre(place, columns)
  if (!spans) return undefined
  return `${counted(place.columns, 'column')} can’t stand in the middle of ${columns}; ${spans.join(' or ')} can`
}
