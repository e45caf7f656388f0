/**
 * The arrangement of a grid at a narrower size, derived from the next wider one. Blocks follow each other in reading order.
 * Blocks that stand side by side stay so while each has room. Blocks that overlap keep their proportions as one group.
 */
import type { NodeId } from '../page/page.ts'
import { around, fittedInto, overlap, rowEnd, type GridPlace, type Placed } from './placed.ts'
import { cutTree, orderOf, type CutTree } from './reading-order.ts'

/** Narrower than so many columns, some 250 px at every size, parts that stood beside each other stand below each other. */
const FEWEST_BESIDE = 2.5

export interface Derivation {
  /** How many columns the wider size has. */
  readonly from: number
  /** How many this one has. */
  readonly to: number
  /** Where children stand that somebody set at this size. */
  readonly set: ReadonlyMap<NodeId, GridPlace>
}

/**
 * Places on `to` columns for what is placed on `from`. Children that are set stay where they are; the others flow around
 * them. Nothing overlaps that did not overlap before, except with what was set to lie there.
 */
export function deriveArrangement(
  wider: readonly Placed[],
  { from, to, set }: Derivation,
): readonly Placed[] {
  const settled =
    set.size === 0
      ? []
      : wider.flatMap((one) => {
          const place = set.get(one.id)
          return place ? [{ ...one, ...within(place, to) }] : []
        })
  const tree = cutTree(set.size === 0 ? wider : wider.filter(({ id }) => !set.has(id)))
  const derived = tree ? aroundSet(laidOut(tree, { scale: to / from, width: to }), settled) : []
  const places = new Map([...settled, ...derived].map((one) => [one.id, one]))
  return wider.map(({ id }) => places.get(id)!)
}

/** A place moved and narrowed as far as it must be to lie on so many columns. */
export function within({ column, columns, row, rows }: GridPlace, most: number): GridPlace {
  const span = Math.min(Math.max(1, columns), most)
  return {
    column: Math.min(Math.max(1, column), most - span + 1),
    columns: span,
    row: Math.max(1, row),
    rows: Math.max(1, rows),
  }
}

interface Room {
  /** How wide this size is against the wider one. */
  readonly scale: number
  /** So many columns there are, from 1. */
  readonly width: number
}

/** Bands of what stands together, each at rows of its own, from row 1. */
type Bands = readonly (readonly Placed[])[]

/** A tree as bands one below the other. */
function laidOut(tree: CutTree, room: Room): Bands {
  if (tree.cut !== 'rows') return [inRoom(tree, room)]
  let next = 1
  return tree.parts.flatMap(({ tree: part, gap }) =>
    laidOut(part, room).map((band, i) => {
      const height = around(band)
      // Of the empty rows between two parts one is left: they were so much room on a wide screen.
      const row = next + (i === 0 ? Math.min(gap, 1) : 0)
      next = row + height.rows
      return moved(band, 0, row - height.row)
    }),
  )
}

/** A part in a room, from column 1 and row 1. */
function inRoom(tree: CutTree, room: Room): readonly Placed[] {
  switch (tree.cut) {
    case 'none':
      return [{ ...tree.child, column: 1, row: 1, columns: room.width }]
    case 'layered':
      return inProportion(tree.children, room)
    case 'rows':
      return laidOut(tree, room).flat()
    case 'columns':
      return beside(tree, room) ?? below(tree, room)
  }
}

/** Parts side by side; undefined where one of them would be too narrow. */
function beside(
  { parts }: CutTree & { readonly cut: 'columns' },
  { scale, width }: Room,
): readonly Placed[] | undefined {
  const wide = parts.map(({ tree }) => around(orderOf(tree)).columns)
  const shares = sharesOf(width, wide)
  const isRoomy = wide.every((columns) => columns * scale >= FEWEST_BESIDE)
  if (!isRoomy) return undefined
  let column = 0
  return parts.flatMap(({ tree }, i) => {
    const part = moved(inRoom(tree, { scale, width: shares[i]! }), column, 0)
    column += shares[i]!
    return part
  })
}

