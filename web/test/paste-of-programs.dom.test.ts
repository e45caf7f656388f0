/**
 * What real programs put on a clipboard, judged by the text and structure of the document that was copied; see
 * fixtures/paste/README.md. Pandoc's syntax tree of the document is the oracle.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { defaultRegistry, type Fragment, type ListItem, type RichText, type Run } from '@gullyline/core'
import { loadMarkdown, markdownToHtml } from '../src/editor/canvas/paste.ts'
import { readPasted } from '../src/editor/canvas/pasted.ts'
import { blocksFromHtml } from '../src/editor/canvas/html-blocks.ts'

const fixture = (name: string) => readFileSync(join(import.meta.dirname, 'fixtures/paste', name), 'utf8')

beforeAll(() => loadMarkdown())

/** A document as both sides are brought to: one line for each part of it, in its order. */
type Outline = readonly string[]

// The pandoc side: pandoc-types 1.22, "Text.Pandoc.Definition".
interface Tagged {
  readonly t: string
  readonly c?: unknown
}
const MARKS: Readonly<Record<string, string>> = { Strong: 'bold', Emph: 'italic', Strikeout: 'strike' }

function inlines(list: readonly Tagged[]): string {
  return list
    .map(({ t, c }) => {
      if (t === 'Str') return c as string
      if (t === 'Space' || t === 'SoftBreak' || t === 'LineBreak') return ' '
      if (t === 'Link') {
        const [, words, [href]] = c as [unknown, Tagged[], [string]]
        return `<${href}|${inlines(words)}>`
      }
      if (MARKS[t]) return `<${MARKS[t]}|${inlines(c as Tagged[])}>`
      throw new Error(`The source has a ${t}, which this test does not know`)
    })
    .join('')
}
function listLines(items: readonly (readonly Tagged[])[], ordered: boolean, depth = 0): string[] {
  return items.flatMap(([first, ...rest]) => [
    `${'  '.repeat(depth)}${ordered ? '#' : '-'} ${inlines(first!.c as Tagged[])}`,
    ...rest.flatMap((inside) => listLines(inside.c as Tagged[][], inside.t === 'OrderedList', depth + 1)),
  ])
}
function blockLines({ t, c }: Tagged): Outline {
  if (t === 'Header') {
    const [level, , words] = c as [number, unknown, Tagged[]]
    // A page has one heading of the first level, and that is its title.
    return [`heading ${Math.max(2, level)}: ${inlines(words)}`]
  }
  if (t === 'Para') return [inlines(c as Tagged[])]
  if (t === 'BulletList') return listLines(c as Tagged[][], false)
  if (t === 'OrderedList') return listLines((c as [unknown, Tagged[][]])[1], true)
  if (t === 'BlockQuote') return (c as Tagged[]).flatMap(blockLines).map((line) => `quote: ${line}`)
  if (t === 'Table') {
    const [, , , [, head], bodies] = c as [unknown, unknown, unknown, [unknown, unknown[]], unknown[][]]
    const rows = [...head, ...bodies.flatMap((body) => body[3] as unknown[])] as [unknown, unknown[]][]
    return rows.map(([, cells]) => `row: ${cells.map((cell) => cellWords(cell as unknown[])).join(' | ')}`)
  }
  throw new Error(`The source has a ${t}, which this test does not know`)
}
function cellWords(cell: readonly unknown[]): string {
  return (cell[4] as Tagged[]).map(({ c }) => inlines(c as Tagged[])).join(' ')
}
const SOURCE: Outline = (JSON.parse(fixture('source.json')) as { blocks: Tagged[] }).blocks.flatMap(
  blockLines,
)

// Our side.
function runs(list: readonly Run[]): string {
  return list
    .map(({ text, marks = [], link }) => {
      const words = text.replace(/\s+/g, ' ')
      const marked = marks.reduceRight((inside, mark) => `<${mark}|${inside}>`, words)
      return link && 'href' in link ? `<${link.href}|${marked}>` : marked
    })
    .join('')
}
function itemLines(items: readonly ListItem[], ordered: boolean, depth = 0): string[] {
  return items.flatMap(({ runs: words, list }) => [
    `${'  '.repeat(depth)}${ordered ? '#' : '-'} ${runs(words)}`,
    ...(list ? itemLines(list.items, list.ordered, depth + 1) : []),
  ])
}
function textLines(text: RichText): string[] {
  return text.flatMap((block) =>
    block.type === 'paragraph' ? [runs(block.runs)] : itemLines(block.items, block.ordered),
  )
}
function outline(fragments: readonly Fragment[]): Outline {
  return fragments.flatMap(({ rootId, nodes }) => {
    const { kind, content } = nodes[rootId]!
    if (kind === 'heading') return [`heading ${content.level as number}: ${content.text as string}`]
    if (kind === 'table') {
      const rows = (content.rows as string[][]).map((row) => `row: ${row.join(' | ')}`)
      return [...(content.caption ? [`caption: ${content.caption as string}`] : []), ...rows]
    }
    const lines = textLines(content.words as unknown as RichText)
    return kind === 'quote' ? lines.map((line) => `quote: ${line}`) : lines
  })
}

