import { quoted, told, type GullyRule } from '../define-rule.ts'
import { bottomOf, rightOf, upwards } from '../geometry.ts'
import type { Box, MeasuredElement } from '../measured-page.ts'

/** Letters have room around them in their line: so much of it may be cut off before they are. */
const TOLERANCE = 2

/** Words of which a part is cut off. */
export const cutText: GullyRule = {
  rule: 'cut-text',
  title: 'Text cut off',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.10 Reflow and 1.4.12 Text Spacing (loss of content)',
  find: ({ band }) =>
    band.elements.flatMap(({ id, text }, index) => {
      if (!text) return []
      let past = 0
      for (const around of upwards(band, index))
        for (const line of text.lines) past = Math.max(past, cutBy(line, around))
      return past > TOLERANCE
        ? [{ id, amount: past, why: `${quoted(text.words)} is cut off by ${told(past)}` }]
        : []
    }),
}

function cutBy(line: Box, { clips, isScrolled, box }: MeasuredElement): number {
  const isCutX = (clips === 'x' || clips === 'both') && !isScrolled
  const isCutY = clips === 'y' || clips === 'both'
  return Math.max(
    0,
    isCutX ? Math.max(rightOf(line) - rightOf(box), box.x - line.x) : 0,
    isCutY ? Math.max(bottomOf(line) - bottomOf(box), box.y - line.y) : 0,
  )
}
