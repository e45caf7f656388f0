/** What of a page is drawn first: enough of it for any window, and nothing but its beginning. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  defaultRegistry as registry,
  getKind,
  getNode,
  joinSession,
  newNode,
  PAGE_FORMAT,
  sharedRoot,
  subtreeIds,
  type NodeId,
  type Page,
  type PageNode,
} from '@gullyline/core'
import { beginningOf, blocksIn } from '../src/editor/canvas/beginning.ts'

const HEIGHT = 800
const FILLS = blocksIn(HEIGHT)
const OWN_SLOTS = ['sections', 'main', 'side', 'aside'] as const

/** A page with a header, a footer and a part, and in each slot sections of so many texts. */
function pageWith(texts: readonly (readonly number[])[]): Page {
  const nodes: Record<NodeId, PageNode> = {}
  let ids = 0
  const add = (kind: string, slots: Readonly<Record<string, readonly NodeId[]>> = {}): NodeId => {
    const id = `n${ids++}`
    nodes[id] = newNode(getKind(registry, kind), { slots })
    return id
  }
  const section = (count: number): NodeId =>
    add('section', { blocks: Array.from({ length: count }, () => add('text')) })
  const slots = OWN_SLOTS.map((name, i) => [name, (texts[i] ?? []).map(section)] as const)
  const root = add('page', Object.fromEntries(slots))
  const alone = (kind: string, id: NodeId): Page => ({
    format: PAGE_FORMAT,
    root: id,
    nodes: { [id]: newNode(getKind(registry, kind)) },
  })
  const page = { format: PAGE_FORMAT, root, nodes } as Page
  const parts = { part: alone('shared-blocks', 'part') }
  const around = { header: alone('site-header', 'top'), footer: alone('site-footer', 'bottom') }
  return joinSession({ page, ...around, parts }, () => `j${ids++}`)
}

const anyTexts = fc.array(fc.array(fc.nat({ max: 30 }), { maxLength: 12 }), { maxLength: OWN_SLOTS.length })
const slotsOf = (page: Page) => getNode(page, page.root).slots
const blocksOf = (page: Page, slot: string): number =>
  slotsOf(page)[slot]!.reduce((sum, id) => sum + subtreeIds(page, id).length, 0)

test('a page that fills no window is drawn whole', () => {
  const page = pageWith([[FILLS - 3, 20], [FILLS - 2], [], [1]])
  expect(beginningOf(page, FILLS)).toBe(page)
})

test('of any other, each slot begins as it does, and has what fills a window where there is so much', () => {
  let cut = 0
  fc.assert(
    fc.property(anyTexts, (texts) => {
      const page = pageWith(texts)
      const first = beginningOf(page, FILLS)
      if (first === page) return
      cut++
      for (const name of OWN_SLOTS) {
        const [shown, all] = [slotsOf(first)[name]!, slotsOf(page)[name]!]
        expect(shown).toEqual(all.slice(0, shown.length))
        expect(blocksOf(first, name)).toBeGreaterThanOrEqual(Math.min(FILLS, blocksOf(page, name)))
      }
    }),
  )
  expect(cut).toBeGreaterThan(20)
})

test('what is cut stands under the header and without the footer, which would show too far up', () => {
  const first = beginningOf(pageWith([Array.from({ length: 10 }, () => 20)]), FILLS)
  expect(slotsOf(first).sections!.length).toBeLessThan(10)
  expect(sharedRoot(first, 'header')).toBe('top')
  expect(sharedRoot(first, 'footer')).toBeUndefined()
  expect(sharedRoot(first, 'part')).toBe('part')
})

test('however long a page is, the same is drawn first', () => {
  const lengths = [100, 1_000].map((sections) =>
    blocksOf(beginningOf(pageWith([Array.from({ length: sections }, () => 9)]), FILLS), 'sections'),
  )
  expect(lengths[0]).toBe(lengths[1])
})
