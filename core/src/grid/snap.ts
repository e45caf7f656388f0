/** Where a dragged or resized rectangle goes on a grid, and what it is then in line with. */
import type { NodeId } from '../page/page.ts'
import { columnEnd, rowEnd, type GridPlace, type Placed } from './placed.ts'

/** A line that a rectangle shares with others. */
export interface Guide {
  readonly axis: 'column' | 'row'
  /** Which grid line, counted from 1; of a middle between two lines, the half between them. */
  readonly line: number
  /** An edge or the middle of a neighbour, or the middle of the section. */
  readonly of: 'edge' | 'centre' | 'middle'
  /** The neighbours; none where it is the middle of the section. */
  readonly with: readonly NodeId[]
}

/** A wish between two columns goes to a line of a neighbour that is no farther than this, in columns. */
const PULL = 0.75

/** The middle of a rectangle, as a line. */
function middleOf(start: number, span: number): number {
  return start + span / 2
}

/** The middle line of a grid of so many columns. */
function middleLine(columns: number): number {
  return middleOf(1, columns)
}

/** Where a rectangle goes that is dragged to a place between lines: to the nearest one, or to one that it shares with something. */
export function snapped(place: GridPlace, others: readonly Placed[], columns: number): GridPlace {
  const column = nearest(place.column, [
    ...others.flatMap((one) => [
      one.column,
      columnEnd(one),
      one.column - place.columns,
      columnEnd(one) - place.columns,
      middleOf(one.column, one.columns) - place.columns / 2,
    ]),
    middleLine(columns) - place.columns / 2,
  ])
  const row = nearest(
    place.row,
    others.flatMap((one) => [one.row, rowEnd(one), rowEnd(one) - place.rows]),
  )
  return {
    ...place,
    column: Math.min(Math.max(1, column), Math.max(1, columns - place.columns + 1)),
    row: Math.max(1, row),
  }
}

/** The nearest whole line to a wish; of those that something shares, one that is somewhat farther. */
function nearest(wish: number, lines: readonly number[]): number {
  const pulling = lines.filter((line) => Number.isInteger(line) && Math.abs(line - wish) <= PULL)
  return pulling.length === 0
    ? Math.round(wish)
    : pulling.reduce((best, line) => (Math.abs(line - wish) < Math.abs(best - wish) ? line : best))
}

/** All lines that a rectangle shares with its neighbours and with the middle of the section. */
export function guidesOf(place: GridPlace, others: readonly Placed[], columns: number): readonly Guide[] {
  const lines = new Map<string, Guide>()
  const add = (axis: Guide['axis'], line: number, of: Guide['of'], id?: NodeId): void => {
    const key = `${axis} ${of} ${line}`
    const known = lines.get(key)?.with ?? []
    lines.set(key, { axis, line, of, with: id === undefined ? known : [...known, id] })
  }
  for (const one of others) {
    for (const line of [place.column, columnEnd(place)])
      if (line === one.column || line === columnEnd(one)) add('column', line, 'edge', one.id)
    for (const line of [place.row, rowEnd(place)])
      if (line === one.row || line === rowEnd(one)) add('row', line, 'edge', one.id)
    const [own, there] = [middleOf(place.column, place.columns), middleOf(one.column, one.columns)]
    if (own === there) add('column', own, 'centre', one.id)
  }
  const middle = middleLine(columns)
  if (middleOf(place.column, place.columns) === middle) add('column', middle, 'middle')
  return [...lines.values()]
}

/** Near the middle, so many columns, it is said whether a rectangle can stand in it. */
const NEAR = 0.5

/**
 * Of a rectangle that stands next to the middle and can't stand in it, since its span is odd on an even number of columns:
 * the nearest spans that can. Undefined where it stands elsewhere, or in the middle.
 */
export function spansThatCentre(place: GridPlace, columns: number): readonly number[] | undefined {
  const off = Math.abs(middleOf(place.column, place.columns) - middleLine(columns))
  if (off === 0 || off > NEAR || (columns - place.columns) % 2 === 0) return undefined
  return [place.columns - 1, place.columns + 1].filter((span) => span >= 1 && span <= columns)
}

export type Side = 'left' | 'right' | 'top' | 'bottom'

/** A rectangle with some of its sides moved by whole columns and rows; never less than one wide and high. */
export function resized(
  place: GridPlace,
  sides: readonly Side[],
  { across, down }: { readonly across: number; readonly down: number },
  columns: number,
): GridPlace {
  let [left, right, top, bottom] = [place.column, columnEnd(place), place.row, rowEnd(place)]
  if (sides.includes('left')) left = Math.min(right - 1, Math.max(1, left + across))
  if (sides.includes('right')) right = Math.max(left + 1, Math.min(columns + 1, right + across))
  if (sides.includes('top')) top = Math.min(bottom - 1, Math.max(1, top + down))
  if (sides.includes('bottom')) bottom = Math.max(top + 1, bottom + down)
  return { column: left, columns: right - left, row: top, rows: bottom - top }
}
