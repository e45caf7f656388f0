/**
 * A foreign page as blocks, by the meaning of its elements (HTML standard, "The elements of HTML"): headings, lists, tables,
 * figures, quotations and details become blocks of ours. What has no meaning here is gone through for what is in it; what
 * can't be taken over is listed, and its words are kept.
 */
import type { Element, ElementContent, Nodes as HastNode, Root, Text } from 'hast'
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import { hrefFault, safeHref } from '../kit/allow-list.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { lineWords, toLine, trimLine } from '../page/line.ts'
import { PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../page/page.ts'
import {
  normalizeRichText,
  paragraphs,
  type List,
  type ListItem,
  type Mark,
  type RichText,
  type Run,
  type TextBlock,
} from '../page/rich-text.ts'

/** Something of the page that did not become what it was. */
export interface NotUnderstood {
  /** What it was, in words. */
  readonly what: string
  /** How often. */
  readonly count: number
  /** What became of it, in words. */
  readonly kept: string
}

export interface ReadPage {
  readonly page: Page
  /** What the document calls itself; empty where it does not. */
  readonly title: string
  readonly description: string
  readonly notUnderstood: readonly NotUnderstood[]
}

/** Most that a line, and a table of ours hold; see the kinds' schemas. */
const MOST_LINE = 500
const MOST_ROWS = 200
const MOST_COLUMNS = 12
/** Deeper than any page that somebody wrote. */
const MOST_DEPTH = 200

const MARKS_OF: Readonly<Record<string, Mark>> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  cite: 'italic',
  dfn: 'italic',
  var: 'italic',
  s: 'strike',
  del: 'strike',
  strike: 'strike',
  sub: 'subscript',
  sup: 'superscript',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
}
/** Says nothing to read, and is left out without a word. */
const SILENT = new Set([
  'head',
  'title',
  'meta',
  'link',
  'base',
  'template',
  'wbr',
  'source',
  'track',
  'param',
  'area',
  'col',
  'colgroup',
])
/** Can't be taken over; nothing of it is text. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  script: 'A script',
  style: 'A style sheet in the page',
  noscript: 'What is shown without scripts',
  iframe: 'A page in the page',
  object: 'An embedded object',
  embed: 'An embedded object',
  canvas: 'A canvas',
  svg: 'A drawing',
  math: 'A formula',
  video: 'A video',
  audio: 'A sound',
  map: 'A picture map',
  dialog: 'A dialog',
  frameset: 'A frame set',
}
/** Its words are kept, and what could be done with it is not. */
const INERT: Readonly<Record<string, string>> = {
  form: 'A form',
  input: 'A form field',
  select: 'A form field',
  textarea: 'A form field',
  button: 'A button',
  progress: 'A progress bar',
  meter: 'A meter',
}
/** Elements that words stand in by themselves (HTML standard, "Phrasing content"). */
const PHRASING = new Set([
  ...Object.keys(MARKS_OF),
  ...'a abbr bdi bdo br data font ins label mark q ruby rt rp rb small span time u big center blink nobr wbr acronym'.split(
    ' ',
  ),
])
/** Begins a section of ours. */
const SECTIONING = new Set(['section', 'article', 'hr'])

/** The page that a document stands for. `hast` is what an HTML parser gives; see `read-file.ts`. */
export function readHtml(hast: Root, registry: Registry, newId: NewId): ReadPage {
  return new Reader(registry, newId).read(hast)
}

/** Blocks side by side. That of the page begins a new list with each section. */
interface Flow {
  list: NodeId[]
}

class Reader {
  readonly #registry: Registry
  readonly #newId: NewId
  readonly #nodes: Record<NodeId, PageNode> = {}
  readonly #missed: Map<string, { count: number; kept: string }>
  readonly #page: Flow = { list: [] }
  readonly #sections: NodeId[][] = [this.#page.list]
  #words: TextBlock[] = []
  #runs: Run[] = []

  constructor(registry: Registry, newId: NewId, missed = new Map<string, { count: number; kept: string }>()) {
    this.#registry = registry
    this.#newId = newId
    this.#missed = missed
  }