function below({ parts }: CutTree & { readonly cut: 'columns' }, room: Room): readonly Placed[] {
  return laidOut({ cut: 'rows', parts: parts.map(({ tree }) => ({ tree, gap: 0 })) }, room).flat()
}

/** Whole numbers that sum to `total` and are nearly as these are to each other: by the largest remainder, and none below 1. */
function sharesOf(total: number, wanted: readonly number[]): readonly number[] {
  const sum = wanted.reduce((all, one) => all + one, 0)
  const exact = wanted.map((one) => (one / sum) * total)
  const shares = exact.map((one) => Math.max(1, Math.floor(one)))
  const order = exact
    .map((one, i) => ({ i, rest: one - Math.floor(one) }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i)
  let left = total - shares.reduce((all, one) => all + one, 0)
  for (let at = 0; left > 0; at++, left--) shares[order[at % order.length]!.i]!++
  return shares
}

/**
 * Rectangles that no line parts, in a room. Their lines move together, in proportion, so that those that did not overlap
 * still do not. Where that would leave one too narrow, what overlaps stands together and everything else below it.
 */
function inProportion(children: readonly Placed[], { width }: Room): readonly Placed[] {
  const scaled = scaledTo(children, width)
  const isRoomy = scaled.every(({ columns }, i) => columns >= Math.min(FEWEST_LAYERED, children[i]!.columns))
  if (isRoomy) return scaled
  const groups = overlapping(children)
  // What lies together stays so for as long as each has a column; then it stands one below the other.
  const parts = groups.flatMap((group) => {
    const whole = scaledTo(group, width)
    return whole.every(({ columns }) => columns >= 1) ? [whole] : group.map((one) => scaledTo([one], width))
  })
  let next = 1
  return parts.flatMap((part) => {
    const row = next
    next += around(part).rows
    return moved(part, 0, row - 1)
  })
}

/** Fewer columns than this are too few for what lies over something else. */
const FEWEST_LAYERED = 2

function scaledTo(children: readonly Placed[], width: number): readonly Placed[] {
  return fittedInto(children, { column: 1, row: 1, columns: width, rows: around(children).rows })
}

/** Sets of rectangles of which each overlaps another one of its set, in the order of their first ones. */
function overlapping(children: readonly Placed[]): readonly (readonly Placed[])[] {
  let groups: Placed[][] = []
  for (const one of children) {
    const touches = (group: readonly Placed[]): boolean => group.some((other) => overlap(one, other))
    groups = [...groups.filter((group) => !touches(group)), [...groups.filter(touches).flat(), one]]
  }
  const order = new Map(children.map(({ id }, i) => [id, i]))
  const first = (group: readonly Placed[]): number => Math.min(...group.map(({ id }) => order.get(id)!))
  const top = (group: readonly Placed[]): number => Math.min(...group.map(({ row }) => row))
  return groups
    .map((group) => group.toSorted((a, b) => order.get(a.id)! - order.get(b.id)!))
    .sort((a, b) => top(a) - top(b) || first(a) - first(b))
}

function moved(children: readonly Placed[], columns: number, rows: number): readonly Placed[] {
  if (columns === 0 && rows === 0) return children
  // Written out: a spread costs as much as the rest of a derivation.
  return children.map(({ id, layer, column, row, columns: across, rows: down }) => ({
    id,
    layer,
    column: column + columns,
    row: row + rows,
    columns: across,
    rows: down,
  }))
}

/** Bands moved down past what is set, each as little as it must be, and those after it by as much. */
function aroundSet(bands: Bands, settled: readonly Placed[]): readonly Placed[] {
  if (settled.length === 0) return bands.flat()
  let shift = 0
  return bands.flatMap((band) => {
    let here = moved(band, 0, shift)
    for (;;) {
      const hit = settled.filter((one) => here.some((child) => overlap(child, one)))
      if (hit.length === 0) return here
      const past =
        Math.max(...hit.map(rowEnd)) -
        Math.min(...here.filter((child) => hit.some((one) => overlap(child, one))).map(({ row }) => row))
      shift += past
      here = moved(band, 0, shift)
    }
  })
}
