/**
 * What other programs copy, as blocks: headings, tables and quotes each become their own, and the words between them
 * texts. Meaning is kept and style is dropped; whatever could run was never more than text here, since the page is parsed
 * apart from any window.
 */
import { getSchema } from '@tiptap/core'
import { DOMParser as DocumentParser } from '@tiptap/pm/model'
import {
  getKind,
  lineRuns,
  lineWords,
  newNode,
  toLine,
  trimLine,
  type Fragment,
  type Json,
  type JsonObject,
  type Line,
  type NodeId,
  type Registry,
  type RichText,
} from '@gullyline/core'
import { fromEditorDoc } from './rich-text-doc.ts'
import { RICH } from './text-editor.ts'
import { mendLists } from './pasted-lists.ts'

const schema = getSchema(RICH)

/** Has nothing to read, or only what can't be taken from elsewhere, as pictures. */
const LEFT_OUT =
  'script, style, template, head, title, meta, link, noscript, iframe, object, embed, svg, img, video, audio, input, select, textarea, button'
/** Breaks the words around it, wherever it stands. */
const BREAKS = 'h1, h2, h3, h4, h5, h6, table, blockquote, hr'
/** Stands below what is before it. */
const BLOCKS = `${BREAKS}, p, ul, ol, dl, pre, div, section, article, main, header, footer, aside, figure, address`
/** The most that a table and a line of ours hold. */
const MOST_ROWS = 200
const MOST_COLUMNS = 12
const MOST_LINE = 500

export interface PastedBlocks {
  readonly fragments: readonly Fragment[]
  /** How many pictures could not be taken along. */
  readonly leftOut: number
}

/** The blocks that a piece of HTML stands for, in its order. None when it has no words. */
export function blocksFromHtml(html: string, registry: Registry, newId: () => NodeId): PastedBlocks {
  const { body } = new DOMParser().parseFromString(html, 'text/html')
  const leftOut = [...body.querySelectorAll('img')].filter(isContent).length
  mendLists(body)
  for (const element of body.querySelectorAll(LEFT_OUT)) element.remove()
  const found: Fragment[] = []
  const words = document.implementation.createHTMLDocument('').body
  const add = (kind: string, content: JsonObject): void => {
    const id = newId()
    found.push({ rootId: id, nodes: { [id]: newNode(getKind(registry, kind), { content }) } })
  }
  const flush = (): void => {
    const text = richText(words)
    if (words.textContent.trim() !== '') add('text', { words: text })
    words.replaceChildren()
  }
  const addTable = (rows: string[][], heads: Heads, caption: string): void => {
    for (let at = 0; at < rows.length; at += MOST_ROWS) {
      // Only the first of several has the row of headings.
      const own = at === 0 ? heads : heads === 'both' || heads === 'column' ? 'column' : 'none'
      const content = { rows: rows.slice(at, at + MOST_ROWS), heads: own }
      add('table', at === 0 && caption !== '' ? { ...content, caption } : content)
    }
  }
  const visit = (node: Node): void => {
    if (node.nodeType !== Node.ELEMENT_NODE) {
      if (node.nodeType === Node.TEXT_NODE) words.append(node.cloneNode())
      return
    }
    const element = node as Element
    if (element.matches('h1, h2, h3, h4, h5, h6')) {
      flush()
      const text = headingLine(element)
      // A page has one heading of the first level, and that is its title.
      const level = Math.max(2, Number(element.tagName[1]))
      // What is too long for a heading is words: nothing of it is dropped.
      if (lineWords(text).length > MOST_LINE) words.append(asParagraph(element, words))
      else if (text !== '') add('heading', { text: text as unknown as Json, level })
    } else if (element.matches('hr')) flush()
    else if (element.matches('table')) {
      flush()
      const rows = rowsOf(element)
      // A table of one cell only ever arranged something; one that is too wide for ours becomes the words in it.
      const caption = element.querySelector(':scope > caption')
      if (isTable(rows)) addTable(rows, headsOf(element), caption ? oneLine(caption) : '')
      else for (const cell of element.querySelectorAll('caption, td, th')) cell.childNodes.forEach(visit)
    } else if (element.matches('blockquote')) {
      flush()
      if (element.textContent.trim() !== '') add('quote', { words: richText(element) })
    } else if (element.matches('p, ul, ol, pre')) words.append(element.cloneNode(true))
    else if (element.querySelector(BLOCKS)) element.childNodes.forEach(visit)
    else if (element.matches(BLOCKS)) words.append(asParagraph(element, words))
    else words.append(element.cloneNode(true))
  }
  body.childNodes.forEach(visit)
  flush()
  return { fragments: found, leftOut }
}

