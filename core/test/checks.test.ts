/** Each check has a page that it faults and one that it lets pass, made from the same blocks. */
import { describe, expect, test } from '@jest/globals'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import fc from 'fast-check'
import { contrastRatio } from '../src/look/contrast-ratio.ts'
import { leastContrast, ownSurface } from '../src/look/own-values.ts'
import type { CheckedSite } from '../src/checks/define-check.ts'
import { CHECKS, runChecks } from '../src/checks/run-checks.ts'
import type { JsonObject } from '../src/page/json.ts'
import type { Page, PageNode } from '../src/page/page.ts'
import { testLook } from './arbitraries/site.ts'

type Block = readonly [kind: string, content: JsonObject, look?: JsonObject]

function pageOf(...blocks: readonly Block[]): Page {
  const nodes: Record<string, PageNode> = {
    root: newNode(getKind(registry, 'page'), { slots: { sections: ['sec'] } }),
    sec: newNode(getKind(registry, 'section'), {
      slots: { blocks: blocks.flatMap(([kind], i) => (kind === 'section' ? [] : [`b${i}`])) },
    }),
  }
  const sections = ['sec']
  blocks.forEach(([kind, content, look = {}], i) => {
    nodes[`b${i}`] = newNode(getKind(registry, kind), { content, look })
    if (kind === 'section') sections.push(`b${i}`)
  })
  nodes.root = { ...nodes.root!, slots: { ...nodes.root!.slots, sections } }
  return { format: 4, root: 'root', nodes }
}

const site: CheckedSite = {
  title: 'A page',
  description: 'What it is',
  look: testLook,
  pages: { visit: ['hours'], about: undefined },
  pictures: { pica: { alt: 'A hill' }, picb: { alt: '' } },
  files: { plan: {} },
}
const heading = (text: string, level: number): Block => ['heading', { text, level }]
const linkTo = (link: JsonObject | undefined, words = 'Opening hours'): Block => [
  'button',
  { text: words, ...(link ? { link } : {}) },
]
const words = (...runs: JsonObject[]): Block => ['text', { words: [{ type: 'paragraph', runs }] }]
const list = (...items: string[]): Block => [
  'text',
  {
    words: [{ type: 'list', ordered: false, items: items.map((text) => ({ runs: text ? [{ text }] : [] })) }],
  },
]
/** A page with panels, each with its label and the words in it; none where there are no words. */
function panelsOf(...panels: readonly (readonly [label: string, words?: string])[]): Page {
  const page = pageOf(['panels', {}])
  const nodes: Record<string, PageNode> = { ...page.nodes }
  const ids = panels.map(([label, inside], i) => {
    const blocks = inside === undefined ? [] : [`t${i}`]
    if (inside !== undefined)
      nodes[`t${i}`] = newNode(getKind(registry, 'text'), { content: words({ text: inside })[1] })
    nodes[`p${i}`] = newNode(getKind(registry, 'panel'), { content: { label }, slots: { blocks } })
    return `p${i}`
  })
  nodes.b0 = { ...nodes.b0!, slots: { panels: ids } }
  return { ...page, nodes }
}
function framed(content: JsonObject, page: Page): Page {
  return { ...page, nodes: { ...page.nodes, root: { ...page.nodes.root!, content } } }
}
/** A page that begins with a hero with a heading in it. */
function heroWith(content: JsonObject): Page {
  const page = pageOf(heading('A', 1))
  const hero = newNode(getKind(registry, 'hero'), { content, slots: { blocks: ['b0'] } })
  return { ...page, nodes: { ...page.nodes, sec: hero } }
}
/** A section that is looked at, or arranged, in a certain way. */
function sectionWith(values: { look?: JsonObject; base?: JsonObject; narrow?: JsonObject }): Page {
  const page = pageOf(['section', {}])
  const { look = {}, base = {}, narrow } = values
  const sizes = { base, ...(narrow ? { narrow } : {}) }
  return { ...page, nodes: { ...page.nodes, b0: { ...page.nodes.b0!, look, sizes } } }
}
const lenient = { look: { ...testLook, ownValues: true } }
const grey = { ...testLook.surfaces.plain!, title: 'Grey', quiet: '#999999' }

