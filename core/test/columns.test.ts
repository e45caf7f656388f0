/** How many columns there are and how wide each is: no block is lost, and widths are always 100 % in all, at every size. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import {
  columnCountEdits,
  columnShareEdits,
  columnShares,
  evenShares,
  hasOwnShares,
  putBackSharesEdits,
  sharesWith,
} from '../src/edits/columns.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { getNode, type NodeId, type Page } from '../src/page/page.ts'
import { arrangeNode } from '../src/render/arranged-rules.ts'
import { USUAL_KEYS as SIZE_KEYS } from '../src/sizes/size-keys.ts'
import { countingIds, pageWith } from './arbitraries/page.ts'

const RUNS = { numRuns: 1000 }
const pages = pageWith(registry.kinds.get('columns')!)
const anyCount = fc.integer({ min: 1, max: 6 })
const anyPercent = fc.integer({ min: 1, max: 100 })
const anySize = fc.constantFrom(...SIZE_KEYS)

function applied(page: Page, edits: readonly Edit[]): Page {
  const result = applyEdits(page, edits, registry)
  if (!result.ok) throw new Error(result.message)
  return result.page
}

function columnsOf(page: Page): NodeId {
  return Object.keys(page.nodes).find((one) => page.nodes[one]!.kind === 'columns')!
}

const sum = (shares: readonly number[]): number => shares.reduce((all, share) => all + share, 0)

describe('another number of columns', () => {
  test('between any two and back loses no block, keeps their order, and adds up to 100', () => {
    fc.assert(
      fc.property(pages, fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }), (page, a, b) => {
        const id = columnsOf(page)
        const ids = countingIds('new')
        const started = applied(page, columnCountEdits(page, id, 1, registry, ids))
        const blocks = (of: Page) =>
          getNode(of, id).slots.columns!.flatMap((column) => getNode(of, column).slots.blocks!)
        let now = started
        for (const count of [a, b, a]) {
          now = applied(now, columnCountEdits(now, id, count, registry, ids))
          expect(getNode(now, id).slots.columns).toHaveLength(count)
          expect(validatePage(now, registry)).toEqual([])
          expect(blocks(now)).toEqual(blocks(started))
          for (const size of SIZE_KEYS) expect(columnShares(now, id, size)).toEqual(evenShares(count))
        }
      }),
      RUNS,
    )
  })

  test('one width by number leaves the rest in proportion, always 100 in all, none below 1', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }).chain((count) =>
          fc.record({
            count: fc.constant(count),
            at: fc.integer({ min: 0, max: count - 1 }),
            value: fc.integer({ min: -20, max: 200 }),
          }),
        ),
        ({ count, at, value }) => {
          const shares = sharesWith(evenShares(count), at, value)
          expect(shares).toHaveLength(count)
          expect(sum(shares)).toBe(100)
          expect(Math.min(...shares)).toBeGreaterThanOrEqual(1)
          if (count > 1) expect(shares[at]).toBe(Math.min(101 - count, Math.max(1, value)))
        },
      ),
      RUNS,
    )
  })

  test.each([
    [[50, 50], 0, 30, [30, 70]],
    [[25, 25, 50], 2, 40, [30, 30, 40]],
    [[34, 33, 33], 0, 10, [10, 45, 45]],
    [[100], 0, 40, [100]],
  ])('%p with column %p at %p %% is %p', (shares, at, value, result) => {
    expect(sharesWith(shares, at, value)).toEqual(result)
  })

  test('widths are set one for each column', () => {
    const page = fc.sample(pages, { numRuns: 30, seed: 5 }).find((one) => {
      const columns = Object.values(one.nodes).find((node) => node.kind === 'columns')
      return columns!.slots.columns!.length >= 1
    })!
    const id = columnsOf(page)
    const two = applied(page, columnCountEdits(page, id, 2, registry, countingIds('new')))
    expect(columnShares(applied(two, columnShareEdits(two, id, [30, 70])), id)).toEqual([30, 70])
  })
})

describe('widths at each size', () => {
  /** Columns whose widths were set by number at some sizes, in some order. */
  const set = fc.record({
    page: pages,
    count: anyCount,
    acts: fc.array(fc.record({ size: anySize, at: fc.nat({ max: 5 }), value: anyPercent }), {
      maxLength: 6,
    }),
  })
  function made({ page, count, acts }: typeof set extends fc.Arbitrary<infer T> ? T : never) {
    const id = columnsOf(page)
    let now = applied(page, columnCountEdits(page, id, count, registry, countingIds('new')))
    for (const { size, at, value } of acts) {
      const shares = sharesWith(columnShares(now, id, size), at % count, value)
      now = applied(now, columnShareEdits(now, id, shares, size))
    }
    return { page: now, id }
  }

  test('are 100 in all at each, and those of one size never change a wider one', () => {
    fc.assert(
      fc.property(set, anySize, anyPercent, (given, size, value) => {
        const { page, id } = made(given)
        for (const at of SIZE_KEYS) expect(sum(columnShares(page, id, at))).toBe(100)
        const wanted = sharesWith(columnShares(page, id, size), 0, value)
        const after = applied(page, columnShareEdits(page, id, wanted, size))
        expect(columnShares(after, id, size)).toEqual(wanted)
        for (const wider of SIZE_KEYS.slice(0, SIZE_KEYS.indexOf(size)))
          expect(columnShares(after, id, wider)).toEqual(columnShares(page, id, wider))
        expect(validatePage(after, registry)).toEqual([])
      }),
      RUNS,
    )
  })

  test('are those of the next wider size again once they are put back, and then there is nothing to put back', () => {
    fc.assert(
      fc.property(set, fc.constantFrom('medium' as const, 'narrow' as const), (given, size) => {
        const { page, id } = made(given)
        const back = applied(page, putBackSharesEdits(page, id, size))
        const wider = SIZE_KEYS[SIZE_KEYS.indexOf(size) - 1]!
        expect(columnShares(back, id, size)).toEqual(columnShares(back, id, wider))
        expect(columnShares(back, id, wider)).toEqual(columnShares(page, id, wider))
        expect(hasOwnShares(back, id, size)).toBe(false)
        expect(putBackSharesEdits(back, id, 'base')).toEqual([])
      }),
      RUNS,
    )
  })

  test('reach the page as its flex factors at that size and narrower ones (CSS Flexbox 1, 7.1)', () => {
    const page = fc.sample(pages, { numRuns: 1, seed: 7 })[0]!
    const id = columnsOf(page)
    const two = applied(page, columnCountEdits(page, id, 2, registry, countingIds('new')))
    const wide = applied(two, columnShareEdits(two, id, [30, 70]))
    const both = applied(wide, columnShareEdits(wide, id, [60, 40], 'medium'))
    const flexOf = (column: NodeId) =>
      arrangeNode(registry, getNode(both, column)).rules.flatMap(({ size, declarations }) =>
        declarations.flex === undefined ? [] : [[size, declarations.flex]],
      )
    expect(getNode(both, id).slots.columns!.map(flexOf)).toEqual([
      [
        ['base', '30 1 0'],
        ['medium', '60 1 0'],
      ],
      [
        ['base', '70 1 0'],
        ['medium', '40 1 0'],
      ],
    ])
  })
})