  read(root: Root): ReadPage {
    this.#children(root.children, this.#page, 0)
    this.#endText(this.#page)
    const sections = this.#sections.filter((blocks) => blocks.length > 0)
    const ids = sections.map((blocks) => this.#add('section', {}, { blocks }))
    const own = this.#newId()
    this.#nodes[own] = newNode(getKind(this.#registry, 'page'), {
      slots: { ...emptySlots(getKind(this.#registry, 'page').slots), sections: ids },
    })
    return {
      page: { format: PAGE_FORMAT, root: own, nodes: this.#nodes },
      title: oneLine(textOf(find(root, 'title'))) || this.#firstHeading(ids),
      description: metaContent(root, 'description'),
      notUnderstood: [...this.#missed].map(([what, { count, kept }]) => ({ what, count, kept })),
    }
  }

  #firstHeading(sections: readonly NodeId[]): string {
    for (const section of sections)
      for (const id of this.#nodes[section]!.slots.blocks!) {
        const { kind, content } = this.#nodes[id]!
        if (kind === 'heading') return lineWords(content.text as never)
      }
    return ''
  }

  #add(kind: string, content: JsonObject, slots: PageNode['slots'] = {}): NodeId {
    const id = this.#newId()
    this.#nodes[id] = newNode(getKind(this.#registry, kind), { content, slots })
    return id
  }

  /** Adds a block whose content its kind can have; false for one that it can't. */
  #block(into: Flow, kind: string, content: JsonObject): boolean {
    const complete = newNode(getKind(this.#registry, kind), { content }).content
    if (this.#registry.check(kind, 'content', complete).length > 0) return false
    this.#endText(into)
    into.list.push(this.#add(kind, content))
    return true
  }

  #miss(what: string, kept: string): void {
    const known = this.#missed.get(what)
    this.#missed.set(what, { count: (known?.count ?? 0) + 1, kept })
  }

  /** Ends the paragraph that is being read. */
  #endParagraph(): void {
    const runs = tidyRuns(this.#runs)
    this.#runs = []
    if (runs.length > 0) this.#words.push({ type: 'paragraph', runs })
  }

  /** Ends the text that is being read: what comes next is another block. */
  #endText(into: Flow): void {
    this.#endParagraph()
    const words = normalizeRichText(this.#words)
    this.#words = []
    if (words.length > 0) into.list.push(this.#add('text', { words: words as unknown as Json }))
  }

  #children(nodes: readonly HastNode[], into: Flow, depth: number): void {
    for (const node of nodes) this.#visit(node, into, depth)
  }

  #visit(node: HastNode, into: Flow, depth: number): void {
    if (node.type === 'text') this.#runs.push({ text: node.value })
    if (node.type === 'raw') {
      this.#miss('HTML inside of Markdown', 'kept as text')
      this.#runs.push({ text: node.value })
    }
    if (node.type !== 'element') return
    const { tagName: tag, children } = node
    if (SILENT.has(tag)) return
    if (depth > MOST_DEPTH) {
      this.#miss('What is nested too deeply', 'kept as text')
      this.#runs.push({ text: textOf(node) })
      return
    }
    const left = LEFT_OUT[tag]
    if (left !== undefined) return this.#miss(left, 'left out')
    const inert = INERT[tag]
    if (inert !== undefined) this.#miss(inert, 'only its text was kept')
    const level = /^h([1-6])$/.exec(tag)?.[1]
    if (level !== undefined) return this.#heading(node, Number(level), into)
    const read = READERS[tag]
    if (read) return read(this, node, into, depth)
    if (SECTIONING.has(tag)) return this.#section(node, into, depth)
    if (PHRASING.has(tag)) return this.#phrasing(node, into, depth)
    if (tag.includes('-')) this.#miss(`An element of its own, <${tag}>`, 'what is in it was kept')
    // A container: what is in it stands by itself.
    this.#endParagraph()
    this.#children(children, into, depth + 1)
    this.#endParagraph()
  }

  #section({ children }: Element, into: Flow, depth: number): void {
    // Inside of something else, such as an item, it is no section of the page.
    if (into === this.#page) this.#nextSection()
    this.#children(children, into, depth + 1)
    if (into === this.#page) this.#nextSection()
  }

  #nextSection(): void {
    this.#endText(this.#page)
    if (this.#page.list.length === 0) return
    this.#page.list = []
    this.#sections.push(this.#page.list)
  }

  #heading(node: Element, level: number, into: Flow): void {
    this.#endText(into)
    if (into === this.#page && level <= 2 && !this.#hasOnlyTitle()) this.#nextSection()
    const pictures = findAll(node, 'img')
    const text = trimLine(toLine(withoutBold(tidyRuns(this.#inline(node.children)))))
    if (lineWords(text).length > MOST_LINE) {
      this.#miss('A heading of more than 500 characters', 'kept as text')
      this.#runs.push(...this.#inline(node.children))
      this.#endParagraph()
    } else if (lineWords(text).trim() !== '') this.#block(into, 'heading', { text: text as Json, level })
    for (const picture of pictures) this.picture(picture, into, '')
  }

  /** A title of the page and what belongs to it stay in one section with what comes. */
  #hasOnlyTitle(): boolean {
    return this.#page.list.every(
      (id) => this.#nodes[id]!.kind === 'heading' && this.#nodes[id]!.content.level === 1,
    )
  }

  /** Words among other words; a picture or a block in them stands by itself. */
  #phrasing(node: Element, into: Flow, depth: number): void {
    if (node.children.some((child) => child.type === 'element' && !isPhrasing(child))) {
      if (node.tagName === 'a' && href(node) !== undefined)
        this.#miss('A link around whole blocks', 'kept on no block; its address was left out')
      return this.#children(node.children, into, depth + 1)
    }
    this.#runs.push(...this.#inline([node]))
  }

  /** The runs of phrasing content. */
  #inline(
    nodes: readonly ElementContent[] | Root['children'],
    marks: readonly Mark[] = [],
    link?: Run['link'],
  ): Run[] {
    return nodes.flatMap((node): Run[] => {
      if (node.type === 'text') return [run(node.value, marks, link)]
      if (node.type === 'raw') {
        this.#miss('HTML inside of Markdown', 'kept as text')
        return [run(node.value, marks, link)]
      }
      if (node.type !== 'element' || SILENT.has(node.tagName)) return []
      const { tagName: tag, children } = node
      if (tag === 'br') return [run('\n', marks, link)]
      if (tag === 'img') return []
      if (LEFT_OUT[tag] !== undefined) {
        this.#miss(LEFT_OUT[tag], 'left out')
        return []
      }
      const box = tag === 'input' ? checkbox(node) : []
      if (box.length > 0) return box
      if (INERT[tag] !== undefined) this.#miss(INERT[tag], 'only its text was kept')
      if (tag === 'q')
        return [run('“', marks, link), ...this.#inline(children, marks, link), run('”', marks, link)]
      const mark = MARKS_OF[tag]
      const next = mark === undefined || marks.includes(mark) ? marks : [...marks, mark]
      const own = tag === 'a' ? this.#linkOf(node) : undefined
      return this.#inline(children, next, own ?? link)
    })
  }

  #linkOf(node: Element): Run['link'] | undefined {
    const address = href(node)
    if (address === undefined) return undefined
    const safe = safeHref(address)
    const fault = safe === undefined ? 'not-allowed' : hrefFault(safe)
    if (fault === undefined) return { href: safe! }
    this.#miss(
      fault === 'not-allowed'
        ? 'A link that could run something'
        : 'A link that says only a part of its address',
      'its text was kept',
    )
    return undefined
  }

  // What elements become that are blocks of ours.

  paragraph({ children }: Element, into: Flow, depth: number): void {
    this.#endParagraph()
    this.#children(children, into, depth + 1)
    this.#endParagraph()
  }

  list(node: Element, into: Flow): void {
    this.#endParagraph()
    const list = this.#listOf(node)
    if (list.items.length > 0) this.#words.push(list)
    for (const picture of findAll(node, 'img')) this.picture(picture, into, '')
  }

  #listOf(node: Element): List {
    const items: ListItem[] = []
    for (const child of node.children) {
      // Browsers show what stands in a list without an item around it, too.
      const inside = child.type === 'element' && child.tagName === 'li' ? child.children : [child]
      const inner = inside.find(isList)
      const own = inside.filter((one) => one !== inner)
      const runs = tidyRuns(this.#inline(withBreaks(own)))
      const list = inner && this.#listOf(inner)
      const hasList = list !== undefined && list.items.length > 0
      if (runs.length > 0 || hasList) items.push({ runs, ...(hasList ? { list } : {}) })
    }
    return { type: 'list', ordered: node.tagName === 'ol', items }
  }

  /** Terms and what is said of them: each pair is a paragraph that begins with the term. */
  descriptions({ children }: Element): void {
    this.#endParagraph()
    for (const child of flattened(children)) {
      if (child.type === 'text') this.#runs.push({ text: child.value })
      else if (child.tagName === 'dt') {
        this.#endParagraph()
        this.#runs.push(...this.#inline(child.children, ['bold']), { text: ': ' })
      } else this.#runs.push(...this.#inline(withBreaks(child.children)), { text: ' ' })
    }
    this.#endParagraph()
  }

  preformatted(node: Element): void {
    this.#endParagraph()
    const text = textOf(node).replace(/\n+$/, '')
    if (text.trim() !== '') this.#words.push({ type: 'paragraph', runs: [{ text, marks: ['code'] }] })
  }

  quote(node: Element, into: Flow): void {
    // Its blocks are gone once their words are taken.
    const inner = new Reader(this.#registry, this.#newId, this.#missed)
    const from = findAll(node, 'footer')[0] ?? findAll(node, 'cite')[0]
    const said = from
      ? { ...node, children: node.children.filter((one) => one !== from && !holds(one, from)) }
      : node
    const words = inner.#textIn(said)
    const who = from
      ? oneLine(textOf(from))
          .replace(/^[—–-]\s*/, '')
          .slice(0, MOST_LINE)
      : ''
    if (words.length > 0)
      this.#block(into, 'quote', { words: words as unknown as Json, ...(who === '' ? {} : { who }) })
  }

  /** All words in an element, as one text. */
  #textIn(node: Element): RichText {
    const into: Flow = { list: [] }
    this.#children(node.children, into, 0)
    this.#endText(into)
    return into.list.flatMap((id) => this.#saidBy(id))
  }

  #saidBy(id: NodeId): RichText {
    const { kind, content, slots } = this.#nodes[id]!
    if (kind === 'text' || kind === 'quote') return content.words as unknown as RichText
    const own = getKind(this.#registry, kind).words(content)
    const inside = Object.values(slots).flat()
    return [...paragraphs(...own), ...inside.flatMap((child) => this.#saidBy(child))]
  }

  figure(node: Element, into: Flow, depth: number): void {
    const caption = node.children.find((child) => child.type === 'element' && child.tagName === 'figcaption')
    const rest = node.children.filter((child) => child !== caption)
    const words = caption ? oneLine(textOf(caption)).slice(0, MOST_LINE) : ''
    const pictures = findAll(node, 'img')
    const hasWords = rest.some((child) => textOf(child).trim() !== '')
    if (pictures.length === 1 && !hasWords) return this.picture(pictures[0]!, into, words)
    this.#endParagraph()
    this.#children(rest, into, depth + 1)
    if (words !== '') this.#runs.push({ text: words })
    this.#endParagraph()
  }

  picture(node: Element, into: Flow, caption: string): void {
    const alt = oneLine(String(node.properties.alt ?? '')).slice(0, MOST_LINE)
    const [width, height] = [Number(node.properties.width ?? 100), Number(node.properties.height ?? 100)]
    // It only counts visits, or draws a line.
    if (width <= 2 || height <= 2) return
    const src = String(node.properties.src ?? '')
    const file = /([^/?#]+)(?:[?#].*)?$/.exec(src)?.[1] ?? 'without an address'
    this.#miss(
      `The picture “${src.startsWith('data:') ? 'inside of the file' : file}”`,
      'its place, text and caption were kept: add the file',
    )
    this.#block(into, 'picture', { ...(alt === '' ? {} : { alt }), ...(caption === '' ? {} : { caption }) })
  }

  table(node: Element, into: Flow, depth: number): void {
    const { rows, heads, caption, isCut } = readTable(node)
    const width = rows[0]?.length ?? 0
    const fits = width <= MOST_COLUMNS && rows.every((row) => row.every((cell) => cell.length <= MOST_LINE))
    if (!fits || width * rows.length < 2) {
      if (!fits) this.#miss('A table with more than 12 columns or long cells', 'its cells were kept as text')
      this.#endParagraph()
      for (const cell of findAll(node, 'caption', 'th', 'td')) this.paragraph(cell, into, depth)
      return
    }
    if (isCut) this.#miss('Cells that span several', 'stand in the first of them')
    for (let at = 0; at < rows.length; at += MOST_ROWS)
      this.#block(into, 'table', {
        rows: rows.slice(at, at + MOST_ROWS),
        heads: at === 0 ? heads : heads === 'both' || heads === 'column' ? 'column' : 'none',
        ...(at === 0 && caption !== '' ? { caption } : {}),
      })
  }

  /** Details that follow each other are one accordion. */
  details(node: Element, into: Flow, depth: number): void {
    const summary = node.children.find((child) => child.type === 'element' && child.tagName === 'summary')
    const label = summary ? oneLine(textOf(summary)).slice(0, MOST_LINE) : 'Details'
    const blocks: Flow = { list: [] }
    const isAfterText = this.#runs.some(({ text }) => text.trim() !== '') || this.#words.length > 0
    this.#endText(into)
    this.#children(
      node.children.filter((child) => child !== summary),
      blocks,
      depth + 1,
    )
    this.#endText(blocks)
    const panel = this.#add('panel', { label }, { blocks: blocks.list })
    const last = into.list.at(-1)
    const before = last === undefined ? undefined : this.#nodes[last]
    if (before?.kind === 'panels' && !isAfterText)
      this.#nodes[last!] = { ...before, slots: { panels: [...before.slots.panels!, panel] } }
    else into.list.push(this.#add('panels', {}, { panels: [panel] }))
  }
}

type Read = (reader: Reader, node: Element, into: Flow, depth: number) => void

const READERS: Readonly<Record<string, Read>> = {
  p: (reader, node, into, depth) => reader.paragraph(node, into, depth),
  ul: (reader, node, into) => reader.list(node, into),
  ol: (reader, node, into) => reader.list(node, into),
  menu: (reader, node, into) => reader.list(node, into),
  dl: (reader, node) => reader.descriptions(node),
  pre: (reader, node) => reader.preformatted(node),
  blockquote: (reader, node, into) => reader.quote(node, into),
  figure: (reader, node, into, depth) => reader.figure(node, into, depth),
  img: (reader, node, into) => reader.picture(node, into, ''),
  table: (reader, node, into, depth) => reader.table(node, into, depth),
  details: (reader, node, into, depth) => reader.details(node, into, depth),
}

function emptySlots(slots: Readonly<Record<string, unknown>>): Record<string, readonly NodeId[]> {
  return Object.fromEntries(Object.keys(slots).map((slot) => [slot, []]))
}

function run(text: string, marks: readonly Mark[], link: Run['link'] | undefined): Run {
  return { text, ...(marks.length > 0 ? { marks } : {}), ...(link ? { link } : {}) }
}

/** Runs with the white space that a browser shows (CSS Text 3, "White Space Processing"): none around them or a break. */
function tidyRuns(runs: readonly Run[]): Run[] {
  let isAfterSpace = true
  const tidy = runs.map((one) => {
    const text = [...one.text.replace(/[ \t\r\f\u200b]+/g, ' ')].filter((sign) => {
      const isSpace = sign === ' ' || (sign === '\n' && one.text !== '\n')
      const isKept = !isSpace || !isAfterSpace
      isAfterSpace = isSpace || sign === '\n'
      return isKept
    })
    return { ...one, text: text.join('').replace(one.text === '\n' ? /$^/ : /\n/g, ' ') }
  })
  const last = tidy.findLastIndex(({ text }) => text.trim() !== '')
  return tidy
    .slice(0, last + 1)
    .map((one, i) => ({ ...one, text: i === last ? one.text.trimEnd() : one.text }))
    .filter(({ text }) => text !== '')
}

/** Bold from end to end is what headings are by themselves. */
function withoutBold(runs: readonly Run[]): readonly Run[] {
  if (!runs.every(({ marks }) => marks?.includes('bold'))) return runs
  return runs.map(({ marks, ...rest }) => {
    const others = marks!.filter((mark) => mark !== 'bold')
    return others.length > 0 ? { ...rest, marks: others } : rest
  })
}

/** A task of a list (GitHub Flavored Markdown 0.29, 5.3). */
function checkbox({ properties }: Element): Run[] {
  if (properties.type !== 'checkbox') return []
  return [{ text: properties.checked === true ? '☑' : '☐' }]
}

function isPhrasing(node: Element): boolean {
  if (node.tagName === 'img') return false
  return (
    PHRASING.has(node.tagName) &&
    node.children.every((child) => child.type !== 'element' || isPhrasing(child))
  )
}

function isList(node: ElementContent): node is Element {
  return node.type === 'element' && (node.tagName === 'ul' || node.tagName === 'ol')
}

/** The content of something where paragraphs are lines: with a break between two. */
function withBreaks(nodes: readonly ElementContent[]): ElementContent[] {
  const isBlock = (node: ElementContent): boolean => node.type === 'element' && !isPhrasing(node)
  let count = 0
  return nodes.flatMap((node): ElementContent[] => {
    if (!isBlock(node) || count++ === 0) return [node]
    return [{ type: 'element', tagName: 'br', properties: {}, children: [] }, node]
  })
}

/** Terms and descriptions, also where they stand in groups. */
function flattened(nodes: readonly ElementContent[]): readonly (Element | Text)[] {
  return nodes.flatMap((node) => {
    if (node.type === 'element') return node.tagName === 'div' ? flattened(node.children) : [node]
    return node.type === 'text' ? [node] : []
  })
}

function href({ properties }: Element): string | undefined {
  return typeof properties.href === 'string' ? properties.href : undefined
}

function textOf(node: HastNode | undefined): string {
  if (!node) return ''
  if (node.type === 'text') return node.value
  if (node.type === 'element' && node.tagName === 'br') return '\n'
  return 'children' in node ? node.children.map((child) => textOf(child)).join('') : ''
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim()
}

function find(node: HastNode, tag: string): Element | undefined {
  return findAll(node, tag)[0]
}

/** The elements inside of a node that have one of these names, in document order. */
function findAll(node: HastNode, ...tags: readonly string[]): readonly Element[] {
  const children = 'children' in node ? node.children : []
  return children.flatMap((child): readonly Element[] => {
    if (child.type !== 'element') return []
    return [...(tags.includes(child.tagName) ? [child] : []), ...findAll(child, ...tags)]
  })
}

function holds(node: ElementContent, other: Element): boolean {
  return node.type === 'element' && node.children.some((child) => child === other || holds(child, other))
}

function metaContent(root: Root, name: string): string {
  const meta = findAll(root, 'meta').find(({ properties }) => properties.name === name)
  return oneLine(String(meta?.properties.content ?? ''))
}

interface TableRead {
  readonly rows: readonly (readonly string[])[]
  readonly heads: 'row' | 'column' | 'both' | 'none'
  readonly caption: string
  readonly isCut: boolean
}

/** The cells of a table (HTML standard, "Forming a table"). A cell that spans several stands in the first of them. */
function readTable(table: Element): TableRead {
  const lines = findAll(table, 'tr').filter(
    (line) => !findAll(table, 'table').some((inner) => holds(inner, line)),
  )
  const grid: string[][] = []
  const isHead: boolean[][] = []
  let isCut = false
  lines.forEach((line, y) => {
    let x = 0
    for (const cell of line.children) {
      if (cell.type !== 'element' || (cell.tagName !== 'td' && cell.tagName !== 'th')) continue
      const row = (grid[y] ??= [])
      while (row[x] !== undefined) x++
      const [across, down] = [span(cell, 'colSpan'), span(cell, 'rowSpan')]
      isCut ||= across > 1 || down > 1
      for (let dy = 0; dy < Math.min(down, lines.length - y); dy++)
        for (let dx = 0; dx < across; dx++)
          (grid[y + dy] ??= [])[x + dx] = dx + dy === 0 ? oneLine(spaced(cell)) : ''
      ;(isHead[y] ??= [])[x] = cell.tagName === 'th'
      x += across
    }
  })
  const kept = grid.map((row, y) => ({ row, y })).filter(({ row }) => row.length > 0)
  const width = Math.max(0, ...kept.map(({ row }) => row.length))
  const rows = kept.map(({ row }) => Array.from({ length: width }, (_one, x) => row[x] ?? ''))
  const first = (isHead[0] ?? []).length > 0 && isHead[0]!.every(Boolean)
  const column = kept.length > 1 && kept.slice(1).every(({ y }) => isHead[y]?.[0] === true)
  const heads = first ? (column ? 'both' : 'row') : column ? 'column' : 'none'
  return { rows, heads, caption: oneLine(textOf(find(table, 'caption'))).slice(0, MOST_LINE), isCut }
}

/** The text of a cell, with a space between what stood on lines of its own. */
function spaced(node: HastNode): string {
  if (node.type === 'text') return node.value
  if (node.type !== 'element') return ''
  const inside = node.children.map(spaced).join('')
  return PHRASING.has(node.tagName) && node.tagName !== 'br' ? inside : ` ${inside} `
}

function span({ properties }: Element, name: 'colSpan' | 'rowSpan'): number {
  const given = Number(properties[name] ?? 1)
  return Number.isInteger(given) && given >= 1 && given <= MOST_ROWS ? given : 1
}
