/** Our checks and axe on the same pages: where both have a rule for a thing, they agree on what is faulted. */
import { axeFindings } from './axe.ts'
import { expect, test } from '@playwright/test'
import {
  defaultRegistry,
  getKind,
  newNode,
  renderPage,
  runChecks,
  type JsonObject,
  type Page,
  type PageNode,
} from '@gullyline/core'
import { testLook, testSite } from '../core/test/arbitraries/site.ts'

type Block = readonly [kind: string, content: JsonObject]

function pageOf(blocks: readonly Block[]): Page {
  const nodes: Record<string, PageNode> = {
    root: newNode(getKind(defaultRegistry, 'page'), { slots: { sections: ['sec'] } }),
    sec: newNode(getKind(defaultRegistry, 'section'), {
      slots: { blocks: blocks.map((_block, i) => `b${i}`) },
    }),
  }
  blocks.forEach(
    ([kind, content], i) => (nodes[`b${i}`] = newNode(getKind(defaultRegistry, kind), { content })),
  )
  return { format: 4, root: 'root', nodes }
}

const heading = (text: string, level: number): Block => ['heading', { text, level }]
const button = (text: string): Block => ['button', { text, link: { page: 'visit' } }]

/** Our rule, axe's rule, a page, and whether it is at fault. */
const CASES: readonly (readonly [
  ours: string,
  axes: string,
  what: string,
  blocks: readonly Block[],
  fault: boolean,
])[] = [
  [
    'heading-levels',
    'heading-order',
    'one level at a time',
    [heading('A', 1), heading('B', 2), heading('C', 3), heading('D', 2)],
    false,
  ],
  ['heading-levels', 'heading-order', 'from 1 to 3', [heading('A', 1), heading('B', 3)], true],
  [
    'heading-levels',
    'heading-order',
    'from 2 to 5',
    [heading('A', 1), heading('B', 2), heading('C', 5)],
    true,
  ],
  [
    'heading-levels',
    'heading-order',
    'up by many',
    [heading('A', 1), heading('B', 2), heading('C', 3), heading('D', 4), heading('E', 2)],
    false,
  ],
  ['empty-item', 'empty-heading', 'a heading with words', [heading('A', 1)], false],
  ['empty-item', 'empty-heading', 'a heading without', [heading('', 1)], true],
  ['empty-item', 'empty-heading', 'a heading of spaces', [heading('  ', 1)], true],
  ['empty-item', 'link-name', 'a link with words', [button('Visit')], false],
  ['empty-item', 'link-name', 'a link without', [button('')], true],
]

for (const [ours, axes, what, blocks, fault] of CASES) {
  test(`${ours} and axe's ${axes}: ${what}`, async ({ page }) => {
    const document = pageOf(blocks)
    const faults = async (purpose: 'publish' | 'canvas'): Promise<number> => {
      const { html } = renderPage(
        { page: document, title: 'A page', description: '' },
        defaultRegistry,
        testSite(purpose),
        'inline',
      )
      await page.setContent(html)
      return (await axeFindings(page, { rules: [axes] })).length
    }
    // The canvas shows all of it.
    const ifPublishedAsWritten = await faults('canvas')
    const site = {
      title: 'A page',
      description: '',
      look: testLook,
      pages: { visit: undefined },
      pictures: {},
      files: {},
    }
    const found = runChecks(document, site, defaultRegistry).filter((finding) => finding.rule === ours)
    expect({ ours: found.length > 0, axe: ifPublishedAsWritten > 0 }).toEqual({
      ours: fault,
      axe: fault,
    })
    // What says nothing is told of and left out, so that visitors don't meet it.
    if (ours === 'empty-item') expect(await faults('publish')).toBe(0)
  })
}
