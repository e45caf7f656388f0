/** One line of words, some of them formatted: one form for one line, and words that stay keep their looks. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { lineRuns, lineWords, toLine, trimLine, withLineWords, type Line } from '../src/page/line.ts'
import type { Run } from '../src/page/rich-text.ts'
import { anyLine, anyRuns, plainWords } from './arbitraries/value.ts'

/** Letters that no other test words have; the last two share the first half of their surrogate pairs. */
const [SNOWMAN, PARTY, OTHER_PARTY] = ['\u2603', '\u{1f389}', '\u{1f38a}']

const bold = (text: string): Run => ({ text, marks: ['bold'] })
const linked = (text: string): Run => ({ text, link: { page: 'visit' } })

/** Each letter with what it looks like. */
function letters(line: Line): { letter: string; look: string }[] {
  return lineRuns(line).flatMap(({ text, ...look }) =>
    [...text].map((letter) => ({ letter, look: JSON.stringify(look) })),
  )
}

describe('a line', () => {
  test('is a string where nothing is formatted, however many runs it came in', () => {
    fc.assert(
      fc.property(fc.array(plainWords), (words) => {
        const line = toLine(words.map((text) => ({ text })))
        expect(line).toBe(words.join(''))
      }),
    )
  })
  test('has one form', () => {
    fc.assert(
      fc.property(anyRuns, (runs) => {
        const line = toLine(runs)
        expect(toLine(lineRuns(line))).toEqual(line)
        expect(lineWords(line)).not.toMatch(/\n/)
        const isFormatted = runs.some(({ text, marks, link }) => text !== '' && (marks || link))
        expect(typeof line === 'string').toBe(!isFormatted)
      }),
    )
  })
  test('trimmed, has the same words with one space between them', () => {
    fc.assert(
      fc.property(anyLine, (line) => {
        const expected = lineWords(line).replace(/\s+/g, ' ').trim()
        expect(lineWords(trimLine(line))).toBe(expected)
        // No look is made up: each letter but spaces looks as it did.
        const isWord = ({ letter }: { letter: string }) => letter.trim() !== ''
        expect(letters(trimLine(line)).filter(isWord)).toEqual(letters(line).filter(isWord))
      }),
    )
  })
})

describe('other words in a line', () => {
  test('are the words of the new line, and what was before and after them keeps its looks', () => {
    fc.assert(
      fc.property(anyLine, fc.nat(), fc.nat(), fc.constantFrom('', SNOWMAN, PARTY), (line, a, b, typed) => {
        const before = letters(line)
        const [from, to] = [a, b].map((at) => at % (before.length + 1)).sort((x, y) => x - y) as [
          number,
          number,
        ]
        const words = before.map(({ letter }) => letter)
        const next = [...words.slice(0, from), typed, ...words.slice(to)].join('')
        const changed = withLineWords(line, next)
        expect(lineWords(changed)).toBe(next)
        if (typed === '') return
        expect(letters(changed).slice(0, from)).toEqual(before.slice(0, from))
        expect(letters(changed).slice(from + 1)).toEqual(before.slice(to))
      }),
    )
  })
  test('never parts the two halves of one letter', () => {
    const line = toLine([{ text: PARTY }, bold(PARTY)])
    for (const run of lineRuns(withLineWords(line, `${OTHER_PARTY}${PARTY}`)))
      expect(run.text).not.toMatch(/\p{Cs}/u)
  })
  test.each<[string, Line, string, Line]>([
    [
      'inside bold words are bold',
      [{ text: 'A ' }, bold('dark sky')],
      'A darker sky',
      [{ text: 'A ' }, bold('darker sky')],
    ],
    ['after a bold word are bold', [bold('Dark')], 'Dark sky', [bold('Dark sky')]],
    ['before a bold word are as that', [bold('sky')], 'Dark sky', [bold('Dark sky')]],
    ['after a link are no part of it', [linked('Visit')], 'Visit us', [linked('Visit'), { text: ' us' }]],
    ['inside a link are part of it', [linked('Visit us')], 'Visit all of us', [linked('Visit all of us')]],
    ['instead of all that was bold are bold', [bold('a')], 'b', 'b'],
    [
      'that are fewer leave the rest as it was',
      [{ text: 'A ' }, bold('dark'), { text: ' sky' }],
      'A sky',
      'A sky',
    ],
  ])('%s', (_name, line, words, expected) => {
    expect(withLineWords(line, words)).toEqual(expected)
  })
})