/** Rule, what is faulted, and what passes. */
/** A grid section of two headings, at these columns and rows. */
function gridOf(...places: readonly (readonly [column: number, row: number])[]): Page {
  const blocks = places.map(([gridColumn, gridRow], i) => ({
    ...newNode(getKind(registry, 'heading'), {
      content: { text: `Heading ${i}`, level: 2 },
      sizes: { base: { gridColumn, gridRow, gridColumns: 4, gridRows: 1 } },
    }),
  }))
  const nodes = {
    root: newNode(getKind(registry, 'page'), { slots: { sections: ['grid'] } }),
    grid: newNode(getKind(registry, 'grid'), { slots: { blocks: blocks.map((_one, i) => `b${i}`) } }),
    ...Object.fromEntries(blocks.map((one, i) => [`b${i}`, one])),
  }
  return { format: 4, root: 'root', nodes }
}

const CASES: readonly (readonly [
  rule: string,
  what: string,
  bad: Page,
  good: Page,
  more?: Partial<CheckedSite>,
])[] = [
  [
    'alternative-text',
    'none at all',
    pageOf(['picture', { media: { id: 'picb' } }]),
    pageOf(['picture', { media: { id: 'pica' } }]),
  ],
  [
    'alternative-text',
    'not even decoration',
    pageOf(['picture', { media: { id: 'picb' }, decoration: false }]),
    pageOf(['picture', { media: { id: 'picb' }, decoration: true }]),
  ],
  [
    'alternative-text',
    'a file name',
    pageOf(['picture', { media: { id: 'pica' }, alt: 'IMG_2031.JPG' }]),
    pageOf(['picture', { media: { id: 'pica' }, alt: 'A JPG of a hill' }]),
  ],
  [
    'missing-picture',
    'one that is not in the library',
    pageOf(['picture', { media: { id: 'picgone' }, alt: 'A hill' }]),
    pageOf(['picture', { media: { id: 'pica' } }]),
  ],
  [
    'main-heading',
    'none at all',
    pageOf(words({ text: 'a' })),
    pageOf(heading('A', 1), words({ text: 'a' })),
  ],
  [
    'main-heading',
    'a second one',
    pageOf(heading('A', 1), heading('B', 1)),
    pageOf(heading('A', 1), heading('B', 2)),
  ],
  [
    'main-heading',
    'levels before the first',
    pageOf(heading('A', 3), heading('B', 1)),
    pageOf(heading('A', 2), heading('B', 1)),
  ],
  [
    'broken-link',
    'an address without https://',
    pageOf(linkTo({ href: 'elsewhere.example/visit' })),
    pageOf(linkTo({ href: 'https://elsewhere.example/visit' })),
  ],
  [
    'broken-link',
    'another host by two slashes',
    pageOf(linkTo({ href: '//elsewhere.example/' })),
    pageOf(linkTo({ href: '/visit/' })),
  ],
  [
    'heading-levels',
    'a level skipped',
    pageOf(heading('A', 1), heading('B', 3)),
    pageOf(heading('A', 1), heading('B', 2), heading('C', 3), heading('D', 2)),
  ],
  ['empty-item', 'a heading', pageOf(heading(' ', 2)), pageOf(heading('x', 2))],
  ['empty-item', 'a button', pageOf(linkTo({ page: 'visit' }, '')), pageOf(linkTo({ page: 'visit' }))],
  [
    'empty-item',
    'a heading of a card that says something',
    pageOf(['card', { words: words({ text: 'a' })[1].words! }]),
    pageOf(['card', { heading: 'A', words: words({ text: 'a' })[1].words! }]),
  ],
  [
    'shows-nothing',
    'a part that is not there',
    pageOf(['linked-blocks', { part: 'gone' }]),
    pageOf(heading('x', 2)),
  ],
  ['missing-part', 'a hero without a picture', heroWith({}), heroWith({ media: { id: 'pica' } })],
  ['empty-words', 'a list item', pageOf(list('one', '')), pageOf(list('one', 'two'))],
  [
    'empty-words',
    'a link of spaces',
    pageOf(words({ text: 'a' }, { text: ' ', link: { page: 'visit' } })),
    pageOf(words({ text: 'a', link: { page: 'visit' } })),
  ],
  ['empty-item', 'a picture block', pageOf(['picture', {}]), pageOf(['picture', { media: { id: 'pica' } }])],
  [
    'link-words',
    'words that say nothing',
    pageOf(linkTo({ page: 'visit' }, 'Click here!')),
    pageOf(linkTo({ page: 'visit' }, 'Read more about owls')),
  ],
  [
    'contrast',
    'a surface whose words are too faint',
    pageOf(['section', {}, { surface: 'grey' }]),
    pageOf(['section', {}, { surface: 'night' }]),
    { look: { ...testLook, surfaces: { ...testLook.surfaces, grey } } },
  ],
  [
    'contrast',
    'a surface the look does not have',
    pageOf(['section', {}, { surface: 'nosuch' }]),
    pageOf(['section', {}]),
  ],
  [
    'same-anchor',
    'two places with one name',
    pageOf(['section', { anchor: 'a' }], ['section', { anchor: 'a' }]),
    pageOf(['section', { anchor: 'a' }], ['section', { anchor: 'b' }]),
  ],
  [
    'same-anchor',
    'the name of the main part',
    pageOf(['section', { anchor: 'content' }]),
    pageOf(['section', { anchor: 'contents' }]),
  ],
  ['broken-link', 'nowhere', pageOf(linkTo(undefined)), pageOf(linkTo({ page: 'visit' }))],
  [
    'broken-link',
    'a page that is gone',
    pageOf(linkTo({ page: 'gone' })),
    pageOf(linkTo({ page: 'about', anchor: 'any' })),
  ],
  [
    'broken-link',
    'a place that is not on that page',
    pageOf(linkTo({ page: 'visit', anchor: 'nosuch' })),
    pageOf(linkTo({ page: 'visit', anchor: 'hours' })),
  ],
  [
    'broken-link',
    'a place that is not on this page',
    pageOf(linkTo({ href: '#b' }), ['section', { anchor: 'a' }]),
    pageOf(linkTo({ href: '#a' }), ['section', { anchor: 'a' }]),
  ],
  ['broken-link', 'a file that is gone', pageOf(linkTo({ file: 'gone' })), pageOf(linkTo({ file: 'plan' }))],
  [
    'broken-link',
    'a script',
    pageOf(linkTo({ href: 'javascript:alert(1)' })),
    pageOf(linkTo({ href: 'https://a.example/' })),
  ],
  [
    'broken-link',
    'a heading whose words are its anchor',
    pageOf(linkTo({ href: '#hours' }), heading('Open', 2)),
    pageOf(linkTo({ href: '#open' }), heading('Open', 2)),
  ],
  [
    'empty-item',
    'a panel with nothing in it',
    panelsOf(['First', 'A'], ['Second']),
    panelsOf(['First', 'A'], ['Second', 'B']),
  ],
  [
    'unchanged-copy',
    'a panel beside its copy',
    panelsOf(['First', 'A'], ['First', 'A']),
    panelsOf(['First', 'A'], ['First', 'B']),
  ],
  [
    'missing-field',
    'an article without a heading',
    framed({ layout: 'article', title: ' ', author: 'A' }, pageOf()),
    framed({ layout: 'article', title: 'T' }, pageOf()),
  ],
  [
    'missing-field',
    'only what the template asks for',
    framed({ layout: 'article' }, pageOf()),
    framed({ layout: 'side' }, pageOf()),
  ],
  [
    'stray-value',
    'a measure that the look does not have',
    sectionWith({ base: { above: '17px' } }),
    sectionWith({ base: { above: 'm' } }),
  ],
  [
    'stray-value',
    'a measure at one size alone',
    sectionWith({ narrow: { gap: '9px' } }),
    sectionWith({ narrow: { gap: 's' } }),
  ],
  [
    'stray-value',
    'a colour that the look does not have',
    sectionWith({ look: { surface: '#102030' } }),
    sectionWith({ look: { surface: 'plain' } }),
  ],
  [
    'own-value',
    'a measure outside the look, where they are allowed',
    sectionWith({ base: { below: '17px' } }),
    sectionWith({ base: { below: 'm' } }),
    lenient,
  ],
  [
    'own-value',
    'a colour outside the look, where they are allowed',
    sectionWith({ look: { surface: '#102030' } }),
    sectionWith({ look: { surface: 'plain' } }),
    lenient,
  ],
  [
    'contrast',
    'a colour on which nothing can be read',
    sectionWith({ look: { surface: '#777777' } }),
    sectionWith({ look: { surface: '#ffffff' } }),
    lenient,
  ],
  [
    'reading-order',
    'a block of a grid that is seen first and read aloud last',
    gridOf([1, 3], [1, 1]),
    gridOf([1, 1], [1, 3]),
  ],
  [
    'strange-kind',
    'a table on a landing page',
    framed({ layout: 'landing' }, pageOf(['table', { rows: [['a'], ['b']] }])),
    framed({ layout: 'plain' }, pageOf(['table', { rows: [['a'], ['b']] }])),
  ],
]

