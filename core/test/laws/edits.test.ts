import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { timesOf } from '../../../scripts/lib/soak.mjs'
import { defaultRegistry as registry } from '../../src/blocks/default-registry.ts'
import { validatePage } from '../../src/blocks/validate-page.ts'
import { applyEdit, EDIT_NAMES, editSentence } from '../../src/edits/edit.ts'
import type { Edit } from '../../src/edits/edit-shapes.ts'
import { replaceEdits } from '../../src/edits/compose.ts'
import { applyEdits, type Transaction } from '../../src/edits/transaction.ts'
import { EMPTY_HISTORY, record, redo, undo, type History } from '../../src/edits/undo.ts'
import { findPlace } from '../../src/page/walk.ts'
import { outlineOf } from '../../src/resolve/outline.ts'
import { Counts } from '../arbitraries/counts.ts'
import { anyPage, editFor, pageWith } from '../arbitraries/page.ts'

const RUNS = { numRuns: timesOf(600, 20000) }
const pageAndEdit = anyPage.chain((page) => editFor(page).map((edit) => ({ page, edit })))
const pageAndEdits = anyPage.chain((page) =>
  fc
    .array(fc.integer({ min: 0, max: 2 ** 31 - 1 }), { minLength: 1, maxLength: 6 })
    .map((seeds) => ({ page, seeds })),
)

/** Edits one after another, each made for the page as it then is. */
function walk(
  page: typeof pageAndEdits extends fc.Arbitrary<infer V> ? (V extends { page: infer P } ? P : never) : never,
  seeds: number[],
) {
  let current = page
  const done: { edit: Edit; inverse: readonly Edit[] }[] = []
  for (const seed of seeds) {
    const [edit] = fc.sample(editFor(current), { numRuns: 1, seed })
    const result = applyEdits(current, [edit!], registry)
    if (!result.ok) continue
    done.push({ edit: edit!, inverse: result.inverse })
    current = result.page
  }
  return { current, done }
}

function freeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null) Object.values(Object.freeze(value)).forEach(freeze)
  return value
}

describe('every edit', () => {
  test('takes itself back: applying the inverse gives the page before', () => {
    const seen = new Map<string, number>()
    const counts = new Counts()
    fc.assert(
      fc.property(pageAndEdit, ({ page, edit }) => {
        const applied = applyEdit(page, edit, registry)
        if (!applied.ok) return counts.skip()
        counts.look()
        seen.set(edit.edit, (seen.get(edit.edit) ?? 0) + 1)
        const back = applyEdit(applied.page, applied.inverse, registry)
        expect(back.ok && back.page).toEqual(page)
      }),
      RUNS,
    )
    counts.expectLooked(0.35)
    // The law means something only if edits of every name were really applied.
    expect([...seen.keys()].sort()).toEqual([...EDIT_NAMES].sort())
  })

  test('mutates nothing, refused or not, and leaves untouched nodes their identity', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(pageAndEdit, ({ page, edit }) => {
        const before = JSON.stringify(page)
        const applied = applyEdit(freeze(page), freeze(edit), registry)
        expect(JSON.stringify(page)).toBe(before)
        if (!applied.ok) {
          expect(applied.message).not.toBe('')
          return counts.skip()
        }
        counts.look()
        const changed = Object.keys(applied.page.nodes).filter(
          (id) => applied.page.nodes[id] !== page.nodes[id],
        )
        const limit = edit.edit === 'insert' ? Object.keys(edit.nodes).length + 1 : 2
        expect(changed.length).toBeLessThanOrEqual(limit)
      }),
      RUNS,
    )
    counts.expectLooked(0.35)
  })

  test('leads to a valid page', () => {
    fc.assert(
      fc.property(pageAndEdits, ({ page, seeds }) => {
        expect(validatePage(walk(page, seeds).current, registry)).toEqual([])
      }),
      RUNS,
    )
  })

  test('leaves every block findable where it stands, by what was known before as by reading the page anew', () => {
    fc.assert(
      fc.property(pageAndEdits, ({ page, seeds }) => {
        const { current } = walk(page, seeds)
        const anew = { ...current, nodes: { ...current.nodes } }
        for (const id of Object.keys(page.nodes).concat(Object.keys(current.nodes))) {
          expect(findPlace(current, id)).toEqual(findPlace(anew, id))
        }
        expect(outlineOf(current, registry)).toEqual(outlineOf(anew, registry))
      }),
      RUNS,
    )
  })

  test('survives JSON and is told of in a sentence', () => {
    fc.assert(
      fc.property(pageAndEdit, ({ page, edit }) => {
        const copy = JSON.parse(JSON.stringify(edit)) as Edit
        const applied = applyEdit(page, edit, registry)
        expect(applyEdit(page, copy, registry)).toEqual(applied)
        if (applied.ok) expect(editSentence(page, edit, registry)).toMatch(/^[A-Z].+/)
      }),
      RUNS,
    )
  })
})

