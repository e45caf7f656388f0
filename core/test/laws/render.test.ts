import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { timesOf } from '../../../scripts/lib/soak.mjs'
import { toHtml } from 'hast-util-to-html'
import { unified } from 'unified'
import rehypeParse from 'rehype-parse'
import { VFile } from 'vfile'
import { transform } from 'lightningcss'
import type { Element, Root, RootContent } from 'hast'
import { defaultRegistry as registry } from '../../src/blocks/default-registry.ts'
import { withoutSilent } from '../../src/resolve/left-out.ts'
import { pageWords } from '../../src/resolve/page-words.ts'
import type { Page } from '../../src/page/page.ts'
import type { Edit } from '../../src/edits/edit-shapes.ts'
import { applyEdit } from '../../src/edits/edit.ts'
import { shownIds } from '../../src/resolve/shown.ts'
import { LAYOUTS, type LayoutName } from '../../src/site/layouts.ts'
import { cascade } from '../../src/sizes/cascade.ts'
import { hasSameStylesheet } from '../../src/render/arranged-rules.ts'
import { resolve } from '../../src/resolve/resolve.ts'
import { renderStylesheet, type Stylesheet } from '../../src/render/stylesheet.ts'
import { createNodeRenderer } from '../../src/render/render-node.ts'
import { createPageRenderer, renderPage, renderTree } from '../../src/render/render-page.ts'
import { Counts } from '../arbitraries/counts.ts'
import { answered } from '../arbitraries/answered.ts'
import { anyPage, editFor, pageWith } from '../arbitraries/page.ts'
import { testSite } from '../arbitraries/site.ts'

const RUNS = { numRuns: timesOf(600, 20000) }
/** For what is dear to look at, and follows from the laws above it. */
const FEWER = { numRuns: 300 }
const render = (page: Page, purpose?: 'canvas') =>
  renderPage({ page, title: 'A page', description: 'What it is' }, registry, testSite(purpose), () => ({
    href: '/style.css',
  }))

/** The HTML standard's own parsing algorithm (parse5), so that what we claim about a page is what a browser reads. */
const parse = (html: string): Root => unified().use(rehypeParse).parse(html)

function elements(node: Root | RootContent): Element[] {
  const inside = 'children' in node ? node.children.flatMap((child) => elements(child)) : []
  return node.type === 'element' ? [node, ...inside] : inside
}

/** Words as a reader gets them: text in order, a break counting as a newline, white space folded. */
function words(node: Root | RootContent): string {
  if (node.type === 'text') return node.value
  // What these show is made from the site or from other blocks; their own tests read it.
  if (node.type === 'element' && (node.tagName === 'time' || classOf(node).some((name) => DERIVED.has(name))))
    return ''
  if (node.type === 'element' && node.tagName === 'br') return ' '
  // What only the visitors’ script shows says nothing of its own.
  if (node.type === 'element' && node.properties.hidden === true) return ''
  return 'children' in node ? node.children.map((child) => words(child)).join('') : ''
}
const DERIVED = new Set([...registry.kinds.values()].flatMap((kind) => (kind.isDerived ? [kind.kind] : [])))
const classOf = (element: Element) => (element.properties.className ?? []) as readonly string[]
/** Where in the source a node was found differs with the spelling of character references. */
const mainOf = (tree: Root): Element => elements(tree).find((element) => element.tagName === 'main')!
const withoutPositions = (tree: Root | Element): string =>
  JSON.stringify(tree, (key, value: unknown) => (key === 'position' ? undefined : value))
const fold = (value: string) => value.replace(/\s+/g, '')

