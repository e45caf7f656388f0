import { quoted, told, type GullyRule, type Strain } from '../define-rule.ts'
import { bottomOf, isInside, paintsOver, seenOf, shared } from '../geometry.ts'
import type { Box, MeasuredBand } from '../measured-page.ts'

/** Lines hold more than their letters: so much of the lower one's height may lie in another line before letters meet. */
const SHARE_OF_LINE = 0.3
const TOLERANCE = 2

interface Line {
  readonly index: number
  readonly box: Box
}

/** Words that lie under other words, or under a picture or a block that can't be seen through. */
export const coveredText: GullyRule = {
  rule: 'covered-text',
  title: 'Text covered',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.4 Resize Text and 1.4.10 Reflow (loss of content)',
  find: ({ band }) => {
    const lines = seenLines(band)
    const covers = band.elements.flatMap(({ picture, isOpaque, box }, index): Line[] => {
      const seen = picture || isOpaque ? seenOf(band, index, box) : undefined
      return seen ? [{ index, box: seen }] : []
    })
    return [...overlappingLines(band, lines), ...underCovers(band, lines, covers)]
  },
}

function seenLines(band: MeasuredBand): readonly Line[] {
  return band.elements
    .flatMap(({ text }, index) =>
      (text?.lines ?? []).flatMap((line): Line[] => {
        const box = seenOf(band, index, line)
        return box ? [{ index, box }] : []
      }),
    )
    .sort((a, b) => a.box.y - b.box.y)
}

/** Lines of different texts that share more than the room around their letters. The lines come from the top down. */
function overlappingLines(band: MeasuredBand, lines: readonly Line[]): readonly Strain[] {
  const found: Strain[] = []
  for (const [i, upper] of lines.entries())
    for (let j = i + 1; j < lines.length && lines[j]!.box.y < bottomOf(upper.box); j++) {
      const lower = lines[j]!
      if (lower.index === upper.index) continue
      const both = shared(upper.box, lower.box)
      const most = SHARE_OF_LINE * Math.min(upper.box.height, lower.box.height)
      if (!both || both.width <= TOLERANCE || both.height <= most) continue
      const [over, under] = paintsOver(band, upper.index, lower.index) ? [upper, lower] : [lower, upper]
      found.push(strain(band, under, over, both))
    }
  return found
}

function underCovers(band: MeasuredBand, lines: readonly Line[], covers: readonly Line[]): readonly Strain[] {
  return covers.flatMap((cover) =>
    lines.flatMap((line) => {
      const both = shared(cover.box, line.box)
      if (!both || both.width <= TOLERANCE || both.height <= TOLERANCE) return []
      if (isInside(band, line.index, cover.index) || isInside(band, cover.index, line.index)) return []
      return paintsOver(band, cover.index, line.index) ? [strain(band, line, cover, both)] : []
    }),
  )
}

function strain(band: MeasuredBand, under: Line, over: Line, both: Box): Strain {
  const { id, text } = band.elements[under.index]!
  const cover = band.elements[over.index]!
  const what = cover.text ? quoted(cover.text.words) : cover.picture ? 'a picture' : 'another block'
  return {
    id,
    amount: both.width * both.height,
    why: `${quoted(text!.words)} lies under ${what}, ${told(both.width)} of it`,
  }
}
