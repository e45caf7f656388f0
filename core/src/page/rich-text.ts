/**
 * Formatted text as a small typed tree: blocks (paragraphs and lists) of runs (words with marks).
 * A newline inside a run is a forced line break. Runs next to each other with equal marks are joined
 * by `normalizeRichText`, so that one text has one form.
 */
import type { Link } from './link.ts'

/** Every mark there is, from the outside in when several are on the same words. */
export const MARKS = [
  'bold',
  'italic',
  'strike',
  'subscript',
  'superscript',
  'code',
  // Colours of the surface that the words stand on, so that they can always be read.
  'accent',
  'quiet',
] as const

/** Marks of which words have one at most. */
export const EXCLUSIVE_MARKS: readonly (readonly Mark[])[] = [
  ['subscript', 'superscript'],
  ['accent', 'quiet'],
]

export type Mark = (typeof MARKS)[number]

export interface Run {
  readonly text: string
  /** Sorted, each at most once; absent when there are none. */
  readonly marks?: readonly Mark[]
  readonly link?: Link
}

export interface Paragraph {
  readonly type: 'paragraph'
  readonly runs: readonly Run[]
}

export interface List {
  readonly type: 'list'
  readonly ordered: boolean
  readonly items: readonly ListItem[]
}

export interface ListItem {
  readonly runs: readonly Run[]
  /** A list inside this item. */
  readonly list?: List
}

export type TextBlock = Paragraph | List
export type RichText = readonly TextBlock[]

/** Plain words as formatted text, a paragraph each. */
export function paragraphs(...texts: string[]): RichText {
  return texts.map((text) => ({ type: 'paragraph', runs: text === '' ? [] : [{ text }] }))
}

/** The words alone, a string for each paragraph and list item, in reading order. */
export function richTextWords(text: RichText): string[] {
  return text.flatMap((block) =>
    block.type === 'paragraph' ? [runWords(block.runs)] : block.items.flatMap(itemWords),
  )
}

function itemWords(item: ListItem): string[] {
  return [runWords(item.runs), ...(item.list ? item.list.items.flatMap(itemWords) : [])]
}

export function runWords(runs: readonly Run[]): string {
  return runs.map((run) => run.text).join('')
}

/** A link with the words it is on. */
export interface LinkedWords {
  words: string
  readonly link: Link
}

/** Every link with the words it is on; runs in a row that lead to the same place are one link, as they are on the page. */
export function richTextLinks(text: RichText): LinkedWords[] {
  return allRuns(text).flatMap(runLinks)
}

export function runLinks(runs: readonly Run[]): LinkedWords[] {
  const links: LinkedWords[] = []
  let previous: Link | undefined
  for (const run of runs) {
    const last = links.at(-1)
    if (run.link && last && JSON.stringify(previous) === JSON.stringify(run.link)) last.words += run.text
    else if (run.link) links.push({ words: run.text, link: run.link })
    previous = run.link
  }
  return links
}

/** True when a list has an item without words. */
export function hasEmptyItem(text: RichText): boolean {
  const isEmpty = (item: ListItem): boolean =>
    runWords(item.runs).trim() === '' || (item.list?.items.some(isEmpty) ?? false)
  return text.some((block) => block.type === 'list' && block.items.some(isEmpty))
}

function allRuns(text: RichText): (readonly Run[])[] {
  return text.flatMap((block) =>
    block.type === 'paragraph' ? [block.runs] : block.items.flatMap(runsOfItem),
  )
}

function runsOfItem({ runs, list }: ListItem): (readonly Run[])[] {
  return [runs, ...(list?.items.flatMap(runsOfItem) ?? [])]
}

/** Joins neighbouring runs that look alike, drops empty ones and sorts marks. Idempotent. */
export function normalizeRichText(text: RichText): RichText {
  return text.map((block) =>
    block.type === 'paragraph'
      ? { type: 'paragraph', runs: normalizeRuns(block.runs) }
      : normalizeList(block),
  )
}

function normalizeList(list: List): List {
  return {
    type: 'list',
    ordered: list.ordered,
    items: list.items.map((item) => ({
      runs: normalizeRuns(item.runs),
      ...(item.list ? { list: normalizeList(item.list) } : {}),
    })),
  }
}

/** Joins runs next to each other that look alike, drops empty ones and sorts marks. Idempotent. */
export function normalizeRuns(runs: readonly Run[]): Run[] {
  const joined: Run[] = []
  for (const run of runs) {
    if (run.text === '') continue
    const marks = [...new Set(run.marks ?? [])].sort()
    const next: Run = {
      text: run.text,
      ...(marks.length > 0 ? { marks } : {}),
      ...(run.link ? { link: run.link } : {}),
    }
    const last = joined.at(-1)
    if (last && looksLike(last, next)) joined[joined.length - 1] = { ...last, text: last.text + next.text }
    else joined.push(next)
  }
  return joined
}

function looksLike(a: Run, b: Run): boolean {
  return JSON.stringify([a.marks, a.link]) === JSON.stringify([b.marks, b.link])
}
