/** Moving pages in the tree: every place that is offered is one, and steps can be taken back by steps. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { PageSummary, PlacePageRequest } from '@gullyline/core'
import { inTreeOrder } from '../src/pages/page-order.ts'
import { dropPlace, stepPlace, withSubPages, type MoveDirection } from '../src/pages/tree-moves.ts'
import { Counts } from '../../core/test/arbitraries/counts.ts'

const HOME = 'p0'

/** A tree of pages: each but the first stands under nothing, or under one that came before it and is not the home page. */
const anyTree: fc.Arbitrary<PageSummary[]> = fc
  .array(fc.nat({ max: 1000 }), { minLength: 1, maxLength: 9 })
  .map((choices) => {
    const places: { id: string; parentId: string | null; position: number }[] = [
      { id: HOME, parentId: null, position: 0 },
    ]
    choices.forEach((choice, i) => {
      const parents = [null, ...places.slice(1).map(({ id }) => id)]
      const parentId = parents[choice % parents.length]!
      const position = places.filter((one) => one.parentId === parentId).length
      places.push({ id: `p${i + 1}`, parentId, position })
    })
    return places as PageSummary[]
  })
const treeAndPage = anyTree.chain((pages) => fc.constantFrom(...pages).map((page) => ({ pages, page })))

/** The tree once a page stands where it was asked to, as the server does it: siblings close up and make room. */
function placed(pages: readonly PageSummary[], id: string, place: PlacePageRequest): PageSummary[] {
  const left = pages.filter((page) => page.id !== id)
  const renumbered = (parentId: string | null, more: (siblings: PageSummary[]) => PageSummary[]) =>
    more(left.filter((page) => page.parentId === parentId).sort((a, b) => a.position - b.position))
  const moved = { ...pages.find((page) => page.id === id)!, parentId: place.parentId }
  const parents = new Set([...left.map((page) => page.parentId), place.parentId])
  return [...parents].flatMap((parentId) =>
    renumbered(parentId, (siblings) =>
      parentId === place.parentId
        ? [...siblings.slice(0, place.position), moved, ...siblings.slice(place.position)]
        : siblings,
    ).map((page, position) => ({ ...page, position })),
  )
}
const shape = (pages: readonly PageSummary[]) =>
  inTreeOrder(pages).map(({ page, depth }) => `${'-'.repeat(depth)}${page.id}`)
const step = (pages: readonly PageSummary[], id: string, direction: MoveDirection) =>
  stepPlace(
    pages,
    pages.find((page) => page.id === id)!,
    direction,
    HOME,
  )

describe('a step of a page in the tree', () => {
  test('leads to a place that there is, never under itself, and never before the first page', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(
        treeAndPage,
        fc.constantFrom<MoveDirection>('up', 'down', 'in', 'out'),
        ({ pages, page }, direction) => {
          const place = step(pages, page.id, direction)
          if (!place) return counts.skip()
          counts.look()
          expect(withSubPages(pages, page.id).has(place.parentId ?? '')).toBe(false)
          const next = placed(pages, page.id, place)
          expect(next.length).toBe(pages.length)
          expect(shape(next).length).toBe(pages.length)
          expect(shape(next)[0]).toBe(HOME)
          expect(shape(next)).not.toEqual(shape(pages))
        },
      ),
      { numRuns: 1000 },
    )
    counts.expectLooked(0.12)
  })

  test('is taken back by the one in the other direction', () => {
    const opposite = { up: 'down', down: 'up' } as const
    const counts = new Counts()
    fc.assert(
      fc.property(treeAndPage, fc.constantFrom('up', 'down'), ({ pages, page }, direction) => {
        const place = step(pages, page.id, direction)
        if (!place) return counts.skip()
        counts.look()
        const next = placed(pages, page.id, place)
        const back = step(next, page.id, opposite[direction])!
        expect(shape(placed(next, page.id, back))).toEqual(shape(pages))
      }),
      { numRuns: 500 },
    )
    counts.expectLooked(0.12)
  })

  test('in and out again stands right after what it was under', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(treeAndPage, ({ pages, page }) => {
        const into = step(pages, page.id, 'in')
        if (!into) return counts.skip()
        counts.look()
        const inside = placed(pages, page.id, into)
        const out = placed(inside, page.id, step(inside, page.id, 'out')!)
        expect(shape(out)).toEqual(shape(pages))
      }),
      { numRuns: 500 },
    )
    counts.expectLooked(0.12)
  })
})

test('a page that is dropped stands where it was let go: right after a page, or last under it', () => {
  const tried = treeAndPage.chain((one) =>
    fc.record({
      pages: fc.constant(one.pages),
      moving: fc.constant(one.page),
      on: fc.constantFrom(...one.pages),
      where: fc.constantFrom<'after' | 'inside'>('after', 'inside'),
    }),
  )
  const counts = new Counts()
  fc.assert(
    fc.property(tried, ({ pages, moving, on, where }) => {
      // The screen offers no place within what is dragged.
      if (withSubPages(pages, moving.id).has(on.id)) return counts.skip()
      counts.look()
      const next = placed(pages, moving.id, dropPlace(pages, moving.id, on, where))
      const siblings = next
        .filter((page) => page.parentId === (where === 'after' ? on.parentId : on.id))
        .sort((a, b) => a.position - b.position)
        .map(({ id }) => id)
      if (where === 'inside') expect(siblings.at(-1)).toBe(moving.id)
      else expect(siblings[siblings.indexOf(on.id) + 1]).toBe(moving.id)
    }),
    { numRuns: 500 },
  )
  counts.expectLooked(0.12)
})