describe('every check', () => {
  test.each(CASES)('%s: %s', (...[rule, , bad, good, more]) => {
    const rules = (page: Page) =>
      runChecks(page, { ...site, ...more }, registry).map((finding) => finding.rule)
    expect(rules(bad)).toContain(rule)
    expect(rules(good)).not.toContain(rule)
  })

  test('a page without title or description', () => {
    const found = runChecks(pageOf(), { ...site, title: ' ', description: '' }, registry)
    expect(found.map((finding) => [finding.rule, finding.severity])).toEqual([
      ['page-title', 'error'],
      ['page-description', 'warning'],
    ])
    expect(runChecks(pageOf(), site, registry)).toEqual([])
  })

  test('is faulted by some case here, names a source, and leads to a node of the page', () => {
    const findings = CASES.flatMap(([, , bad, , more]) =>
      runChecks(bad, { ...site, ...more }, registry).map((finding) => ({ finding, bad })),
    )
    const tried = new Set([...findings.map(({ finding }) => finding.rule), 'page-title', 'page-description'])
    expect(CHECKS.map((check) => check.rule).filter((rule) => !tried.has(rule))).toEqual([])
    for (const { finding, bad } of findings) {
      expect(finding.source.length).toBeGreaterThan(10)
      if (finding.nodeId !== undefined) expect(Object.keys(bad.nodes)).toContain(finding.nodeId)
    }
  })
})

