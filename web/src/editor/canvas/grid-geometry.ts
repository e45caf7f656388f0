import type { GridPlace } from '@gullyline/core'
import type { Box, Point } from './boxes.ts'

/** Where the tracks of a grid begin and end, in px of its frame, and what stands between two of them. */
export interface GridLines {
  readonly columns: readonly Track[]
  readonly rows: readonly Track[]
  readonly gaps: { readonly across: number; readonly down: number }
  /** How high rows are that nothing stands in. */
  readonly rowHeight: number
}

interface Track {
  readonly start: number
  readonly size: number
}

/** The lines of a grid as the browser laid it out (CSS Grid Layout 1, "resolved values"). */
export function gridLinesOf(cells: Element): GridLines | undefined {
  const style = cells.ownerDocument.defaultView?.getComputedStyle(cells)
  if (style?.display !== 'grid') return undefined
  const { left, top } = cells.getBoundingClientRect()
  const gaps = { across: parseFloat(style.columnGap) || 0, down: parseFloat(style.rowGap) || 0 }
  return {
    columns: tracksOf(style.gridTemplateColumns, left, gaps.across),
    rows: tracksOf(style.gridTemplateRows, top, gaps.down),
    gaps,
    rowHeight: parseFloat(/minmax\(([\d.]+)px/.exec(style.gridAutoRows)?.[1] ?? '') || 40,
  }
}

function tracksOf(template: string, from: number, gap: number): readonly Track[] {
  let start = from
  return template
    .replaceAll(/\[[^\]]*\]/g, ' ')
    .split(/\s+/)
    .flatMap((part): Track[] => {
      const size = parseFloat(part)
      if (!part.endsWith('px') || Number.isNaN(size)) return []
      const track = { start, size }
      start += size + gap
      return [track]
    })
}

/** The column and row at a point, as fractions: 2.5 is the middle of the second. Below the last row there are as many as are wanted. */
export function cellAt(lines: GridLines, { x, y }: Point): { readonly column: number; readonly row: number } {
  return {
    column: lineAt(lines.columns, x, lines.gaps.across, lines.columns[0]?.size ?? 1),
    row: lineAt(lines.rows, y, lines.gaps.down, lines.rowHeight),
  }
}

function lineAt(tracks: readonly Track[], at: number, gap: number, size: number): number {
  const last = tracks.at(-1)
  const end = last ? last.start + last.size + gap : 0
  if (!last || at >= end) return tracks.length + 1 + (at - end) / (size + gap)
  const index = Math.max(
    0,
    tracks.findLastIndex(({ start }) => start <= at),
  )
  const track = tracks[index]!
  return index + 1 + (at - track.start) / (track.size + gap)
}

/** The box of a place, in px of the frame. */
export function boxOfPlace(lines: GridLines, { column, row, columns, rows }: GridPlace): Box {
  const [left, right] = [lineStart(lines, 'columns', column), lineStart(lines, 'columns', column + columns)]
  const [top, bottom] = [lineStart(lines, 'rows', row), lineStart(lines, 'rows', row + rows)]
  return {
    left,
    top,
    width: right - lines.gaps.across - left,
    height: bottom - lines.gaps.down - top,
  }
}

/** Where a line is, in px; halves lie in the middle of a track. */
export function lineStart(lines: GridLines, axis: 'columns' | 'rows', line: number): number {
  const tracks = lines[axis]
  const gap = axis === 'columns' ? lines.gaps.across : lines.gaps.down
  const size = axis === 'columns' ? (tracks[0]?.size ?? 0) : lines.rowHeight
  const whole = Math.floor(line)
  const at = (one: number): number => {
    const track = tracks[one - 1]
    if (track) return track.start
    const last = tracks.at(-1)
    return last ? last.start + last.size + gap + (one - 1 - tracks.length) * (size + gap) : 0
  }
  const start = at(whole)
  return line === whole ? start : start + (line - whole) * (at(whole + 1) - start)
}