/** Not a picture that only counts visits or draws a line: those have no size to speak of. */
function isContent(img: HTMLImageElement): boolean {
  const [width, height] = [
    Number(img.getAttribute('width') ?? 100),
    Number(img.getAttribute('height') ?? 100),
  ]
  return width > 2 && height > 2
}

function richText(element: Element): Json {
  const doc = DocumentParser.fromSchema(schema).parse(element)
  return fromEditorDoc(doc.toJSON() as Parameters<typeof fromEditorDoc>[0]) as unknown as Json
}

/** The words of a heading with their marks and links. Bold from end to end is what headings are by themselves. */
function headingLine(element: Element): Line {
  const copy = element.cloneNode(true) as Element
  for (const line of copy.querySelectorAll('br')) line.replaceWith(' ')
  const runs = (richText(copy) as unknown as RichText).flatMap((block) =>
    block.type === 'paragraph' ? [...block.runs, { text: ' ' }] : [],
  )
  const words = lineRuns(trimLine(toLine(runs)))
  const isAllBold = words.every(({ marks }) => marks?.includes('bold'))
  if (!isAllBold) return toLine(words)
  return toLine(words.map((run) => ({ ...run, marks: run.marks!.filter((mark) => mark !== 'bold') })))
}

function asParagraph(element: Element, { ownerDocument }: Element): Element {
  const line = ownerDocument.createElement('p')
  line.append(...[...element.childNodes].map((one) => one.cloneNode(true)))
  return line
}

/** The text of an element on one line: what stood on lines of its own has a space around it. */
function oneLine(element: Element): string {
  const copy = element.cloneNode(true) as Element
  for (const line of copy.querySelectorAll('br')) line.replaceWith(' ')
  for (const line of copy.querySelectorAll('p, div, li')) line.append(' ')
  return copy.textContent.replace(/\s+/g, ' ').trim()
}

function isTable(rows: readonly (readonly string[])[]): boolean {
  const width = rows[0]?.length ?? 0
  const fits = width <= MOST_COLUMNS && rows.every((row) => row.every((cell) => cell.length <= MOST_LINE))
  return fits && width * rows.length > 1
}

/** The cells of a table. A cell that spans several stands in the first of them, so that no other is shifted. */
function rowsOf(table: Element): string[][] {
  const grid: string[][] = []
  const lines = [...table.querySelectorAll('tr')].filter((line) => line.closest('table') === table)
  lines.forEach((line, y) => {
    const row = (grid[y] ??= [])
    let x = 0
    for (const cell of line.querySelectorAll<HTMLTableCellElement>(':scope > td, :scope > th')) {
      while (row[x] !== undefined) x++
      const [across, down] = [spanOf(cell, 'colspan'), spanOf(cell, 'rowspan')]
      for (let dy = 0; dy < Math.min(down, lines.length - y); dy++)
        for (let dx = 0; dx < across; dx++) (grid[y + dy] ??= [])[x + dx] = dy + dx === 0 ? oneLine(cell) : ''
      x += across
    }
  })
  const rows = grid.filter((row) => row.length > 0)
  const width = Math.max(0, ...rows.map((row) => row.length))
  return rows.map((row) => Array.from({ length: width }, (_unused, x) => row[x] ?? ''))
}

/** How many columns or rows a cell takes; a span that would make a table of its own is none. */
function spanOf(cell: Element, name: 'colspan' | 'rowspan'): number {
  const span = Number(cell.getAttribute(name) ?? 1)
  return Number.isInteger(span) && span >= 1 && span <= MOST_ROWS ? span : 1
}

type Heads = 'row' | 'column' | 'both' | 'none'

function headsOf(table: Element): Heads {
  const rows = [...table.querySelectorAll('tr')]
  const isHead = (cell: Element | null | undefined): boolean => cell?.tagName === 'TH'
  const row = [...(rows[0]?.children ?? [])].every(isHead)
  const column = rows.slice(1).length > 0 && rows.slice(1).every((one) => isHead(one.firstElementChild))
  return row ? (column ? 'both' : 'row') : column ? 'column' : 'none'
}