test('values outside the look keep a page from going live only where the keeper does not allow them', () => {
  const page = sectionWith({ look: { surface: '#ffffff' }, base: { above: '17px' } })
  const severities = (more: Partial<CheckedSite>) =>
    runChecks(page, { ...site, ...more }, registry).map(({ rule, severity }) => [rule, severity])
  expect(severities({})).toEqual([
    ['stray-value', 'error'],
    ['stray-value', 'error'],
  ])
  expect(severities(lenient)).toEqual([
    ['own-value', 'warning'],
    ['own-value', 'warning'],
  ])
})

test('on a colour of one’s own stands what can best be read of all that the look has', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 0xffffff }), (number) => {
      const colour = `#${number.toString(16).padStart(6, '0')}`
      const own = ownSurface(testLook, colour)
      expect(own.background).toBe(colour)
      for (const surface of Object.values(testLook.surfaces)) {
        const there = leastContrast({ ...surface, background: colour })
        expect(leastContrast(own)).toBeGreaterThanOrEqual(there)
      }
    }),
  )
})

test('contrast: the examples of the standard and of its Understanding documents', () => {
  expect(contrastRatio('#000000', '#ffffff')).toBe(21)
  expect(contrastRatio('#ffffff', '#ffffff')).toBe(1)
  // Understanding SC 1.4.3 and technique G18 take #777777 on white as just failing (4.48), #767676 as just passing (4.54).
  expect(contrastRatio('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  expect(contrastRatio('#ffffff', '#767676')).toBeCloseTo(4.54, 2)
  // Red, green and blue on white, from the coefficients of the definition itself.
  expect(contrastRatio('#ff0000', '#ffffff')).toBeCloseTo(1.05 / 0.2626, 5)
  expect(contrastRatio('#00ff00', '#ffffff')).toBeCloseTo(1.05 / 0.7652, 5)
  expect(contrastRatio('#0000ff', '#ffffff')).toBeCloseTo(1.05 / 0.1222, 5)
})
