import { quoted, type GullyRule } from '../define-rule.ts'
import type { MeasuredText } from '../measured-page.ts'

const MOST_LINES = 4

/** A heading or a button with a word that is broken where it can't be. */
export const brokenWord: GullyRule = {
  rule: 'broken-word',
  title: 'Word broken',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ band }) =>
    band.elements.flatMap(({ id, text }) =>
      !isHeading(text) || text.brokenWords === 0
        ? []
        : [
            {
              id,
              amount: text.brokenWords * text.lines.length,
              why: `${quoted(text.words)} has no room for its longest word, which is broken over lines`,
            },
          ],
    ),
}

/** A heading or a button of more lines than anybody takes in at a glance. */
export const tallHeading: GullyRule = {
  rule: 'tall-heading',
  title: 'Many lines',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    band.elements.flatMap(({ id, text }) => {
      if (!isHeading(text) || text.lines.length <= MOST_LINES) return []
      return [
        { id, amount: text.lines.length, why: `${quoted(text.words)} takes ${text.lines.length} lines` },
      ]
    }),
}

function isHeading(text: MeasuredText | undefined): text is MeasuredText {
  return text?.role === 'heading' || text?.role === 'button'
}
