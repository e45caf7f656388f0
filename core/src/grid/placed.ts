/**
 * Rectangles on the columns and rows of a grid. Columns and rows are counted from 1, as CSS Grid Layout counts its lines: a
 * rectangle at column 3 that spans 2 lies between the lines 3 and 5.
 */
import type { NodeId } from '../page/page.ts'

export interface GridPlace {
  readonly column: number
  readonly row: number
  /** How many columns it spans. */
  readonly columns: number
  /** How many rows it spans, at least: a row grows with what is in it. */
  readonly rows: number
}

export interface Placed extends GridPlace {
  readonly id: NodeId
  /** What lies over what where rectangles overlap: the higher, the nearer. */
  readonly layer: number
}

/** The first line behind it. */
export function columnEnd({ column, columns }: Pick<GridPlace, 'column' | 'columns'>): number {
  return column + columns
}

export function rowEnd({ row, rows }: Pick<GridPlace, 'row' | 'rows'>): number {
  return row + rows
}

/** Whether two rectangles share a cell. */
export function overlap(a: GridPlace, b: GridPlace): boolean {
  return a.column < columnEnd(b) && b.column < columnEnd(a) && a.row < rowEnd(b) && b.row < rowEnd(a)
}

/** The smallest rectangle around others, of which there must be one. */
export function around(places: readonly GridPlace[]): GridPlace {
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0]
  for (const place of places) {
    left = Math.min(left, place.column)
    top = Math.min(top, place.row)
    right = Math.max(right, columnEnd(place))
    bottom = Math.max(bottom, rowEnd(place))
  }
  return { column: left, row: top, columns: right - left, rows: bottom - top }
}

/**
 * Rectangles, of which there must be one, with their lines moved in proportion from the rectangle around them into another
 * one: what did not overlap still does not. One may be left without a column or a row.
 */
export function fittedInto(places: readonly Placed[], to: GridPlace): readonly Placed[] {
  const from = around(places)
  const columnAt = (line: number): number =>
    to.column + Math.round(((line - from.column) / from.columns) * to.columns)
  const rowAt = (line: number): number => to.row + Math.round(((line - from.row) / from.rows) * to.rows)
  return places.map((one) => {
    const [column, row] = [columnAt(one.column), rowAt(one.row)]
    return { ...one, column, row, columns: columnAt(columnEnd(one)) - column, rows: rowAt(rowEnd(one)) - row }
  })
}