/** Pastes what a clipboard holds, as the editor does. */
function paste(kept: Readonly<Record<string, string>>) {
  const data = {
    getData: (type: string) => kept[type] ?? '',
    files: [] as unknown,
  } as unknown as DataTransfer
  const pasted = readPasted(data)
  const html =
    pasted.type === 'html'
      ? pasted.html
      : pasted.type === 'text'
        ? markdownToHtml(pasted.text)!
        : `<p>not words: ${pasted.type}</p>`
  let count = 0
  return blocksFromHtml(html, defaultRegistry, () => `n${count++}`)
}

describe('a whole document', () => {
  test('is one to judge by: headings, marks, links, nested lists, a quote and a table', () => {
    expect(SOURCE).toHaveLength(19)
    expect(SOURCE).toContain('  - with red light')
  })
  test.each([
    ['LibreOffice Writer’s clipboard', { 'text/html': fixture('writer.html'), 'text/plain': 'Open nights' }],
    ['pandoc’s HTML', { 'text/html': fixture('pandoc.html'), 'text/plain': 'Open nights' }],
    ['pandoc’s Markdown', { 'text/plain': fixture('pandoc.md') }],
    ['the Markdown as it was written', { 'text/plain': fixture('source.md') }],
  ])('%s gives what the document says, part by part', (_program, kept) => {
    expect(outline(paste(kept).fragments)).toEqual(SOURCE)
  })
})

describe('cells of LibreOffice Calc', () => {
  const CELLS = [
    ['Instrument', 'Mirror', '', 'Nights'],
    ['', 'in mm', 'in inches', ''],
    ['Great reflector', '406', '16.0', '112'],
    ['Hut telescope', '200', '7.9', '57'],
    ['Binoculars (three pairs)', 'none', 'none', '31'],
  ]
  test.each([
    [
      'as HTML, with the text beside it',
      { 'text/html': fixture('calc.html'), 'text/plain': fixture('calc.txt') },
    ],
    ['as text alone', { 'text/plain': fixture('calc.txt') }],
  ])('%s are the cells of the sheet, each where it stands', (_what, kept) => {
    const { fragments } = paste(kept)
    expect(fragments.map(({ rootId, nodes }) => nodes[rootId]!.content.rows)).toEqual([CELLS])
  })
})

describe('a page copied in Chromium', () => {
  const { fragments, leftOut } = paste({
    'text/html': fixture('chromium.html'),
    'text/plain': fixture('chromium.txt'),
  })

  test('gives its headings, words, lists and cells in their order, and nothing that was hidden', () => {
    expect(outline(fragments)).toEqual([
      'heading 2: The great reflector',
      'Built by <bold|many hands>, kept by <italic|few>; see <https://pages.example/instruments/|all instruments>.',
      'The mirror in its cell',
      'heading 2: How to use it',
      '# Open the dome',
      '  - by hand',
      '  - or by the crank',
      '    # slowly',
      '# Uncover the mirror',
      'A box in a box, with a second line.',
      'caption: Its parts',
      'row: Part | Size | ',
      'row: Mirror | 406 mm | 16 in',
      'row: Tube | 1.9 m | long',
      'row:  | 0.5 m | wide',
      'quote: It shows more than I can name.',
    ])
  })
  test('and says that its picture did not come along', () => expect(leftOut).toBe(1))
})

describe('lists that are split or stand in no item', () => {
  const html = (text: string) =>
    outline(blocksFromHtml(text, defaultRegistry, () => `n${(ids += 1)}`).fragments)
  let ids = 0

  test.each([
    [
      'three levels, each in a list of its own, as Writer writes them',
      '<ul><li>a</ul><ul><ul><li>b</ul></ul><ul><ul><ul><li>c</ul></ul></ul><ul><ul><li>d</ul></ul><ul><li>e</ul>',
      ['- a', '  - b', '    - c', '  - d', '- e'],
    ],
    [
      'a list between items, as old HTML has it',
      '<ol><li>a</li><ul><li>b</li></ul><li>c</li></ol>',
      ['# a', '  - b', '# c'],
    ],
    [
      'a list that begins deeper than the first level',
      '<ul><ul><li>a</li></ul><li>b</li></ul>',
      ['- a', '- b'],
    ],
    ['two lists beside each other stay two', '<ul><li>a</li></ul><ol><li>b</li></ol>', ['- a', '# b']],
    [
      'words between them keep them apart',
      '<ul><li>a</li></ul>x<ul><ul><li>b</li></ul></ul>',
      ['- a', 'x', '- b'],
    ],
  ])('%s', (_what, text, lines) => expect(html(text)).toEqual(lines))
})
