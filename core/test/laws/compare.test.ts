/** Laws of comparing and merging, over any pages that edits lead to. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { timesOf } from '../../../scripts/lib/soak.mjs'
import { diff3Merge } from 'node-diff3'
import { defaultRegistry as registry } from '../../src/blocks/default-registry.ts'
import { validatePage } from '../../src/blocks/validate-page.ts'
import { describeConflict, type Conflict, type Side } from '../../src/compare/conflict.ts'
import { changeSentences } from '../../src/compare/change-sentences.ts'
import { diffPages } from '../../src/compare/diff-pages.ts'
import { deltaBetween, withDelta } from '../../src/compare/page-delta.ts'
import { mergeLists } from '../../src/compare/merge-lists.ts'
import { mergePages } from '../../src/compare/merge-pages.ts'
import { changedAddresses } from '../../src/compare/values.ts'
import { applyEdit } from '../../src/edits/edit.ts'
import { readValue } from '../../src/edits/set.ts'
import { applyEdits } from '../../src/edits/transaction.ts'
import { sameJson } from '../../src/page/json.ts'
import { findNode, getNode, type Page } from '../../src/page/page.ts'
import { findPlace } from '../../src/page/walk.ts'
import { Counts } from '../arbitraries/counts.ts'
import { anyPage, editFor } from '../arbitraries/page.ts'

const RUNS = { numRuns: timesOf(300, 6000) }

/** A page after a few edits, drawn so that ids made on different branches differ. */
function edited(page: Page, branch: string, count: number): fc.Arbitrary<Page> {
  if (count === 0) return fc.constant(page)
  return editFor(page, branch).chain((edit) => {
    const applied = applyEdit(page, edit, registry)
    return edited(applied.ok ? applied.page : page, branch, count - 1)
  })
}

const twoBranches = anyPage.chain((base) =>
  fc.record({ base: fc.constant(base), ours: edited(base, 'o', 4), theirs: edited(base, 't', 4) }),
)

describe('the difference of two pages', () => {
  test('leads from one to the other, and there is none between alike ones', () => {
    fc.assert(
      fc.property(twoBranches, ({ base, ours, theirs }) => {
        for (const [from, to] of [
          [base, ours],
          [ours, base],
          [ours, theirs],
        ] as const) {
          const edits = diffPages(from, to, registry)
          const result = applyEdits(from, edits, registry)
          expect(result.ok ? result.page : result).toEqual(to)
          expect(diffPages(to, to, registry)).toEqual([])
        }
      }),
      RUNS,
    )
  })

  test('as stored leads from one to the other, through JSON, and holds no node that both have', () => {
    let shared = 0
    fc.assert(
      fc.property(twoBranches, ({ base, ours, theirs }) => {
        for (const [from, to] of [
          [base, ours],
          [ours, theirs],
        ] as const) {
          const stored = JSON.parse(JSON.stringify(deltaBetween(from, to))) as ReturnType<typeof deltaBetween>
          expect(withDelta(from, stored)).toEqual(to)
          for (const id of Object.keys(stored.nodes)) expect(findNode(from, id)).not.toEqual(findNode(to, id))
          shared += Object.keys(to.nodes).length - Object.keys(stored.nodes).length
        }
      }),
      RUNS,
    )
    expect(shared).toBeGreaterThan(RUNS.numRuns)
  })

  test('is told in at most thirteen sentences, none twice, and in none between alike ones', () => {
    let told = 0
    fc.assert(
      fc.property(twoBranches, ({ ours, theirs }) => {
        const sentences = changeSentences(ours, theirs, registry)
        expect(sentences.length).toBeLessThanOrEqual(13)
        expect(new Set(sentences).size).toBe(sentences.length)
        expect(sentences.length > 0).toBe(diffPages(ours, theirs, registry).length > 0)
        for (const sentence of sentences) expect(sentence).toMatch(/^\p{Lu}/u)
        expect(changeSentences(ours, ours, registry)).toEqual([])
        told += sentences.length
      }),
      RUNS,
    )
    expect(told).toBeGreaterThan(RUNS.numRuns)
  })

  test('a block moved from first to last is one move', () => {
    const page = fc.sample(anyPage, { numRuns: 200, seed: 7 }).find((one) => {
      return (getNode(one, one.root).slots.sections?.length ?? 0) > 1
    })!
    const [first, ...rest] = getNode(page, page.root).slots.sections!
    const edit = {
      edit: 'move',
      nodeId: first!,
      toParentId: page.root,
      toSlot: 'sections',
      toIndex: rest.length,
    } as const
    const moved = applyEdit(page, edit, registry)
    expect(diffPages(page, moved.ok ? moved.page : page, registry)).toHaveLength(1)
  })

  test('pages of different roots are not compared', () => {
    const [page] = fc.sample(anyPage, 1) as [Page]
    const other = { ...page, root: 'other', nodes: { ...page.nodes, other: getNode(page, page.root) } }
    expect(() => diffPages(page, other, registry)).toThrow(/different roots/)
  })
})

