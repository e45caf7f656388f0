/**
 * One line of text, such as a heading: plain words, or runs where some of the words have marks or a link. One line has
 * one form: plain words are a string, and `toLine` gives that form.
 */
import { isInsideLetter } from './cut-short.ts'
import { normalizeRuns, runLinks, runWords, type LinkedWords, type Run } from './rich-text.ts'

export type Line = string | readonly Run[]

export function lineRuns(line: Line): readonly Run[] {
  if (typeof line !== 'string') return line
  return line === '' ? [] : [{ text: line }]
}

export function lineWords(line: Line): string {
  return typeof line === 'string' ? line : runWords(line)
}

export function lineLinks(line: Line): LinkedWords[] {
  return typeof line === 'string' ? [] : runLinks(line)
}

/** Runs as one line: a break becomes a space. */
export function toLine(runs: readonly Run[]): Line {
  const joined = normalizeRuns(runs.map((run) => ({ ...run, text: run.text.replace(CONTROLS, ' ') })))
  return joined.every(({ marks, link }) => !marks && !link) ? runWords(joined) : joined
}

/** The same line with one space at most between words, and none around them. */
export function trimLine(line: Line): Line {
  let before = ' '
  const tidy = lineRuns(line).map((run) => {
    const text = (before + run.text).replace(/\s+/g, ' ').slice(before.length)
    before = text === '' ? before : text.slice(-1)
    return { ...run, text }
  })
  const last = tidy.findLastIndex(({ text }) => text !== '')
  return toLine(tidy.map((run, index) => (index === last ? { ...run, text: run.text.trimEnd() } : run)))
}

/** The line with other words: those that stayed keep their marks and links, new ones take the marks beside them. */
export function withLineWords(line: Line, words: string): Line {
  if (typeof line === 'string') return words
  const before = lineWords(line)
  const shorter = Math.min(before.length, words.length)
  let start = 0
  while (start < shorter && before[start] === words[start]) start++
  if (isInsideLetter(before, start) || isInsideLetter(words, start)) start--
  let end = 0
  while (end < shorter - start && before.at(-1 - end) === words.at(-1 - end)) end++
  if (isInsideLetter(before, before.length - end) || isInsideLetter(words, words.length - end)) end--
  const left = cutRuns(line, 0, start)
  const right = cutRuns(line, before.length - end, before.length)
  const { marks } = left.at(-1) ?? right[0] ?? {}
  // Words beside a link are no part of it; words inside it are.
  const link = sameLink(left.at(-1), right[0]) ? left.at(-1)?.link : undefined
  const text = words.slice(start, words.length - end)
  return toLine([...left, { text, ...(marks ? { marks } : {}), ...(link ? { link } : {}) }, ...right])
}

/** The runs between two places in their words. */
function cutRuns(runs: readonly Run[], from: number, to: number): Run[] {
  let at = 0
  return runs.flatMap((run) => {
    const text = run.text.slice(Math.max(0, from - at), Math.max(0, to - at))
    at += run.text.length
    return text === '' ? [] : [{ ...run, text }]
  })
}

function sameLink(a: Run | undefined, b: Run | undefined): boolean {
  return a?.link !== undefined && JSON.stringify(a.link) === JSON.stringify(b?.link)
}

const CONTROLS = /[\u0000-\u001f\u007f]+/g
