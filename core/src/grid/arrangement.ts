/** Where the children of a grid stand at each size: where somebody put them, and else as derived from the next wider size. */
import type { NodeId, SizeKey } from '../page/page.ts'
import { lastUpTo } from '../sizes/size-keys.ts'
import { deriveArrangement, within } from './derive.ts'
import { columnEnd, rowEnd, type GridPlace, type Placed } from './placed.ts'

/** What a child of a grid has of its own at one size. */
export interface PlaceValues extends Partial<GridPlace> {
  readonly layer?: number
  /** Whether it is left out at this size. */
  readonly hidden?: boolean
  /** Whether it reaches to the edge of the screen where it stands at the edge of the grid. */
  readonly bleed?: boolean
}

export interface GridChild {
  readonly id: NodeId
  readonly places: Readonly<Partial<Record<SizeKey, PlaceValues>>>
}

/** The columns of a grid at each size at which its arrangement may change. */
export type ColumnsAt = Readonly<Record<SizeKey, number>>

export interface ArrangedAt {
  readonly columns: number
  /** What is shown at this size, in the order of the children. */
  readonly placed: readonly Placed[]
  /** The children that are left out at this size. */
  readonly hidden: readonly NodeId[]
}

/** A grid that nobody placed anything in has its children one below the other. */
const NEW_ROWS = 1

/** A grid at each size at which its arrangement may change, from the widest to the narrowest. */
export type ArrangedGrid = ReadonlyMap<SizeKey, ArrangedAt>

/** The arrangement of a grid at each of these sizes, which have `base` among them. */
export function arrangeGrid(children: readonly GridChild[], columns: ColumnsAt): ArrangedGrid {
  const all = new Map<SizeKey, ArrangedAt>()
  let wider: readonly Placed[] = []
  let before: ArrangedAt | undefined
  for (const size of Object.keys(columns).sort()) {
    const hidden = new Set(children.filter((one) => isSaidAt(one, 'hidden', size)).map(({ id }) => id))
    const places = before
      ? narrowed(children, wider, { size, before, to: columns[size]!, hidden })
      : firstPlaces(children, columns[size]!)
    const layers = new Map(children.map(({ id, places: own }) => [id, own[size]?.layer]))
    wider = places.map((one) => ({ ...one, layer: layers.get(one.id) ?? one.layer }))
    before = {
      columns: columns[size]!,
      placed: wider.filter(({ id }) => !hidden.has(id)),
      hidden: [...hidden],
    }
    all.set(size, before)
  }
  return all
}

/** A grid as it is at any size of its site. */
export function arrangedAt(grid: ArrangedGrid, size: SizeKey): ArrangedAt {
  return grid.get(lastUpTo([...grid.keys()], size)!)!
}

interface Narrower {
  readonly size: SizeKey
  readonly before: ArrangedAt
  readonly to: number
  /** What is left out is as empty rows to the others, and keeps its place for a narrower size at which it may be shown again. */
  readonly hidden: ReadonlySet<NodeId>
}

function narrowed(
  children: readonly GridChild[],
  wider: readonly Placed[],
  { size, before, to, hidden }: Narrower,
): readonly Placed[] {
  const from = before.columns
  const visible = wider.filter(({ id }) => !hidden.has(id))
  // Nothing is rearranged for a size that is like the wider one.
  const isAlike =
    from === to && before.hidden.length === hidden.size && before.placed.length === visible.length
  const free = byId(isAlike ? visible : deriveArrangement(visible, { from, to, set: new Map() }))
  const set = new Map(
    children.flatMap(({ id, places }): [NodeId, GridPlace][] => {
      const place = wholePlace(places[size], free.get(id))
      return place && !hidden.has(id) ? [[id, within(place, to)]] : []
    }),
  )
  const placed = set.size === 0 ? free : byId(deriveArrangement(visible, { from, to, set }))
  return wider.map((one) => placed.get(one.id) ?? { ...one, ...within(one, to) })
}

function byId(placed: readonly Placed[]): ReadonlyMap<NodeId, Placed> {
  return new Map(placed.map((one) => [one.id, one]))
}

/** Places at the widest size. What has none stands below everything else, one child after the other. */
function firstPlaces(children: readonly GridChild[], columns: number): readonly Placed[] {
  const set = new Map<NodeId, GridPlace>()
  for (const { id, places } of children) {
    const place = wholePlace(places.base, undefined)
    if (place) set.set(id, within(place, columns))
  }
  let next = Math.max(1, ...[...set.values()].map(rowEnd))
  return children.map(({ id }) => {
    const place = set.get(id) ?? { column: 1, columns, row: next, rows: NEW_ROWS }
    if (!set.has(id)) next += NEW_ROWS
    return { id, ...place, layer: 0 }
  })
}

/** A place of which at least one thing is set; what is not is as it is derived. Undefined where nothing is set. */
function wholePlace(values: PlaceValues | undefined, derived: GridPlace | undefined): GridPlace | undefined {
  const { column, row, columns, rows } = values ?? {}
  if ([column, row, columns, rows].every((one) => one === undefined)) return undefined
  return {
    column: column ?? derived?.column ?? 1,
    row: row ?? derived?.row ?? 1,
    columns: columns ?? derived?.columns ?? 1,
    rows: rows ?? derived?.rows ?? 1,
  }
}

/** Whether something is said of a child at a size: there, or else at the next wider one at which it is said or denied. */
function isSaidAt({ places }: GridChild, what: 'hidden' | 'bleed', size: SizeKey): boolean {
  const said = Object.keys(places).filter((at) => at <= size && places[at]?.[what] !== undefined)
  const nearest = said.sort().at(-1)
  return nearest !== undefined && places[nearest]?.[what] === true
}

/** Whether a child reaches on to the edge of the screen at the beginning and at the end of a line: only from the grid's own edge. */
export function bleedAt(
  child: GridChild,
  place: Pick<GridPlace, 'column' | 'columns'>,
  { size, columns }: { readonly size: SizeKey; readonly columns: number },
): readonly [start: boolean, end: boolean] {
  const bleeds = isSaidAt(child, 'bleed', size)
  return [bleeds && place.column === 1, bleeds && columnEnd(place) === columns + 1]
}
