/** Pages with faults of many rules, for tests of the gullyline and the ruler. */
import type { Page } from '@playwright/test'
import { defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import type { App } from './app.ts'
import { addPageOf } from './shared-pages.ts'

const words = (text: string) => [{ type: 'paragraph', runs: [{ text }] }]
const LONG =
  'On a clear night without a Moon you can see three thousand stars with nothing but your eyes, and a path of light from one side of the moor to the other.'

function node(kind: string, content: PageNode['content'], more: Partial<PageNode> = {}): PageNode {
  return { ...newNode(getKind(defaultRegistry, kind), { content }), ...more }
}

const place = (gridColumn: number, gridRow: number, gridColumns: number, gridRows: number) => ({
  base: { gridColumn, gridRow, gridColumns, gridRows },
})

/** A small text that is a link and nothing else. */
const linkIn = (text: string): PageNode =>
  node(
    'text',
    { words: [{ type: 'paragraph', runs: [{ text, link: { href: 'https://example.org/c' } }] }] },
    { sizes: { base: { step: 'note' } } },
  )

/** One section for each fault, called by its rule. */
export const FAULTS: Readonly<Record<string, Readonly<Record<string, PageNode>>>> = {
  'picture-contrast': {
    bright: node(
      'hero',
      { media: { id: 'tmdome' }, decoration: true },
      { look: { shade: 'none' }, slots: { blocks: ['over'] } },
    ),
    over: node('text', { words: words('Grey words over a grey hill and a grey sky') }),
  },
  'broken-word': {
    narrow: node('section', {}, { slots: { blocks: ['six'] } }),
    six: node('row', {}, { slots: { blocks: ['one', 'two', 'three', 'four', 'five'] } }),
    one: node('heading', { text: 'Spectroheliograph', level: 2 }),
    two: node('heading', { text: 'Moon', level: 2 }),
    three: node('heading', { text: 'Sun', level: 2 }),
    four: node('heading', { text: 'Stars', level: 2 }),
    five: node('heading', { text: 'Moor', level: 2 }),
  },
  'tall-heading': {
    tall: node('section', {}, { slots: { blocks: ['long'] }, sizes: { base: { width: 'reading' } } }),
    long: node('heading', { text: LONG, level: 2 }, { sizes: { base: { step: 'display' } } }),
  },
  'short-lines': {
    short: node('section', {}, { slots: { blocks: ['beside'] } }),
    beside: node('row', {}, { slots: { blocks: ['left', 'right'] } }),
    left: node('text', { words: words(LONG) }, { sizes: { base: { step: 'title' } } }),
    right: node('text', { words: words('Stars') }),
  },
  'long-lines': {
    wide: node('section', {}, { slots: { blocks: ['list'] } }),
    list: node('list', { words: [{ type: 'list', ordered: false, items: [{ runs: [{ text: LONG }] }] }] }),
  },
  'small-text': {
    tiny: node('section', {}, { slots: { blocks: ['note'] } }),
    note: node('text', { words: words('Bring a red torch') }, { sizes: { base: { step: '9px' } } }),
  },
  'last-row': {
    rows: node('section', {}, { slots: { blocks: ['pictures'] } }),
    pictures: node(
      'gallery',
      {},
      {
        slots: { pictures: ['p1', 'p2', 'p3', 'p4'] },
        sizes: { base: { columns: '3' }, narrow: { columns: '2' } },
      },
    ),
    ...Object.fromEntries(
      ['p1', 'p2', 'p3', 'p4'].map((id) => [
        id,
        node('picture', { media: { id: 'tmnight' }, decoration: true }),
      ]),
    ),
  },
  'focus-order': {
    order: node('section', {}, { slots: { blocks: ['turned'] } }),
    turned: node(
      'columns',
      {},
      {
        slots: { columns: ['c1', 'c2'] },
        sizes: { base: { direction: 'across' }, narrow: { direction: 'down-last-first' } },
      },
    ),
    c1: node('column', {}, { slots: { blocks: ['b1'] } }),
    c2: node('column', {}, { slots: { blocks: ['b2'] } }),
    b1: node('button', { text: 'Tonight', link: { href: 'https://example.org/a' } }),
    b2: node('button', { text: 'Visit', link: { href: 'https://example.org/b' } }),
  },
  'covered-text': {
    placed: node('grid', {}, { slots: { blocks: ['under', 'above'] } }),
    under: node('text', { words: words('What lies behind') }, { sizes: place(1, 1, 6, 1) }),
    above: node('text', { words: words('What lies over it') }, { sizes: place(1, 1, 6, 1) }),
  },
  'blurred-picture': {
    large: node('section', {}, { slots: { blocks: ['square'] } }),
    square: node(
      'picture',
      { media: { id: 'tmnight' }, decoration: true },
      { sizes: { base: { band: 'full', ratio: '1/1' } } },
    ),
  },
  'small-target': {
    close: node('section', {}, { slots: { blocks: ['links'] } }),
    links: node('stack', {}, { slots: { blocks: ['n1', 'n2'] }, sizes: { base: { gap: 'none' } } }),
    n1: linkIn('First night'),
    n2: linkIn('Second night'),
  },
  jump: {
    leap: node('section', {}, { slots: { blocks: ['many'] } }),
    many: node(
      'gallery',
      {},
      {
        slots: { pictures: ['q1', 'q2', 'q3', 'q4', 'q5', 'q6'] },
        sizes: { base: { columns: '6' }, medium: { columns: '1' } },
      },
    ),
    ...Object.fromEntries(
      ['q1', 'q2', 'q3', 'q4', 'q5', 'q6'].map((id) => [
        id,
        node('picture', { media: { id: 'tmnight' }, decoration: true }),
      ]),
    ),
  },
}

/** Adds a page with these faults, and opens it. */
export async function openFaults(page: Page, app: App, rules: readonly string[]): Promise<string> {
  const faults = rules.map((rule) => FAULTS[rule]!)
  const { id } = await addPageOf(page.context(), app, {
    title: 'Broken',
    description: 'Broken',
    sections: ['top', ...faults.map((nodes) => Object.keys(nodes)[0]!)],
    nodes: {
      top: node('section', {}, { slots: { blocks: ['title'] } }),
      title: node('heading', { text: 'Broken', level: 1 }),
      ...Object.fromEntries(faults.flatMap((nodes) => Object.entries(nodes))),
    },
  })
  await page.goto(`${app.editor}/pages/${id}`)
  return id
}

/** How many gullies the page has, once all is measured. */
export const counter = (page: Page) =>
  page.getByRole('region', { name: 'Ruler' }).getByRole('button', { name: /at 1,601 widths/ })
