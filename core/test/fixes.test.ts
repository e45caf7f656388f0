/** Changes that may mend a gully: which values they set, and at which sizes. Whether they do is measured in the browser tests. */
import { expect, test } from '@jest/globals'
import { newNode } from '../src/blocks/define-block.ts'
import { defaultRegistry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { fixCandidates } from '../src/measure/fixes.ts'
import type { Gully } from '../src/measure/gully.ts'
import { RULES } from '../src/measure/sweep.ts'
import { PAGE_FORMAT, type Page, type PageNode } from '../src/page/page.ts'
import { USUAL_SIZES } from '../src/sizes/site-sizes.ts'
import { cascadeValue } from '../src/sizes/cascade.ts'

const LOOK = { sizes: USUAL_SIZES }
const { arrangement } = getKind(defaultRegistry, 'row')

function pageWith(row: Partial<PageNode>): Page {
  const make = (kind: string, given: Partial<PageNode>): PageNode =>
    newNode(getKind(defaultRegistry, kind), given)
  const nodes = {
    root: make('page', { slots: { sections: ['section'] } }),
    section: make('section', { slots: { blocks: ['row'] } }),
    row: make('row', { slots: { blocks: ['heading'] }, ...row }),
    heading: make('heading', { content: { text: 'Spectroheliograph', level: 2 } }),
  }
  return { format: PAGE_FORMAT, root: 'root', nodes }
}

function gully(rule: string, from: number, to: number): Gully {
  const { source, severity } = RULES.get(rule)!
  return { rule, nodeId: 'row', from, to, worst: from, why: '', source, severity }
}

function fixed(page: Page, found: Gully, title: string): PageNode {
  const fix = fixCandidates(page, found, { registry: defaultRegistry, look: LOOK }).find(
    (one) => one.title === title,
  )
  const applied = applyEdits(page, fix!.edits, defaultRegistry)
  if (!applied.ok) throw new Error(applied.message)
  return applied.page.nodes.row!
}

test('a value is set at the widest size that a gully reaches, and again only where a narrower one has its own', () => {
  expect(fixed(pageWith({}), gully('sideways', 320, 1920), 'Stack vertically').sizes).toEqual({
    base: { direction: 'down' },
  })
  const own = pageWith({ sizes: { base: {}, narrow: { direction: 'across' } } })
  expect(fixed(own, gully('sideways', 320, 1920), 'Stack vertically').sizes).toEqual({
    base: { direction: 'down' },
    narrow: { direction: 'down' },
  })
  // Wider sizes are left alone.
  expect(fixed(pageWith({}), gully('sideways', 320, 600), 'Stack vertically').sizes).toEqual({
    base: {},
    narrow: { direction: 'down' },
  })
})

test('what is hidden is hidden at the sizes of the gully, and shown at the others as before', () => {
  const shownAt = (row: PageNode) =>
    (['base', 'medium', 'narrow'] as const).map((size) => cascadeValue(row, arrangement, size, 'shown').value)
  const hide = (from: number, to: number, page = pageWith({})) =>
    shownAt(fixed(page, gully('sideways', from, to), 'Hide at this size'))
  expect(hide(1300, 1920)).toEqual([false, true, true])
  expect(hide(800, 1920)).toEqual([false, false, true])
  expect(hide(800, 1100)).toEqual([true, false, true])
  expect(hide(320, 1920)).toEqual([false, false, false])
  const hidden = pageWith({ sizes: { base: {}, narrow: { shown: false } } })
  expect(hide(800, 1920, hidden)).toEqual([false, false, false])
})

test('every rule has at least one change to try', () => {
  for (const rule of RULES.keys()) {
    const found = fixCandidates(pageWith({}), gully(rule, 320, 600), {
      registry: defaultRegistry,
      look: LOOK,
    })
    expect({ rule, count: found.length > 0 }).toEqual({ rule, count: true })
  }
})