describe('kinds', () => {
  test.each([...registry.kinds.values()].map((kind) => [kind.kind, kind] as const))(
    'a page with a %s is valid, as made and as read from JSON',
    (_name, kind) => {
      fc.assert(
        fc.property(pageWith(kind), (page) => {
          const rootKind = page.nodes[page.root]!.kind
          expect(validatePage(JSON.parse(JSON.stringify(page)), registry, rootKind)).toEqual([])
        }),
        { numRuns: 100 },
      )
    },
  )
})

describe('transactions and undo', () => {
  const at = (n: number): Pick<Transaction, 'at' | 'label' | 'origin'> => ({
    at: n * 10_000,
    label: 'x',
    origin: 'test',
  })

  test('n undos give the first page, n redos the last', () => {
    fc.assert(
      fc.property(pageAndEdits, ({ page, seeds }) => {
        const { current, done } = walk(page, seeds)
        let history: History = EMPTY_HISTORY
        done.forEach(({ edit, inverse }, index) => {
          history = record(history, { ...at(index), edits: [edit] }, inverse)
        })
        let state = { page: current, history }
        for (
          let step = undo(state.history, state.page, registry);
          step;
          step = undo(state.history, state.page, registry)
        )
          state = step
        expect(state.page).toEqual(page)
        for (
          let step = redo(state.history, state.page, registry);
          step;
          step = redo(state.history, state.page, registry)
        )
          state = step
        expect(state.page).toEqual(current)
      }),
      RUNS,
    )
  })

  test('are all or nothing', () => {
    fc.assert(
      fc.property(pageAndEdit, ({ page, edit }) => {
        const result = applyEdits(page, [edit, { edit: 'remove', nodeId: 'nosuch' }], registry)
        expect(result.ok).toBe(false)
      }),
      RUNS,
    )
  })

  test('letters typed without a pause are one step, after a pause another', () => {
    const page = fc.sample(pageWith(registry.kinds.get('heading')!), { numRuns: 1, seed: 1 })[0]!
    const nodeId = Object.keys(page.nodes).find((id) => page.nodes[id]!.kind === 'heading')!
    let state = { page, history: EMPTY_HISTORY }
    ;[0, 100, 200, 5000].forEach((time, index) => {
      const transaction: Transaction = {
        label: 'Typed',
        origin: 'test',
        at: time,
        joinKey: nodeId,
        edits: [{ edit: 'set', nodeId, at: ['content', 'text'], value: 'abcd'.slice(0, index + 1) }],
      }
      const result = applyEdits(state.page, transaction.edits, registry)
      if (!result.ok) throw new Error(result.message)
      state = { page: result.page, history: record(state.history, transaction, result.inverse) }
    })
    expect(state.history.done).toHaveLength(2)
    const once = undo(state.history, state.page, registry)!
    expect(once.page.nodes[nodeId]!.content.text).toBe('abc')
    expect(undo(once.history, once.page, registry)!.page).toEqual(page)
  })

  test('one page can be replaced by another with edits alone', () => {
    fc.assert(
      fc.property(anyPage, anyPage, (a, b) => {
        const result = applyEdits(a, replaceEdits(a, b), registry)
        if (!result.ok) throw new Error(result.message)
        expect({ ...result.page.nodes, [a.root]: null }).toEqual({ ...b.nodes, [b.root]: null })
        const back = applyEdits(result.page, result.inverse, registry)
        expect(back.ok && back.page).toEqual(a)
      }),
      { numRuns: 200 },
    )
  })
})
