/** Where the children of a grid stand at each size: where somebody put them, and else as derived from the next wider size. */
import type { JsonObject } from '../page/json.ts'
import type { NodeId, SizeKey } from '../page/page.ts'
import { SIZE_KEYS } from '../sizes/cascade.ts'
import { deriveArrangement, within } from './derive.ts'
import { rowEnd, type GridPlace, type Placed } from './placed.ts'

/** What a child of a grid has of its own at one size. */
export interface PlaceValues extends Partial<GridPlace> {
  readonly layer?: number
  /** Whether it is left out at this size. */
  readonly hidden?: boolean
}

export interface GridChild {
  readonly id: NodeId
  readonly places: Readonly<Partial<Record<SizeKey, PlaceValues | JsonObject>>>
}

/** The columns of a grid at each size. */
export type ColumnsAt = Readonly<Record<SizeKey, number>>

export interface ArrangedAt {
  /** What is shown at this size, in the order of the children. */
  readonly placed: readonly Placed[]
  /** The children that are left out at this size. */
  readonly hidden: readonly NodeId[]
}

/** A grid that nobody placed anything in has its children one below the other. */
const NEW_ROWS = 1

/** The arrangement of a grid at every size. */
export function arrangeGrid(
  children: readonly GridChild[],
  columns: ColumnsAt,
): Readonly<Record<SizeKey, ArrangedAt>> {
  const all: Partial<Record<SizeKey, ArrangedAt>> = {}
  // What is left out of a wider size has a place there all the same, from which narrower ones derive theirs.
  let wider = firstPlaces(children, columns.base)
  for (const [i, size] of SIZE_KEYS.entries()) {
    const before = SIZE_KEYS[i - 1]
    const placed =
      before === undefined
        ? wider
        : deriveArrangement(wider, {
            from: columns[before],
            to: columns[size],
            set: setAt(children, size, wider, columns[size]),
          })
    wider = placed.map((one) => ({ ...one, layer: layerAt(children, one.id, size) ?? one.layer }))
    const hidden = new Set(children.filter((one) => isHiddenAt(one, size)).map(({ id }) => id))
    all[size] = { placed: wider.filter(({ id }) => !hidden.has(id)), hidden: [...hidden] }
  }
  return all as Readonly<Record<SizeKey, ArrangedAt>>
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

function setAt(
  children: readonly GridChild[],
  size: SizeKey,
  wider: readonly Placed[],
  columns: number,
): ReadonlyMap<NodeId, GridPlace> {
  const before = new Map(wider.map((one) => [one.id, one]))
  return new Map(
    children.flatMap(({ id, places }): [NodeId, GridPlace][] => {
      const place = wholePlace(places[size], before.get(id))
      return place ? [[id, within(place, columns)]] : []
    }),
  )
}

/** A place of which at least one thing is set; what is not is as it was at the wider size. Undefined where nothing is. */
function wholePlace(values: PlaceValues | undefined, wider: GridPlace | undefined): GridPlace | undefined {
  const { column, row, columns, rows } = values ?? {}
  if ([column, row, columns, rows].every((one) => one === undefined)) return undefined
  return {
    column: column ?? wider?.column ?? 1,
    row: row ?? wider?.row ?? 1,
    columns: columns ?? wider?.columns ?? 1,
    rows: rows ?? wider?.rows ?? 1,
  }
}

function layerAt(children: readonly GridChild[], id: NodeId, size: SizeKey): number | undefined {
  const values = children.find((one) => one.id === id)?.places[size] as PlaceValues | undefined
  return values?.layer
}

/** Whether a child is left out at a size: what is said there, or else at the next wider one. */
function isHiddenAt({ places }: GridChild, size: SizeKey): boolean {
  for (let at = SIZE_KEYS.indexOf(size); at >= 0; at--) {
    const { hidden } = (places[SIZE_KEYS[at]!] ?? {}) as PlaceValues
    if (hidden !== undefined) return hidden
  }
  return false
}
