/** Choosing between two versions: the side that was chosen is what stands there, and undo brings the other one. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  applyEdits,
  defaultRegistry,
  findNode,
  mergePages,
  readValue,
  type Page,
  type Side,
} from '@gullyline/core'
import { anyPage, editFor } from '../../core/test/arbitraries/page.ts'
import { openEditor, unsavedCount } from '../src/editor/session/editor-state.ts'
import { EditorStore } from '../src/editor/session/editor-store.ts'
import { Journal } from '../src/editor/session/journal.ts'
import { mergeIn } from '../src/editor/session/merge-in.ts'
import { someStorage } from './support/storage.ts'

const DOCUMENTS = { page: 'page', header: 'header', footer: 'footer' }
const current = { number: 2, savedAt: '2026-01-01T00:00:00.000Z', savedBy: 'Tarn' }
const STALE = [{ documentId: 'page', current }]

function edited(page: Page, seeds: readonly number[]): Page {
  let now = page
  for (const seed of seeds) {
    const [edit] = fc.sample(editFor(now), { numRuns: 1, seed })
    const result = applyEdits(now, [edit!], defaultRegistry)
    if (result.ok) now = result.page
  }
  return now
}

function described(page: Page, value: string): Page {
  const edit = { edit: 'set', nodeId: page.root, at: ['content', 'description'], value } as const
  const result = applyEdits(page, [edit], defaultRegistry)
  if (!result.ok) throw new Error(result.message)
  return result.page
}

function open(page: Page): EditorStore {
  const owner = { personId: 'ines', pageId: 'page', tab: 'tab' }
  return new EditorStore(openEditor(page, 1), defaultRegistry, new Journal(someStorage(), owner))
}

const seeds = fc.array(fc.integer(), { maxLength: 6 })
const sides = fc
  .tuple(anyPage, seeds, seeds)
  // The ids of what is added come of the seeds: two people never add two blocks of one id.
  .filter(([, a, b]) => !a.some((seed) => b.includes(seed)))

describe.each<Side>(['ours', 'theirs'])('with %s chosen everywhere', (side) => {
  test('each value that both changed is that side’s; one undo makes it the other’s', () => {
    let conflicts = 0
    fc.assert(
      fc.property(sides, ([base, a, b]) => {
        // Besides whatever else they did, both wrote another description.
        const [ours, theirs] = [described(edited(base, a), 'Ours'), described(edited(base, b), 'Theirs')]
        const mine = open(ours)
        const versions = { base, ours, theirs }
        const asked = mergePages(versions, defaultRegistry).conflicts.filter((one) => one.type === 'value')
        const before = mine.state.history.done.length
        expect(mergeIn(mine, DOCUMENTS, { current, stale: STALE, base, theirs }, () => side)).toBe(true)
        const valueIn = (page: Page, conflict: (typeof asked)[number]) => {
          const node = findNode(page, conflict.nodeId)
          return node && readValue(node, conflict.at)
        }
        for (const conflict of asked) {
          if (!findNode(mine.state.page, conflict.nodeId)) continue
          conflicts++
          expect(valueIn(mine.state.page, conflict)).toEqual(conflict[side])
        }
        expect(mine.state.page).toEqual(mergePages(versions, defaultRegistry, () => side).page)
        if (asked.length === 0 || mine.state.history.done.length === before) return
        mine.dispatch({ type: 'undo' })
        const other = side === 'ours' ? 'theirs' : 'ours'
        for (const conflict of asked)
          if (findNode(mine.state.page, conflict.nodeId))
            expect(valueIn(mine.state.page, conflict)).toEqual(conflict[other])
      }),
      { numRuns: 200 },
    )
    expect(conflicts).toBeGreaterThanOrEqual(200)
  })
})

test('what was selected and typed in stays so, and merging the same page is saved at once', () => {
  const [page] = fc.sample(anyPage, { numRuns: 1, seed: 7 }) as [Page]
  const id = Object.keys(page.nodes).find((one) => one !== page.root)!
  const theirs = edited(page, [1, 2, 3])
  const store = open(page)
  store.dispatch({ type: 'select', id })
  mergeIn(store, DOCUMENTS, { current, stale: STALE, base: page, theirs }, () => 'ours')
  if (findNode(store.state.page, id)) expect(store.state.selection).toBe(id)
  expect(store.state.page).toEqual(theirs)
  expect([unsavedCount(store.state), store.state.saved.version]).toEqual([0, 2])
})
