/** Which blocks differ: none between alike pages, and of an edit those that it touched. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { changedBlocks } from '../src/compare/changed-blocks.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { joinSession } from '../src/site/session-page.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { PAGE_FORMAT, type Page } from '../src/page/page.ts'
import { anyPage, countingIds, editFor } from './arbitraries/page.ts'

const frame = (kind: string, id: string): Page => ({
  format: PAGE_FORMAT,
  root: id,
  nodes: { [id]: newNode(getKind(registry, kind)) },
})
const session = (page: Page, parts: Record<string, Page> = {}): Page =>
  joinSession(
    { page, header: frame('site-header', 'top'), footer: frame('site-footer', 'bottom'), parts },
    countingIds('j'),
  )

test('between alike pages nothing differs, whatever parts one of them has joined beside', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      const part = { ...frame('shared-blocks', 'part') }
      expect(changedBlocks(session(page), session(page))).toEqual([])
      expect(changedBlocks(session(page, { part }), session(page))).toEqual([])
      expect(changedBlocks(session(page), session(page, { part }))).toEqual([])
    }),
    { numRuns: 100 },
  )
})

test('after an edit, what it set differs, and of what it put in or took out the outermost', () => {
  let looked = 0
  fc.assert(
    fc.property(
      anyPage.chain((page) => editFor(page).map((edit) => ({ page, edit }))),
      ({ page, edit }) => {
        const applied = applyEdit(page, edit, registry)
        if (!applied.ok) return
        const differing = changedBlocks(session(page), session(applied.page))
        looked++
        if (edit.edit === 'remove') expect(differing).toEqual([edit.nodeId])
        if (edit.edit === 'insert') expect(differing).toEqual([edit.rootId])
        if (edit.edit === 'set') expect(differing.every((id) => id === edit.nodeId)).toBe(true)
        if (edit.edit === 'remove')
          expect(subtreeIds(page, edit.nodeId)).toEqual(expect.arrayContaining([...differing]))
      },
    ),
    { numRuns: 300 },
  )
  expect(looked).toBeGreaterThan(100)
})
