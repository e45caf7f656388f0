import { describe, expect, test } from '@jest/globals'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { fluidCss, fluidPx } from '../src/look/look.ts'
import type { Page, PageNode } from '../src/page/page.ts'
import { safeHref } from '../src/kit/allow-list.ts'
import { renderPage } from '../src/render/render-page.ts'
import { cascadeValue } from '../src/sizes/cascade.ts'
import { sizeAt } from '../src/sizes/site-sizes.ts'
import { spotOf } from '../src/resolve/spots.ts'
import { testLook, testSite } from './arbitraries/site.ts'

/** The slots of a page that these tests put nothing in. */
const NO_OTHERS = { main: [], side: [], aside: [] }

const node = (kind: string, rest: Partial<PageNode> = {}): PageNode => ({
  kind,
  content: {},
  look: {},
  sizes: { base: {} },
  slots: {},
  ...rest,
})

const page: Page = {
  format: 4,
  root: 'root',
  nodes: {
    root: node('page', { slots: { ...NO_OTHERS, sections: ['sec'] } }),
    sec: node('section', { slots: { blocks: ['head', 'row'] }, look: { surface: 'night' } }),
    head: node('heading', {
      content: { text: 'Clear & cold', level: 1 },
      sizes: { base: { align: 'center' }, narrow: { align: 'start' } },
    }),
    row: node('row', {
      slots: { blocks: ['pic', 'act'] },
      sizes: { base: { gap: 'm', share: 'first' }, narrow: { direction: 'down' } },
    }),
    pic: node('picture', { content: { media: { id: 'pica' }, alt: 'The dome' } }),
    act: node('button', { content: { text: 'Go', link: { page: 'visit', anchor: 'hours' } } }),
  },
}

describe('a page written out', () => {
  const { html, css } = renderPage({ page, title: 'Visit', description: '' }, registry, testSite(), () => ({
    href: '/s.css',
  }))

  test('has the heading at its level, the words escaped and the link followed to the page it names', () => {
    expect(html).toMatch(/<h1 class="heading heading-\w+">Clear &amp; cold<\/h1>/)
    expect(html).toMatch(/<a class="button button-\w+" href="\/visit\/#hours">Go<\/a>/)
    expect(html).toContain('<title>Visit · A site</title>')
  })

  test('changes at a size only what differs there', () => {
    const narrow = /@media \(width<720px\)\{(.*?\})\}/.exec(css)![1]!
    expect(narrow).toMatch(/\.heading-\w+\{text-align:start\}/)
    expect(narrow).toMatch(/\.row-\w+\{flex-direction:column\}/)
    expect(css).not.toContain('(width<1200px)')
  })

  test('gives only the tokens it uses', () => {
    expect(css).toContain('--space-m:1.5rem')
    expect(css).not.toContain('--space-xxl')
    expect(css).not.toContain('.on-tint')
  })

  test('tells how wide the picture is: two thirds of the row, and all of it when narrow', () => {
    // (min(100vw - 2 gutters, 1120px) - one gap of 24px) * 2/3
    const gutter = 'clamp(1rem,0.6087rem + 1.7391vw,2rem)'
    expect(spotOf({ page, registry, look: testLook }, 'pic').pictureSizes).toBe(
      `(width<720px) calc(min(100vw - 2*${gutter},1120px)), calc((min(100vw - 2*${gutter},1120px) - 1*1.5rem)*2/3)`,
    )
  })
})

describe('sizes', () => {
  test.each([
    [320, 'narrow'],
    [719, 'narrow'],
    [720, 'medium'],
    [1199, 'medium'],
    [1200, 'base'],
    [1920, 'base'],
  ])('a screen of %i px is %s', (width, size) => {
    expect(sizeAt(width, testLook)).toBe(size)
  })

  test('a value comes from the size itself, from a wider one, or from the kind', () => {
    const schema = registry.kinds.get('heading')!.arrangement
    expect(cascadeValue(page.nodes.head!, schema, 'narrow', 'align')).toEqual({
      value: 'start',
      origin: { from: 'own' },
    })
    expect(cascadeValue(page.nodes.head!, schema, 'medium', 'align')).toEqual({
      value: 'center',
      origin: { from: 'wider', size: 'base' },
    })
    expect(cascadeValue(page.nodes.head!, schema, 'medium', 'step')).toEqual({
      value: 'level',
      origin: { from: 'default' },
    })
  })

  test('a fluid length is what its ends say, and a straight line between', () => {
    const length = { from: 16, to: 32 }
    expect([320, 360, 820, 1280, 1920].map((width) => fluidPx(length, width))).toEqual([16, 16, 24, 32, 32])
    expect(fluidCss({ from: 20, to: 20 })).toBe('1.25rem')
  })
})

describe('addresses', () => {
  test.each([
    'https://a.example/x?y#z',
    '/visit/',
    '#hours',
    '?q=1',
    'page',
    'mailto:a@b.example',
    'tel:+441234',
    'HTTP://A.EXAMPLE',
    './a:b',
    '/a:b',
  ])('lets %p through', (href) => expect(safeHref(href)).toBe(href))
  test.each([
    'javascript:alert(1)',
    ' JaVaScRiPt:1',
    'java\nscript:1',
    '\u0001javascript:1',
    'data:text/html,x',
    'vbscript:x',
    'file:///etc',
    'blob:x',
    '',
    '  ',
  ])('refuses %p', (href) => expect(safeHref(href)).toBeUndefined())
})
