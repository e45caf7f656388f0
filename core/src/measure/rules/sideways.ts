import { told, type GullyRule, type Strain } from '../define-rule.ts'
import { isInScrolled, NOTHING, rightOf, seenOf } from '../geometry.ts'
import type { Box, MeasuredBand } from '../measured-page.ts'

/** What makes the whole page scroll sideways, or can't be reached at all, since it begins left of it. */
export const sideways: GullyRule = {
  rule: 'sideways',
  title: 'Scrolls sideways',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.10 Reflow',
  find: ({ band }) => {
    const found: Strain[] = []
    const isOut = new Set<number>()
    for (const [index, { id, parent, box, text }] of band.elements.entries()) {
      if (isInScrolled(band, index)) continue
      const past = Math.max(
        beyond(band, index, box),
        ...(text?.lines ?? []).map((line) => beyond(band, index, line)),
      )
      if (past <= NOTHING) continue
      isOut.add(index)
      // Only the outermost element that is too wide is reported.
      if (isOut.has(parent)) continue
      found.push({
        id,
        amount: past,
        why: `Is ${told(past)} wider than the screen, so the page scrolls sideways`,
      })
    }
    return found
  },
}

/** How far a box reaches beyond the page, to either side. */
function beyond(band: MeasuredBand, index: number, box: Box): number {
  const seen = seenOf(band, index, box)
  return seen ? Math.max(rightOf(seen) - band.width, -seen.x) : 0
}
