/** Texts that are cut where they are too long: whatever characters stand there, no half of one is left. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { changeSentences } from '../src/compare/change-sentences.ts'
import { readHtmlText } from '../src/exchange/read-file.ts'
import { quoted } from '../src/measure/define-rule.ts'
import { cutShort, cutToEnd } from '../src/page/cut-short.ts'
import { countingIds } from './arbitraries/page.ts'
import { anyText } from './arbitraries/text.ts'
import { pageOf } from './fixtures/one-block.ts'

const someText = anyText(40)
/** As UTF-8 writes and reads it: half of a surrogate pair comes back as another character (Encoding standard, "UTF-8 encode"). */
const written = (text: string): string =>
  new TextDecoder('utf-8', { ignoreBOM: true }).decode(new TextEncoder().encode(text))

test('what is left is a beginning or an end of whole characters, and at most one unit shorter than it may be', () => {
  let between = 0
  fc.assert(
    fc.property(someText, fc.nat({ max: 80 }), (text, most) => {
      const [start, end] = [cutShort(text, most), cutToEnd(text, most)]
      expect(text.startsWith(start)).toBe(true)
      expect(text.endsWith(end)).toBe(true)
      for (const part of [start, end]) {
        expect(written(part)).toBe(part)
        expect(part.length).toBeLessThanOrEqual(most)
        expect(part.length).toBeGreaterThanOrEqual(Math.min(most, text.length) - 1)
        if (part.length < Math.min(most, text.length)) between++
      }
    }),
    { numRuns: 2_000 },
  )
  // Otherwise no cut came between two halves.
  expect(between).toBeGreaterThan(100)
})

describe.each([0, 1])(
  'of words whose every cut is between two halves, or would be one letter on (%j)',
  (shift) => {
    const words = 'x'.repeat(shift) + '🌘'.repeat(600)
    const heading = (text: string) => pageOf('heading', { text, level: 2 })
    const html = (source: string) => readHtmlText(source, registry, countingIds('r'))

    test.each<[string, () => unknown]>([
      [
        'the sentences of what a save changed',
        () => changeSentences(heading(words), heading('After'), registry),
      ],
      ['what is wrong with a page that is refused', () => validatePage(pageOf(words, {}), registry)],
      ['a gully', () => quoted(words)],
      [
        'a quotation’s source',
        () => html(`<blockquote><p>Said.</p><footer>${words}</footer></blockquote>`).page.nodes,
      ],
      ['a picture’s text', () => html(`<p>A</p><img src="https://example.org/a.png" alt="${words}">`)],
      [
        'the caption of a table',
        () =>
          html(
            `<table><caption>${words}</caption><tr><th>A</th><th>B</th></tr><tr><td>1</td><td>2</td></tr></table>`,
          ).page.nodes,
      ],
      [
        'the label of a detail',
        () => html(`<details><summary>${words}</summary><p>In it.</p></details>`).page.nodes,
      ],
    ])('%s has whole characters alone', (_what, told) => {
      const said = JSON.stringify(told())
      expect(said).toContain('🌘🌘')
      // A lone surrogate is escaped (ECMAScript 2025, JSON.stringify), a whole character is not.
      expect(said).not.toMatch(/\\ud[89a-f]/)
    })
  },
)
