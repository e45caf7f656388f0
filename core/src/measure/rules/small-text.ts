import { quoted, type GullyRule } from '../define-rule.ts'

const SMALLEST = 12

/** Words that are too small to be read with ease. */
export const smallText: GullyRule = {
  rule: 'small-text',
  title: 'Small text',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ band }) =>
    band.elements.flatMap(({ id, text }) => {
      if (!text || text.fontSize >= SMALLEST) return []
      const size = Math.round(text.fontSize * 10) / 10
      return [{ id, amount: SMALLEST - text.fontSize, why: `${quoted(text.words)} is ${size} px high` }]
    }),
}
