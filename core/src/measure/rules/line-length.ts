import { quoted, type GullyRule, type Strain } from '../define-rule.ts'
import type { MeasuredBand, MeasuredElement, MeasuredText } from '../measured-page.ts'

const MOST = 80
const FEWEST = 20
/** Fewer lines than this are a label or a title, and no text to be read along. */
const FEWEST_LINES = 3

/** Lines of running text that are too long to find the next one. */
export const longLines: GullyRule = {
  rule: 'long-lines',
  title: 'Long lines',
  severity: 'warning',
  source: 'WCAG 2.2, 1.4.8 Visual Presentation',
  find: ({ band }) =>
    running(band, ({ id }, text, fits) => {
      const longest = Math.min(fits, text.characters)
      if (longest <= MOST) return undefined
      return {
        id,
        amount: longest,
        why: `${quoted(text.words)} has ${Math.round(longest)} characters in a line`,
      }
    }),
}

/** Lines of running text in which hardly anything fits. */
export const shortLines: GullyRule = {
  rule: 'short-lines',
  title: 'Short lines',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    running(band, ({ id }, text, fits) => {
      if (text.lines.length < FEWEST_LINES || fits >= FEWEST) return undefined
      return {
        id,
        amount: FEWEST - fits,
        why: `${quoted(text.words)} has only ${Math.round(fits)} characters in a line`,
      }
    }),
}

function running(
  { elements }: MeasuredBand,
  find: (element: MeasuredElement, text: MeasuredText, fits: number) => Strain | undefined,
): readonly Strain[] {
  return elements.flatMap((element) => {
    const { text } = element
    if (text?.role !== 'running') return []
    return find(element, text, charactersThatFit(element, text)) ?? []
  })
}

/**
 * How many characters of this text fit into a line, by their mean width: unlike the longest line as it happens to break, it
 * grows evenly with the width.
 */
function charactersThatFit({ content }: MeasuredElement, { lines, characters }: MeasuredText): number {
  const inked = lines.reduce((sum, { width }) => sum + width, 0)
  // The space at which a line breaks is not drawn.
  const drawn = characters - (lines.length - 1)
  return inked === 0 || drawn <= 0 ? Infinity : ((content.right - content.left) * drawn) / inked
}
