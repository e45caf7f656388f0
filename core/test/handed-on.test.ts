/** What an instance says of its place, and the blocks of its part that are shown there. */
import { describe, expect, test } from '@jest/globals'
import { defaultRegistry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import { Expander, expandParts, type Parts } from '../src/resolve/expand.ts'
import { gridReports } from '../src/resolve/grid-report.ts'
import { withCopies } from '../src/reuse/own-copies.ts'
import { USUAL_SIZES } from '../src/sizes/site-sizes.ts'
import { countingIds } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'

const node = (kind: string, more: Partial<PageNode> = {}): PageNode =>
  newNode(getKind(defaultRegistry, kind), more)
const document = (root: NodeId, nodes: Record<NodeId, PageNode>): Page => ({
  format: PAGE_FORMAT,
  root,
  nodes,
})
const html = (page: Page, parts: Parts = {}): string =>
  renderPage({ page, title: 'T', description: 'D' }, defaultRegistry, { ...testSite(), parts }, 'inline').html

describe('an instance on a grid section', () => {
  const part = document('card', {
    card: node('shared-blocks', { slots: { blocks: ['name', 'about'] } }),
    name: node('heading', { content: { text: 'Opening hours', level: 2 } }),
    about: node('heading', { content: { text: 'From dusk', level: 3 } }),
  })
  const place = { gridColumn: 3, gridRow: 2, gridColumns: 4, gridRows: 1 }
  const page = document('home', {
    home: node('page', { slots: { sections: ['cells'] } }),
    cells: node('grid', { slots: { blocks: ['inst', 'end'] } }),
    inst: node('linked-blocks', {
      content: { part: 'card' },
      sizes: { base: place, narrow: { shown: false } },
    }),
    end: node('heading', { content: { text: 'Getting here', level: 2 } }),
  })

  test('hands its place on to the first block of its part, and to all of them where it is hidden', () => {
    const expanded = expandParts(page, defaultRegistry, { card: part })
    const [report] = gridReports(expanded, defaultRegistry, { sizes: USUAL_SIZES })
    const { base, narrow } = report!.sizes
    expect(base!.placed.find(({ id }) => id === 'inst/name')).toMatchObject({ column: 3, row: 2, columns: 4 })
    expect(narrow!.hidden).toEqual(['inst/name', 'inst/about'])
  })

  test('moves as it is edited, as it would from nothing', () => {
    const expander = new Expander(defaultRegistry, { card: part })
    expander.update(page)
    const moved = applyEdits(
      page,
      [{ edit: 'set', nodeId: 'inst', at: ['sizes', 'base', 'gridColumn'], value: 7 }],
      defaultRegistry,
    )
    if (!moved.ok) throw new Error(moved.message)
    const next = expander.update(moved.page)
    expect(next).toEqual(expandParts(moved.page, defaultRegistry, { card: part }))
    expect(getNode(next, 'inst/name').sizes.base.gridColumn).toBe(7)
  })

  test('leaves copies in its place that visitors see no other', () => {
    const copied = withCopies(page, 'card', part, defaultRegistry, countingIds('o'))
    expect(Object.values(copied.nodes).some(({ kind }) => kind === 'linked-blocks')).toBe(false)
    expect(html(copied)).toBe(html(page, { card: part }))
  })
})