const swapped: Readonly<Record<Side, Side>> = { ours: 'theirs', theirs: 'ours' }
const keys = (conflicts: readonly Conflict[]) => conflicts.map((one) => one.key).sort()

describe('merging', () => {
  test('with one side unchanged, or both the same, gives the changed page and no conflict', () => {
    fc.assert(
      fc.property(twoBranches, ({ base, ours }) => {
        expect(mergePages({ base, ours, theirs: base }, registry)).toEqual({ page: ours, conflicts: [] })
        expect(mergePages({ base, ours: base, theirs: ours }, registry)).toEqual({
          page: ours,
          conflicts: [],
        })
        expect(mergePages({ base, ours, theirs: ours }, registry)).toEqual({ page: ours, conflicts: [] })
      }),
      RUNS,
    )
  })

  test('swapping the sides gives the same page, and the same conflicts the other way round', () => {
    fc.assert(
      fc.property(twoBranches, ({ base, ours, theirs }) => {
        const one = mergePages({ base, ours, theirs }, registry)
        const other = mergePages({ base, ours: theirs, theirs: ours }, registry)
        expect(keys(other.conflicts)).toEqual(keys(one.conflicts))
        if (!one.conflicts.some((conflict) => conflict.type === 'page')) expect(other.page).toEqual(one.page)
      }),
      RUNS,
    )
  })

  test('gives a valid page, whatever is chosen, and every conflict has sides that can be told apart', () => {
    fc.assert(
      fc.property(twoBranches, fc.infiniteStream(fc.boolean()), ({ base, ours, theirs }, coins) => {
        const versions = { base, ours, theirs }
        const { page, conflicts } = mergePages(versions, registry, () =>
          coins.next().value ? 'ours' : 'theirs',
        )
        expect(validatePage(page, registry)).toEqual([])
        for (const conflict of conflicts) {
          const words = describeConflict(conflict, versions, registry)
          expect(words.title).not.toBe('')
          expect(words.ours).not.toBe(words.theirs)
        }
      }),
      RUNS,
    )
  })

  test('where a whole page is to be chosen, each side says all that it changed', () => {
    let told = 0
    fc.assert(
      fc.property(twoBranches, (versions) => {
        const whole: Conflict = { key: 'page', type: 'page', nodeId: versions.base.root }
        const words = describeConflict(whole, versions, registry)
        for (const side of ['ours', 'theirs'] as const) {
          const changes = diffPages(versions.base, versions[side], registry).length
          if (changes === 0) expect(words[side]).toBe('The page as it was opened')
          else expect(words[side].split('\n').length).toBeGreaterThanOrEqual(changes)
          told += changes
        }
      }),
      RUNS,
    )
    expect(told).toBeGreaterThan(RUNS.numRuns)
  })

  test('every change of either side is in the result, or shown as a conflict', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(twoBranches, ({ base, ours, theirs }) => {
        const { page, conflicts } = mergePages({ base, ours, theirs }, registry)
        if (conflicts.some((conflict) => conflict.type === 'page')) return counts.skip()
        counts.look()
        for (const side of [ours, theirs]) expect(lostChanges(base, side, page, conflicts)).toEqual([])
      }),
      RUNS,
    )
    counts.expectLooked(0.7)
  })

  test('choosing a side for every conflict keeps all of that side’s values', () => {
    fc.assert(
      fc.property(twoBranches, fc.constantFrom<Side>('ours', 'theirs'), (versions, side) => {
        const { page } = mergePages(versions, registry, () => side)
        const mirrored = mergePages(
          { base: versions.base, ours: versions.theirs, theirs: versions.ours },
          registry,
          () => swapped[side],
        )
        expect(mirrored.page).toEqual(page)
      }),
      RUNS,
    )
  })
})