describe('rendering', () => {
  test('is deterministic to the byte, whatever the order of keys', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const shuffled = { ...page, nodes: Object.fromEntries(Object.entries(page.nodes).reverse()) }
        expect(render(shuffled)).toEqual(render(page))
      }),
      RUNS,
    )
  })

  test('a document that holds its stylesheet holds what it would have linked', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const parts = { page, title: 'A page', description: '' }
        const { html, css } = renderPage(parts, registry, testSite(), 'inline')
        const styles = elements(parse(html)).filter(({ tagName }) => tagName === 'style')
        expect(styles.map(words).join('')).toBe(css)
        expect(css).toBe(render(page).css)
      }),
      FEWER,
    )
  })

  test('parses back to the same words in the same order', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const main = elements(parse(render(page).html)).find((element) => element.tagName === 'main')!
        expect(fold(words(main))).toBe(
          fold(pageWords(withoutSilent(page, page.root, registry), registry).join('')),
        )
      }),
      RUNS,
    )
  })

  test('no text or address becomes a script, an event attribute or a script address', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        // The one script there may be is our own, a file of its own that the head names.
        const found = elements(parse(render(page).html)).filter(
          ({ tagName, properties, children }) =>
            !(tagName === 'script' && properties.src === '/style.css' && children.length === 0),
        )
        expect(
          found.filter(({ tagName }) => ['script', 'iframe', 'object', 'b', 'style'].includes(tagName)),
        ).toEqual([])
        for (const { properties } of found) {
          expect(Object.keys(properties).filter((name) => /^on/i.test(name))).toEqual([])
          for (const name of ['href', 'src'] as const) {
            if (properties[name] === undefined) continue
            // The URL Standard's parser decides what a browser would open.
            expect(new URL(String(properties[name]), 'https://site.example/').protocol).toMatch(
              /^(https?|mailto|tel):$/,
            )
          }
        }
      }),
      FEWER,
    )
  })

  test('what goes live is written as hast-util-to-html writes the same tree', () => {
    fc.assert(
      fc.property(anyPage, (whole) => {
        // What says nothing is left out by both, and the page's own HTML is read, whole as it goes live.
        const { html } = render(whole)
        const { element } = renderTree(whole, createNodeRenderer(registry, testSite()))
        expect(withoutPositions(mainOf(parse(html)))).toBe(withoutPositions(mainOf(parse(toHtml(element)))))
      }),
      FEWER,
    )
  })

  test('what goes live is the same tree once more written by hast-util-to-html, head and all, without a parse error', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const { html } = render(page)
        const file = new VFile(html)
        const tree = unified().use(rehypeParse, { emitParseErrors: true }).parse(file)
        expect(file.messages.map(String)).toEqual([])
        expect(withoutPositions(parse(toHtml(tree)))).toBe(withoutPositions(tree))
      }),
      FEWER,
    )
  })

  test('after any edits gives what a first rendering gives, page and stylesheet', () => {
    const edited = anyPage.chain((page) =>
      fc.array(editFor(page), { minLength: 1, maxLength: 4 }).map((edits) => ({ page, edits })),
    )
    const counts = new Counts()
    fc.assert(
      fc.property(edited, ({ page, edits }) => {
        const again = createPageRenderer(registry, testSite())
        const parts = { title: 'A page', description: 'What it is' }
        const place = () => ({ href: '/style.css' })
        expect(again({ ...parts, page }, place)).toEqual(render(page))
        let now = page
        for (const edit of edits) {
          const applied = applyEdit(now, edit, registry)
          if (!applied.ok) {
            counts.skip()
            continue
          }
          counts.look()
          now = applied.page
          expect(again({ ...parts, page: now }, place)).toEqual(render(now))
          expect(again({ ...parts, page }, place)).toEqual(render(page))
          expect(again({ ...parts, page: now }, place)).toEqual(render(now))
        }
      }),
      FEWER,
    )
    counts.expectLooked(0.25)
  })

  test('a stylesheet that an edit is said to leave as it is has the same rules after it', () => {
    const renderer = createNodeRenderer(registry, testSite('canvas'))
    const { look } = testSite('canvas')
    const sheetOf = (page: Page): Stylesheet => {
      const shown = resolve({ page, root: page.root }, { registry, look, audience: 'editor' })
      return renderStylesheet(
        registry,
        renderer.context,
        [...shown.nodes()].map((one) => renderer.render(one)),
      )
    }
    const expectIt = (editOf: (page: Page) => fc.Arbitrary<Edit>, runs: typeof RUNS): void => {
      const counts = new Counts()
      fc.assert(
        fc.property(
          anyPage.chain((page) => editOf(page).map((edit) => ({ page, edit }))),
          ({ page, edit }) => {
            const applied = applyEdit(page, edit, registry)
            if (!applied.ok || !hasSameStylesheet(registry, page, applied.page)) return counts.skip()
            counts.look()
            expect(sheetOf(applied.page)).toEqual(sheetOf(page))
          },
        ),
        runs,
      )
      counts.expectLooked(0.05)
    }
    expectIt(editFor, RUNS)
    // Rare among the others: what another layout shows was not shown before.
    const layout = fc.constantFrom(...(Object.keys(LAYOUTS) as LayoutName[]))
    expectIt(
      ({ root }) => layout.map((value) => ({ edit: 'set', nodeId: root, at: ['content', 'layout'], value })),
      FEWER,
    )
  })

  test('what a kind arranges by is all that it says it arranges by', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        for (const node of Object.values(page.nodes)) {
          const { arrange, arrangement, arrangedBy = [] } = registry.kinds.get(node.kind)!
          const values = cascade(node, arrangement, 'base')
          const told = Object.fromEntries(
            Object.entries(node.content).filter(([key]) => arrangedBy.includes(key)),
          )
          expect(arrange?.({ values, content: told, look: node.look })).toEqual(
            arrange?.({ values, content: node.content, look: node.look }),
          )
        }
      }),
      FEWER,
    )
  })

  test('the stylesheet is valid CSS and every class it names is on the page', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const { html, css } = render(page)
        const { warnings } = transform({ filename: 'page.css', code: new TextEncoder().encode(css) })
        expect(warnings).toEqual([])
        const classes = new Set(
          elements(parse(html)).flatMap((element) => element.properties.className ?? []),
        )
        const bare = css.replace(/\{[^{}]*\}/g, ' ').replace(/@font-face|@media[^{]*\{/g, ' ')
        const named = [...bare.matchAll(/\.([a-z][\w-]*)/gi)].map((match) => match[1]!)
        expect(named.filter((name) => !classes.has(name))).toEqual([])
      }),
      FEWER,
    )
  })

  test('the canvas shows what is published, with data attributes and nothing else', () => {
    fc.assert(
      // What asks for words, and what says nothing, has a place on the canvas alone.
      fc.property(anyPage.map(answered), (whole) => {
        const page = withoutSilent(whole, whole.root, registry)
        const bare = render(page, 'canvas').html.replace(/ data-(node|words)="[a-z0-9.]*"/g, '')
        expect(bare).toBe(render(page).html)
      }),
      FEWER,
    )
  })

  test.each([...registry.kinds.values()].map((kind) => [kind.kind, kind] as const))(
    'every %s renders as one element',
    (_name, kind) => {
      fc.assert(
        fc.property(pageWith(kind), (page) => {
          const marked = elements(parse(render(page, 'canvas').html)).filter(
            (element) => element.properties.dataNode !== undefined,
          )
          expect(marked.map((element) => element.properties.dataNode).sort()).toEqual(
            shownIds(page, page.root, registry).sort(),
          )
        }),
        { numRuns: 40 },
      )
    },
  )
})
