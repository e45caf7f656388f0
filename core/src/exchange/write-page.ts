/**
 * A page for other programs: as HTML with nothing in it but meaning, as Markdown, and as JSON without markup. HTML and Markdown
 * are written off what visitors get, so that they say the same.
 */
import type { Element, ElementContent, Root } from 'hast'
import rehypeParse from 'rehype-parse'
import rehypeRemark from 'rehype-remark'
import rehypeStringify from 'rehype-stringify'
import remarkGfm from 'remark-gfm'
import remarkStringify from 'remark-stringify'
import { unified } from 'unified'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { SiteContext } from '../kit/site-context.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { lineWords, type Line } from '../page/line.ts'
import { isFileLink, isPageLink, type Link } from '../page/link.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'
import { richTextWords, type RichText } from '../page/rich-text.ts'
import { expandParts } from '../resolve/expand.ts'
import { shownSlots } from '../resolve/shown.ts'
import { find } from './hast-query.ts'

export const WRITTEN_FORMATS = ['html', 'markdown', 'json'] as const
export type WrittenFormat = (typeof WRITTEN_FORMATS)[number]

/** What is said of a page where it is written. */
export interface WrittenFacts {
  readonly title: string
  readonly description: string
  readonly language: string
}

/** Elements that mean something by themselves, with the attributes that belong to their meaning. */
const MEANING: Readonly<Record<string, readonly string[]>> = {
  h1: ['id'],
  h2: ['id'],
  h3: ['id'],
  h4: ['id'],
  h5: ['id'],
  h6: ['id'],
  p: [],
  ul: [],
  ol: ['start'],
  li: [],
  blockquote: [],
  cite: [],
  figure: [],
  figcaption: [],
  img: ['src', 'alt', 'width', 'height'],
  table: [],
  caption: [],
  thead: [],
  tbody: [],
  tr: [],
  th: ['scope', 'colSpan', 'rowSpan'],
  td: ['colSpan', 'rowSpan'],
  a: ['href'],
  strong: [],
  em: [],
  s: [],
  del: [],
  sub: [],
  sup: [],
  code: [],
  br: [],
  hr: [],
  details: ['open'],
  summary: [],
  section: [],
  nav: [],
  time: ['dateTime'],
}
/** Shows something that has no words. */
const NO_WORDS = new Set(['svg', 'script', 'style', 'template', 'source'])

/** The content of a published page with nothing but its meaning. */
function meaningOf(html: string): Root {
  const root = unified().use(rehypeParse).parse(html)
  const main = find(root, 'main')
  return {
    type: 'root',
    children: (main ?? root).children.flatMap((child) => meaningful(child as ElementContent)),
  }
}

function meaningful(node: ElementContent): ElementContent[] {
  if (node.type === 'text') return [node]
  if (node.type !== 'element' || NO_WORDS.has(node.tagName)) return []
  const children = node.children.flatMap(meaningful)
  const kept = MEANING[node.tagName]
  if (!kept) return children
  const properties = Object.fromEntries(
    kept.flatMap((name) => (node.properties[name] === undefined ? [] : [[name, node.properties[name]]])),
  )
  return [{ type: 'element', tagName: node.tagName, properties, children }]
}

/** A published page as HTML without classes, styles and scripts. */
export function writeHtml(html: string, { title, description, language }: WrittenFacts): string {
  const { children } = meaningOf(html)
  const text = (value: string): ElementContent => ({ type: 'text', value })
  const el = (tagName: string, properties: Element['properties'], ...inside: ElementContent[]): Element => ({
    type: 'element',
    tagName,
    properties,
    children: inside,
  })
  const head = el(
    'head',
    {},
    el('meta', { charSet: 'utf-8' }),
    el('title', {}, text(title)),
    ...(description === '' ? [] : [el('meta', { name: 'description', content: description })]),
  )
  const page = el('html', { lang: language }, head, el('body', {}, ...(children as ElementContent[])))
  const root: Root = { type: 'root', children: [{ type: 'doctype' }, page] }
  return `${unified().use(rehypeStringify).stringify(root)}\n`
}

/** A published page as Markdown (CommonMark, with the tables and strikethrough of GitHub Flavored Markdown). */
export function writeMarkdown(html: string): string {
  const processor = unified().use(rehypeRemark).use(remarkGfm)
  const tree = processor.runSync(asMarkdownCan(meaningOf(html)))
  return unified().use(remarkGfm).use(remarkStringify, { bullet: '-', rule: '-' }).stringify(tree)
}

