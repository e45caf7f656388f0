import type { GullyRule } from '../define-rule.ts'
import { bottomOf, NOTHING } from '../geometry.ts'
import type { Box, MeasuredBand } from '../measured-page.ts'

/** With fewer in a row, one that stands alone is half a row. */
const FEWEST = 3
const TOLERANCE = 2

/** One block alone in the last of several rows. */
export const lastRow: GullyRule = {
  rule: 'last-row',
  title: 'Last row nearly empty',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    band.elements.flatMap(({ id, wraps }, index) => {
      if (!wraps) return []
      if (!areAlike(band, index)) return []
      const rows = rowsOf(band, index)
      const most = Math.max(0, ...rows)
      if (rows.length < 2 || most < FEWEST || rows.at(-1) !== 1) return []
      return [{ id, amount: most, why: `${most} stand in a row, and the last one is alone in its own` }]
    }),
}

/** Whether children are as wide as each other, as cards are: words that wrap end where they end. */
function areAlike(band: MeasuredBand, index: number): boolean {
  const widths = childrenOf(band, index).map(({ box }) => box.width)
  return Math.max(...widths) - Math.min(...widths) <= TOLERANCE
}

function childrenOf({ elements }: MeasuredBand, index: number) {
  return elements.filter(({ parent, isAbsolute, box }) => parent === index && !isAbsolute && box.width > 0)
}

/** How many children stand in each row. */
export function rowsOf(band: MeasuredBand, index: number): readonly number[] {
  const rows: { count: number; bottom: number }[] = []
  let last: Box | undefined
  for (const { box } of childrenOf(band, index)) {
    const row = rows.at(-1)
    // In one row each begins right of the one before, and above its end.
    if (row && last && box.y < row.bottom - NOTHING && box.x > last.x + NOTHING) {
      row.count++
      row.bottom = Math.max(row.bottom, bottomOf(box))
    } else rows.push({ count: 1, bottom: bottomOf(box) })
    last = box
  }
  return rows.map(({ count }) => count)
}
