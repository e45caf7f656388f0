/** Known attacks in every field of every kind: what is rendered has no element, attribute or address that harmless words have not. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import rehypeParse from 'rehype-parse'
import { unified } from 'unified'
import type { Element, Root, RootContent } from 'hast'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import type { FieldSchema } from '../src/kit/fields.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { Json, JsonObject } from '../src/page/json.ts'
import type { Page } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import { pageTree } from '../src/site/page-tree.ts'
import { pageWith } from './arbitraries/page.ts'
import { TEST_PAGES, testSite } from './arbitraries/site.ts'
import { ATTACK_ADDRESSES, ATTACK_WORDS } from './fixtures/attack-strings.ts'

const kinds = [...registry.kinds.values()]

function elements(node: Root | RootContent): Element[] {
  const inside = 'children' in node ? node.children.flatMap((child) => elements(child)) : []
  return node.type === 'element' ? [node, ...inside] : inside
}
const parse = (html: string): Element[] => elements(unified().use(rehypeParse).parse(html))

/** A field's value with these words in every place that takes words. */
function withWords(field: FieldSchema, words: string): Json | undefined {
  switch (field.control) {
    case 'line':
      return words
    case 'words':
      return [
        { type: 'paragraph', runs: [{ text: words, marks: ['bold'], link: { href: words } }] },
        { type: 'list', ordered: false, items: [{ runs: [{ text: words }] }] },
      ]
    case 'list':
      return [{ type: 'list', ordered: true, items: [{ runs: [{ text: words, link: { href: words } }] }] }]
    case 'table':
      return [
        [words, words],
        ['a', words],
      ]
    case 'link':
      return { href: words }
    case 'date':
    case 'anchor':
    case 'surface':
      return words
    case 'media':
      return { id: 'pica' }
    default:
      return undefined
  }
}

/** A page in which every field of one kind says this, with the page's and the site's own words as well. */
function attacked(page: Page, kind: (typeof kinds)[number], words: string): Page {
  const nodes = Object.fromEntries(
    Object.entries(page.nodes).map(([id, node]) => {
      if (node.kind !== kind.kind) return [id, node]
      const content: JsonObject = { ...node.content }
      for (const [key, field] of Object.entries(kind.content.properties)) {
        const value = withWords(field, words)
        if (value !== undefined) Object.assign(content, { [key]: value })
      }
      return [id, { ...node, name: words, content }]
    }),
  )
  return { ...page, nodes }
}

function render(page: Page, words: string, purpose?: 'canvas'): string {
  const site = testSite(purpose)
  const pictures = Object.fromEntries(
    Object.entries(site.pictures).map(([id, one]) => [id, { ...one, alt: words, name: words }]),
  )
  const navigation = site.navigation.map((one) => ({ ...one, label: words }))
  const tree = pageTree(TEST_PAGES.map((one) => ({ ...one, title: words, description: words })))
  const context = {
    ...site,
    site: { ...site.site, name: words },
    page: { ...site.page, title: words },
    pictures,
    navigation,
    tree,
  }
  return renderPage({ page, title: words, description: words }, registry, context, () => ({ href: '/s.css' }))
    .html
}

/** Our own: a drawn sign of the program's, and the script that the head names. What is new beside them is told by the shape. */
function isOurs({ tagName, properties, children }: Element): boolean {
  if (tagName === 'script') return properties.src === '/s.css' && children.length === 0
  return tagName === 'svg' && String(properties.className) === 'icon'
}

const RUNS_OR_LOADS = /^(script|iframe|object|embed|svg|math|style|base|form|input|template)$/
const RUNS_AS_ATTRIBUTE = /^(on.*|style|srcDoc|formAction)$/i
const ADDRESSES = ['href', 'src', 'action', 'cite', 'data', 'poster']

/** Everything about these elements that an attack would have put there. Collected, since there are many thousands to look at. */
function harmIn(found: readonly Element[]): string[] {
  return found
    .filter((one) => !isOurs(one))
    .flatMap(({ tagName, properties }) => [
      ...(RUNS_OR_LOADS.test(tagName) ? [tagName] : []),
      ...Object.entries(properties).flatMap(([name, value]) => {
        if (RUNS_AS_ATTRIBUTE.test(name)) return [`${tagName} ${name}`]
        // The URL Standard's own parser decides what a browser would do with it.
        const isSafe = !ADDRESSES.includes(name) || /^(https?|mailto|tel):$/.test(protocolOf(String(value)))
        return isSafe ? [] : [`${tagName} ${name}=${String(value)}`]
      }),
    ])
}

test('the search for harm finds it', () => {
  const harmful =
    '<svg onload=x></svg><a href="javascript:1">x</a><p style="a:b">x</p><script src=/s.css>1</script>'
  expect(harmIn(parse(harmful))).toEqual(['svg', 'svg onLoad', 'a href=javascript:1', 'p style', 'script'])
})

test('the list is long enough, and names nothing twice', () => {
  const all = [...ATTACK_WORDS, ...ATTACK_ADDRESSES]
  expect(all.length).toBeGreaterThanOrEqual(100)
  expect(new Set(all).size).toBe(all.length)
})

describe.each(kinds.map((kind) => [kind.kind, kind] as const))('in every field of a %s', (_name, kind) => {
  const page = fc
    .sample(pageWith(kind), { numRuns: 20, seed: 11 })
    .sort((a, b) => Object.keys(a.nodes).length - Object.keys(b.nodes).length)[0]!
  const shape = (html: string): string[] => parse(html).map((element) => element.tagName)

  test('no attack becomes an element, an event or a script address, published or on the canvas', () => {
    // The canvas differs by data attributes alone, which a law holds; so it is looked at for each, and the page for some.
    for (const [purpose, each] of [
      ['canvas', 1],
      [undefined, 12],
    ] as const) {
      const harmless = shape(render(attacked(page, kind, 'harmless'), 'harmless', purpose))
      for (const [i, words] of [...ATTACK_WORDS, ...ATTACK_ADDRESSES].entries()) {
        if (i % each !== 0) continue
        const found = parse(render(attacked(page, kind, words), words, purpose))
        expect([words, ...harmIn(found)]).toEqual([words])
        // A refused address leaves its words without the link, and a line break is a break; nothing else may differ.
        const plain = (names: readonly string[]): string[] =>
          names.filter((name) => name !== 'a' && name !== 'br')
        expect([words, plain(found.map((element) => element.tagName))]).toEqual([words, plain(harmless)])
      }
    }
  })

  test('an address that a browser would run is refused by validation, or the renderer drops it', () => {
    const running = ATTACK_ADDRESSES.filter((one) => !/^(https?|mailto|tel):$/.test(protocolOf(one)))
    for (const address of running) {
      const next = attacked(page, kind, address)
      if (validatePage(next, registry).length > 0) continue
      const links = parse(render(next, 'x')).flatMap(({ properties }) => properties.href ?? [])
      expect(links.map(String)).not.toContain(address)
    }
  })
})

function protocolOf(address: string): string {
  return URL.canParse(address, 'https://site.example/')
    ? new URL(address, 'https://site.example/').protocol
    : ''
}
