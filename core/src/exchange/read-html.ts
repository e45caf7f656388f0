/**
 * A foreign page as blocks, by the meaning of its elements (HTML standard, "The elements of HTML"). Headings, lists, tables,
 * figures, quotations and details become blocks. Of other elements the content is read. Elements that can't become blocks are
 * listed, and their text is kept where they have any.
 */
import type { Element, ElementContent, Nodes as HastNode, Root } from 'hast'
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import { hrefFault, safeHref } from '../kit/allow-list.ts'
import { cutShort } from '../page/cut-short.ts'
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
import { find, findAll, flattened, holds, href, isList, metaContent, oneLine, textOf } from './hast-query.ts'
import { INERT, isPhrasing, LEFT_OUT, MARKS_OF, PHRASING, SECTIONING, SILENT } from './html-elements.ts'
import { checkbox, run, tidyRuns, withBreaks, withoutBold } from './read-runs.ts'
import { MOST_COLUMNS, MOST_LINE, MOST_ROWS, readTable } from './read-table.ts'

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

/** Deeper than any page that somebody wrote. */
const MOST_DEPTH = 200

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
    const who = from ? cutShort(oneLine(textOf(from)).replace(/^[—–-]\s*/, ''), MOST_LINE) : ''
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
    const words = caption ? cutShort(oneLine(textOf(caption)), MOST_LINE) : ''
    const pictures = findAll(node, 'img')
    const hasWords = rest.some((child) => textOf(child).trim() !== '')
    if (pictures.length === 1 && !hasWords) return this.picture(pictures[0]!, into, words)
    this.#endParagraph()
    this.#children(rest, into, depth + 1)
    if (words !== '') this.#runs.push({ text: words })
    this.#endParagraph()
  }

  picture(node: Element, into: Flow, caption: string): void {
    const alt = cutShort(oneLine(String(node.properties.alt ?? '')), MOST_LINE)
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
    const label = summary ? cutShort(oneLine(textOf(summary)), MOST_LINE) : 'Details'
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
