/** Changing how a page or columns are put together loses nothing, over any pages. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { pageWords } from '../src/resolve/page-words.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { renderPage } from '../src/render/render-page.ts'
import { testSite } from './arbitraries/site.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { changeLayoutEdits } from '../src/edits/templates.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { getNode, type Page } from '../src/page/page.ts'
import { runChecks } from '../src/checks/run-checks.ts'
import { ASIDE, layoutOf, LAYOUTS, layoutRefusal, type LayoutName } from '../src/site/layouts.ts'
import { TEMPLATES } from '../src/site/templates.ts'
import { anyPage, countingIds } from './arbitraries/page.ts'

const RUNS = { numRuns: 1000 }
const layouts = Object.keys(LAYOUTS) as LayoutName[]
const anyLayout = fc.constantFrom(...layouts)

function applied(page: Page, edits: ReturnType<typeof changeLayoutEdits>): Page {
  const result = applyEdits(page, edits, registry)
  if (!result.ok) throw new Error(result.message)
  return result.page
}

/** Everything that stands on the page or aside, apart from where: the sections that are made around loose blocks are no content. */
function contentOf(page: Page): string[] {
  return Object.entries(page.nodes)
    .filter(([id]) => id !== page.root && !id.startsWith('new'))
    .map(([id, { kind, content, look, sizes }]) => JSON.stringify([id, kind, content, look, sizes]))
    .sort()
}

describe('another template', () => {
  test('between any two and back loses no block, and leaves a valid page', () => {
    fc.assert(
      fc.property(anyPage, anyLayout, anyLayout, (page, there, back) => {
        const ids = countingIds('new')
        const away = applied(page, changeLayoutEdits(page, there, registry, ids))
        const home = applied(away, changeLayoutEdits(away, back, registry, ids))
        for (const one of [away, home]) {
          expect(validatePage(one, registry)).toEqual([])
          expect(contentOf(one)).toEqual(contentOf(page))
        }
      }),
      RUNS,
    )
  })

  test('shows everything that the layout has a place for: only what it refuses goes aside', () => {
    fc.assert(
      fc.property(anyPage, anyLayout, (page, layout) => {
        const bare = { ...page, nodes: { ...page.nodes } }
        const away = applied(bare, changeLayoutEdits(bare, layout, registry, countingIds('new')))
        const { slots } = getNode(away, away.root)
        const shown = Object.keys(LAYOUTS[layout].slots)
        for (const [slot, children] of Object.entries(slots))
          if (slot !== ASIDE && !shown.includes(slot)) expect(children).toEqual([])
        const before = getNode(page, page.root).slots[ASIDE]!
        const refused = (id: string): boolean =>
          layoutRefusal(away, getNode(away, id).kind, registry) !== undefined ||
          Object.values(getNode(away, id).slots).flat().some(refused)
        for (const id of slots[ASIDE]!) expect(before.includes(id) || refused(id)).toBe(true)
      }),
      RUNS,
    )
  })

  test('is one step to undo', () => {
    const page = fc.sample(anyPage, { numRuns: 40, seed: 3 }).at(-1)!
    for (const layout of layouts) {
      const result = applyEdits(page, changeLayoutEdits(page, layout, registry, countingIds('new')), registry)
      if (!result.ok) throw new Error(result.message)
      const undone = applyEdits(result.page, result.inverse, registry)
      expect(undone.ok && { ...undone.page, nodes: { ...undone.page.nodes } }).toEqual(page)
    }
  })
})

test('what stands aside is neither among the words of the page nor rendered', () => {
  const make = (slot: string): Page => {
    const block = newNode(getKind(registry, 'heading'), { content: { text: 'Kept for later', level: 2 } })
    const root = newNode(getKind(registry, 'page'), { content: { layout: 'side' }, slots: { [slot]: ['h'] } })
    return { format: 4, root: 'r', nodes: { r: root, h: block } }
  }
  const html = (page: Page) =>
    renderPage({ page, title: 'T', description: '' }, registry, testSite(), () => ({ href: '/s.css' })).html
  expect(pageWords(make('main'), registry)).toEqual(['Kept for later'])
  expect(html(make('main'))).toContain('Kept for later')
  expect(pageWords(make(ASIDE), registry)).toEqual([])
  expect(html(make(ASIDE))).not.toContain('Kept for later')
})

describe('every template', () => {
  const page = { title: 'Night of the Moon', date: '2026-11-27' }
  const site = {
    title: page.title,
    description: 'What it is',
    look: testSite().look,
    pages: {},
    pictures: {},
    files: {},
  }
  test.each(TEMPLATES.map((template) => [template.id, template] as const))(
    '%s makes a valid page that asks for words and has no other fault, the same but for its ids each time',
    (_id, template) => {
      const made = template.build(registry, countingIds('a'), page)
      expect(validatePage(made, registry)).toEqual([])
      expect(runChecks(made, site, registry).filter(({ rule }) => rule !== 'empty-item')).toEqual([])
      expect(layoutOf(getNode(made, made.root).content).title).toBe(LAYOUTS[template.layout].title)
      const again = template.build(registry, countingIds('b'), page)
      expect(pageWords(again, registry)).toEqual(pageWords(made, registry))
      expect(Object.keys(again.nodes).filter((id) => Object.hasOwn(made.nodes, id))).toEqual([])
    },
  )
  test('there are all that a site begins with', () => {
    expect(TEMPLATES.map(({ id }) => id)).toEqual([
      'blank',
      'plain',
      'side',
      'landing',
      'article',
      'about',
      'questions',
      'event',
      'visit',
    ])
  })
})