/** Changes from `base` to `side` that neither stand in `merged` nor are named by a conflict. */
function lostChanges(base: Page, side: Page, merged: Page, conflicts: readonly Conflict[]): string[] {
  const told = (id: string): boolean => {
    for (
      let at: string | undefined = id;
      at !== undefined;
      at = (findPlace(side, at) ?? findPlace(base, at))?.parentId
    )
      if (conflicts.some((conflict) => conflict.nodeId === at)) return true
    return false
  }
  const lost: string[] = []
  for (const [id, node] of Object.entries(side.nodes)) {
    const [before, now] = [findNode(base, id), findNode(merged, id)]
    if (!before && !now && !told(id)) lost.push(`added ${id}`)
    if (!before || !now) continue
    for (const at of changedAddresses(before, node))
      if (!sameJson(readValue(now, at), readValue(node, at)) && !told(id)) lost.push(`${id} ${at.join('/')}`)
    const parentOf = (page: Page) => findPlace(page, id)?.parentId
    if (parentOf(base) !== parentOf(side) && parentOf(merged) !== parentOf(side) && conflicts.length === 0)
      lost.push(`moved ${id}`)
  }
  for (const id of Object.keys(base.nodes))
    if (!findNode(side, id) && findNode(merged, id) && conflicts.length === 0) lost.push(`removed ${id}`)
  return lost
}

describe('lists', () => {
  const list = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 7 })
  /** A list with some taken out and some new ones put in: what diff3 knows of. */
  const changed = (base: readonly string[], fresh: string) =>
    fc
      .record({
        kept: fc.subarray([...base], { minLength: Math.max(0, base.length - 2) }),
        added: fc.array(fc.record({ at: fc.nat(8), name: fc.constantFrom(...fresh) }), { maxLength: 2 }),
      })
      .map(({ kept, added }) => {
        const result = [...kept]
        for (const { at, name } of added)
          if (!result.includes(name)) result.splice(Math.min(at, result.length), 0, name)
        return result
      })

  test('merge as node-diff3 (a general-purpose reference) does, wherever it sees no conflict', () => {
    let compared = 0
    fc.assert(
      fc.property(
        list.chain((base) =>
          fc.record({ base: fc.constant(base), ours: changed(base, 'xyz'), theirs: changed(base, 'uvw') }),
        ),
        ({ base, ours, theirs }) => {
          const regions = diff3Merge(ours, base, theirs, { excludeFalseConflicts: true })
          if (regions.some((region) => region.conflict)) return
          compared++
          const members = [...ours, ...theirs].filter(
            (one) => !base.includes(one) || (ours.includes(one) && theirs.includes(one)),
          )
          const only = (one: readonly string[]) => one.filter((id) => members.includes(id))
          const merged = mergeLists({ base: only(base), ours: only(ours), theirs: only(theirs) }, () => true)
          expect(merged.list).toEqual(regions.flatMap((region) => region.ok ?? []))
          expect(merged.contradiction).toBeUndefined()
        },
      ),
      { numRuns: 1000 },
    )
    expect(compared).toBeGreaterThan(300)
  })

  test('two different orders of the same things are a contradiction, one is not', () => {
    const base = ['a', 'b', 'c']
    const one = mergeLists({ base, ours: ['c', 'a', 'b'], theirs: base }, () => false)
    expect(one).toEqual({ list: ['c', 'a', 'b'] })
    const two = mergeLists({ base, ours: ['c', 'a', 'b'], theirs: ['b', 'a', 'c'] }, () => false)
    expect(two.list).toEqual(['b', 'a', 'c'])
    expect(two.contradiction).toEqual({ ours: ['c', 'a', 'b'], theirs: ['b', 'a', 'c'] })
  })
})