/** What Markdown has no form for in a form that it has: a summary is a paragraph in bold, a caption one before its table. */
function asMarkdownCan(root: Root): Root {
  const strong = (children: ElementContent[]): Element => ({
    type: 'element',
    tagName: 'p',
    properties: {},
    children: [{ type: 'element', tagName: 'strong', properties: {}, children }],
  })
  const convert = (node: ElementContent): ElementContent[] => {
    if (node.type !== 'element') return [node]
    const code = codeOf(node)
    if (code !== undefined) return [codeBlock(code)]
    const children = node.children.flatMap(convert)
    if (node.tagName === 'summary') return [strong(children)]
    if (['details', 'section', 'nav', 'figure'].includes(node.tagName)) return children
    if (node.tagName === 'figcaption') return [{ ...node, tagName: 'p', children }]
    if (node.tagName === 'table') {
      const caption = children.find(
        (one): one is Element => one.type === 'element' && one.tagName === 'caption',
      )
      const rest = { ...node, children: children.filter((one) => one !== caption) }
      return caption ? [{ ...caption, tagName: 'p' }, rest] : [rest]
    }
    return [{ ...node, children }]
  }
  return { ...root, children: root.children.flatMap((child) => convert(child as ElementContent)) }
}

/** The text of a paragraph that is code of several lines, and nothing else. */
function codeOf(node: Element): string | undefined {
  const [code, ...more] = node.children
  if (node.tagName !== 'p' || more.length > 0 || code?.type !== 'element' || code.tagName !== 'code')
    return undefined
  const lines = code.children.map((child) => (child.type === 'text' ? child.value : '\n'))
  return lines.includes('\n') ? lines.join('') : undefined
}

function codeBlock(value: string): Element {
  const code: Element = {
    type: 'element',
    tagName: 'code',
    properties: {},
    children: [{ type: 'text', value: `${value}\n` }],
  }
  return { type: 'element', tagName: 'pre', properties: {}, children: [code] }
}

/**
 * A page as JSON without markup: its blocks as they are shown, each with what it says as plain text, links as addresses and
 * pictures by name. Parts are given as what they show.
 */
export function writeJson(
  page: Page,
  facts: WrittenFacts,
  registry: Registry,
  context: SiteContext,
): JsonObject {
  const expanded = expandParts(page, registry, context.parts)
  const blockOf = (id: NodeId): JsonObject => {
    const node = getNode(expanded, id)
    const { content, slots } = getKind(registry, node.kind)
    const said = Object.entries(content.properties).flatMap(
      ([key, { hidden }]): (readonly [string, Json])[] => {
        const value = hidden ? undefined : node.content[key]
        return value === undefined ? [] : [[key, plain(value, context)]]
      },
    )
    const shown = id === page.root ? shownSlots(node, registry) : Object.keys(slots)
    const inside = shown.flatMap((slot) => node.slots[slot] ?? []).map(blockOf)
    return { kind: node.kind, ...Object.fromEntries(said), ...(inside.length > 0 ? { blocks: inside } : {}) }
  }
  const { blocks = [] } = blockOf(page.root)
  return { ...facts, blocks }
}

/** A value as plain text, an address, or a list of such. */
function plain(value: Json, context: SiteContext): Json {
  if (typeof value !== 'object' || value === null) return value
  if (isJsonList(value)) {
    const list = value as readonly { readonly type?: string; readonly text?: string }[]
    if (list.length > 0 && list.every((one) => typeof one === 'object' && typeof one.text === 'string'))
      return lineWords(value as unknown as Line)
    if (list.length > 0 && list.every((one) => typeof one === 'object' && typeof one.type === 'string'))
      return richTextWords(value as unknown as RichText)
    return value.map((one) => plain(one, context))
  }
  const address = addressOf(value as unknown as Link, context)
  if (address !== undefined) return address
  const { id } = value as { readonly id?: string }
  if (typeof id === 'string') return context.pictures[id]?.name ?? id
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, plain(one, context)]))
}

function addressOf(value: Link, { paths, files }: SiteContext): string | undefined {
  if ('href' in value) return value.href
  if (isFileLink(value)) return files[value.file]?.path
  if (!isPageLink(value)) return undefined
  const path = paths[value.page]
  return path === undefined ? undefined : `${path}${value.anchor ? `#${value.anchor}` : ''}`
}

function isJsonList(value: Json): value is readonly Json[] {
  return Array.isArray(value)
}
