/** Blocks whose words come from the site or the rest of the page, read off what is rendered. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { leftOut, withoutSilent } from '../src/resolve/left-out.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { JsonObject } from '../src/page/json.ts'
import type { Page, PageNode } from '../src/page/page.ts'
import { anchorFrom } from '../src/kit/anchor-from.ts'
import { outlineOf } from '../src/resolve/outline.ts'
import { renderPage } from '../src/render/render-page.ts'
import type { NavigationEntry, SiteContext } from '../src/kit/site-context.ts'
import { navigationOf, type NavigationPage } from '../src/site/navigation.ts'
import { pageTree } from '../src/site/page-tree.ts'
import { anyPage } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'

type Block = readonly [kind: string, content?: JsonObject, look?: JsonObject]

function pageOf(...blocks: readonly Block[]): Page {
  const nodes: Record<string, PageNode> = {}
  blocks.forEach(([kind, content = {}, look = {}], i) => {
    nodes[`b${i}`] = newNode(getKind(registry, kind), { content, look })
  })
  nodes.sec = newNode(getKind(registry, 'section'), { slots: { blocks: blocks.map((_one, i) => `b${i}`) } })
  nodes.root = newNode(getKind(registry, 'page'), { slots: { sections: ['sec'] } })
  return { format: 4, root: 'root', nodes }
}
const html = (page: Page, context: Partial<SiteContext> = {}) =>
  renderPage({ page, title: 'T', description: '' }, registry, { ...testSite(), ...context }, () => ({
    href: '/s',
  })).html
const heading = (text: string, level = 2, anchor?: string): Block => [
  'heading',
  { text, level, ...(anchor ? { anchor } : {}) },
]

describe('anchors', () => {
  test.each([
    ['Opening hours', 'opening-hours'],
    ['Where’s the café?', 'wheres-the-cafe'],
    ['2026: what is new', 'what-is-new'],
    ['日本語', undefined],
  ])('%p gives %p', (words, anchor) => expect(anchorFrom(words)).toBe(anchor))

  test('are unique and leave those given by hand alone', () => {
    const page = pageOf(
      heading('Hours'),
      heading('Hours'),
      heading('Other', 2, 'hours-2'),
      heading('Content'),
    )
    expect(outlineOf(page, registry).map(({ anchor }) => anchor)).toEqual([
      'hours',
      'hours-3',
      'hours-2',
      'content-2',
    ])
    expect([...html(page).matchAll(/<h2[^>]* id="([^"]+)"/g)].map((match) => match[1])).toEqual([
      'hours',
      'hours-3',
      'hours-2',
      'content-2',
    ])
  })

  test('of any page are all different, unless somebody gave two places one name', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const made = outlineOf(page, registry).filter(
          ({ id }) => page.nodes[id]!.content.anchor === undefined,
        )
        const all = outlineOf(page, registry).map(({ anchor }) => anchor)
        for (const { anchor } of made) expect(all.filter((one) => one === anchor)).toHaveLength(1)
      }),
      { numRuns: 300 },
    )
  })
})

test('a jump list leads to every heading down to its level, and to no other', () => {
  const page = pageOf(
    ['jump-list', { label: 'Here' }],
    heading('Top', 1),
    heading('One'),
    heading('Two', 3),
    heading('Three'),
  )
  expect([...html(page).matchAll(/href="#([^"]+)"/g)].map((match) => match[1])).toEqual([
    'content',
    'one',
    'three',
  ])
  const deep = pageOf(['jump-list', { label: 'Here', depth: '3' }], heading('One'), heading('Two', 3))
  expect([...html(deep).matchAll(/href="#([^"]+)"/g)].map((match) => match[1])).toEqual([
    'content',
    'one',
    'two',
  ])
})

describe('a breadcrumb', () => {
  const tree = [
    { id: 'home', parentId: null, title: 'Home', path: '/', description: '' },
    { id: 'a', parentId: null, title: 'A', path: '/a/', description: '' },
    { id: 'b', parentId: 'a', title: 'B', path: '/a/b/', description: '' },
  ]
  const trail = (id: string, title: string) =>
    /<ol>(.*?)<\/ol>/.exec(html(pageOf(['breadcrumb']), { tree: pageTree(tree), page: { id, title } }))![1]!
  test('leads from the first page to this one, which is named and no link', () => {
    expect(
      trail('b', 'B')
        .replace(/<[^>]+>/g, '|')
        .split('|')
        .filter(Boolean),
    ).toEqual(['A site', 'A', 'B'])
    expect(trail('b', 'B')).toContain('<span aria-current="page">B</span>')
    expect(trail('b', 'B')).toContain('<a href="/a/">A</a>')
  })
  test('of the first page is that page alone, and ends where pages stand in a ring', () => {
    expect(trail('home', 'Home').replace(/<[^>]+>/g, '')).toBe('Home')
    const ring = [{ ...tree[1]!, parentId: 'b' }, tree[2]!]
    expect(html(pageOf(['breadcrumb']), { tree: pageTree(ring), page: { id: 'b', title: 'B' } })).toContain(
      'aria-current="page"',
    )
  })
})

test('a list of sub-pages names those under this page or another, or says that there are none', () => {
  expect(html(pageOf(['sub-pages']))).toContain('<a href="/visit/hours/">Hours</a><p>When</p>')
  expect(html(pageOf(['sub-pages', { descriptions: false }]))).not.toContain('<p>When</p>')
  expect(html(pageOf(['sub-pages', { of: { page: 'home' }, nothing: 'None yet' }]))).toContain(
    '<p>None yet</p>',
  )
})

test('a menu is a popover with a button for it, and shows the second level where it is asked to', () => {
  const one = html(pageOf(['menu']))
  expect(/popovertarget="(\w+-\w+)"/.exec(one)![1]).toBe(/<div id="([^"]+)" popover="auto">/.exec(one)![1])
  expect(one).not.toContain('People')
  expect(html(pageOf(['menu', {}, { depth: '2' }]))).toContain('<a href="/about/people/">People</a>')
})

describe('navigation', () => {
  const page = (id: string, parentId: string | null = null, inNavigation = true): NavigationPage => ({
    id,
    parentId,
    label: id.toUpperCase(),
    path: `/${id}/`,
    inNavigation,
  })
  const pages = [page('a'), page('b'), page('c', 'b'), page('d', null, false), page('e', 'd')]
  test('has what the site names in its order, then the other pages, sub-pages under theirs', () => {
    const items = [
      { page: 'b', label: 'Bee' },
      { href: 'https://shop.example/', label: 'Shop' },
      { page: 'a', anchor: 'x', label: 'Place' },
      { href: 'javascript:alert(1)', label: 'Bad' },
      { page: 'gone' },
      { page: 'd' },
    ]
    const entries = navigationOf(items, pages, 'c')
    expect(entries.map(({ label, path }) => [label, path])).toEqual([
      ['Bee', '/b/'],
      ['Shop', 'https://shop.example/'],
      ['Place', '/a/#x'],
      ['A', '/a/'],
      ['E', '/e/'],
    ])
    expect(entries[0]!.inside).toEqual([{ label: 'C', path: '/c/', current: true, inside: [] }])
  })
  test('names every page that is in it exactly once', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f']
    const anyPages = fc.record({
      shown: fc.subarray(ids),
      named: fc.shuffledSubarray(ids),
      parents: fc.array(fc.integer({ min: -1, max: 4 }), { minLength: 6, maxLength: 6 }),
    })
    fc.assert(
      fc.property(anyPages, ({ shown, named, parents }) => {
        const tree = ids.map((id, i) =>
          page(id, parents[i]! >= 0 && parents[i]! < i ? ids[parents[i]!]! : null, shown.includes(id)),
        )
        const flat = (entries: readonly NavigationEntry[]): string[] =>
          entries.flatMap((entry) => [entry.path, ...flat(entry.inside)])
        const got = flat(
          navigationOf(
            named.map((id) => ({ page: id })),
            tree,
            'a',
          ),
        )
        expect(got.sort()).toEqual(shown.map((id) => `/${id}/`).sort())
      }),
    )
  })
})

describe('what says nothing', () => {
  test('is never published, and nothing else is left out', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const published = withoutSilent(page, page.root, registry)
        expect(validatePage(published, registry)).toEqual([])
        const silent = leftOut(page, page.root, registry)
        expect([...silent].filter((id) => Object.hasOwn(published.nodes, id))).toEqual([])
        const gone = Object.keys(page.nodes).filter((id) => !Object.hasOwn(published.nodes, id))
        const within = (id: string): boolean =>
          silent.has(id) ||
          Object.entries(page.nodes).some(
            ([holder, node]) => Object.values(node.slots).flat().includes(id) && within(holder),
          )
        expect(gone.filter((id) => !within(id))).toEqual([])
        // What was left out leaves nothing behind that says nothing.
        expect(leftOut(published, published.root, registry).size).toBe(0)
      }),
      { numRuns: 300 },
    )
  })
})
