/** Copying an arrangement from one size to another, and resetting one: what the copy gives, and that all other sizes stay. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { copyArrangementEdits, resetArrangementEdits } from '../src/edits/copy-arrangement.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import type { SetValue } from '../src/edits/edit-shapes.ts'
import type { Page, PageNode, SizeKey } from '../src/page/page.ts'
import { gridReports } from '../src/resolve/grid-report.ts'
import { cascade } from '../src/sizes/cascade.ts'
import { withSize } from '../src/sizes/change-sizes.ts'
import { USUAL_SIZES, type WithSizes } from '../src/sizes/site-sizes.ts'
import { anyPage, pageWith } from './arbitraries/page.ts'

const look: WithSizes = withSize({ sizes: USUAL_SIZES }, { name: 'laptop', below: 1500 })
const SIZES = look.sizes.map(({ key }) => key)
const OWN_OF_SIZES = ['cells', 'gridColumn', 'gridRow', 'gridColumns', 'gridRows', 'layer']

function applied(page: Page, edits: readonly SetValue[]): Page {
  const done = applyEdits(page, edits, registry)
  if (!done.ok) throw new Error(done.message)
  return done.page
}

/** Everything that says how the blocks of a page are arranged at a size. */
function arrangementAt(page: Page, size: SizeKey): unknown {
  const valuesOf = ({ kind, sizes }: PageNode): object => {
    const values = cascade({ sizes } as PageNode, getKind(registry, kind).arrangement, size)
    return Object.fromEntries(Object.entries(values).filter(([key]) => !OWN_OF_SIZES.includes(key)))
  }
  return {
    values: Object.fromEntries(Object.entries(page.nodes).map(([id, node]) => [id, valuesOf(node)])),
    grids: gridReports(page, registry, look).map(({ nodeId, sizes }) => {
      const { columns, placed: places, hidden } = sizes[size]!
      return { nodeId, columns, places, hidden }
    }),
  }
}

const pages = fc.oneof(anyPage, pageWith(getKind(registry, 'grid')))
const twoSizes = fc
  .tuple(fc.constantFrom(...SIZES), fc.constantFrom(...SIZES))
  .filter(([from, to]) => from !== to)

test('the copy is arranged as the original at its size, and every other size is as before', () => {
  let changed = 0
  fc.assert(
    fc.property(pages, twoSizes, (page, [from, to]) => {
      const edits = copyArrangementEdits(page, [page.root], { registry, look, from, to })
      if (edits.length > 0) changed++
      const after = applied(page, edits)
      expect(arrangementAt(after, to)).toEqual(arrangementAt(page, from))
      for (const size of SIZES)
        if (size !== to) expect([size, arrangementAt(after, size)]).toEqual([size, arrangementAt(page, size)])
      expect(copyArrangementEdits(after, [page.root], { registry, look, from, to })).toEqual([])
    }),
    { numRuns: 300 },
  )
  expect(changed).toBeGreaterThan(100)
})

test('what is reset at a size is as at the next wider one, and wider sizes stay', () => {
  fc.assert(
    fc.property(anyPage, fc.constantFrom('medium', 'narrow'), (page, size) => {
      const after = applied(page, resetArrangementEdits(page, [page.root], size))
      for (const node of Object.values(after.nodes)) expect(node.sizes).not.toHaveProperty(size)
      for (const wider of SIZES.filter((one) => one < size))
        expect(arrangementAt(after, wider)).toEqual(arrangementAt(page, wider))
      expect(resetArrangementEdits(page, [page.root], 'base')).toEqual([])
    }),
    { numRuns: 100 },
  )
})
