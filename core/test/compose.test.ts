/** Acts made of edits: what a person means by add, duplicate, move up, on any page. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { createStarters } from '../src/blocks/starters.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import {
  copyFragment,
  duplicateEdit,
  placeAfter,
  placeEdit,
  siblingMoveEdit,
  stepMoveEdit,
  unwrapEdits,
  wrapEdits,
} from '../src/edits/compose.ts'
import { describeNode, nodeLabel } from '../src/edits/describe.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { pageWords } from '../src/resolve/page-words.ts'
import { getKind } from '../src/blocks/registry.ts'
import { getNode, type Page } from '../src/page/page.ts'
import { findPlace, isWithin, subtreeIds } from '../src/page/walk.ts'
import { Counts } from './arbitraries/counts.ts'
import { anyPage, countingIds } from './arbitraries/page.ts'

/** The slots of a page that these tests put nothing in. */
const NO_OTHERS = { main: [], side: [], aside: [] }

const starters = createStarters(registry)
const pageAndNode = anyPage.chain((page) =>
  fc.constantFrom(...subtreeIds(page, page.root)).map((id) => ({ page, id })),
)

/** The page after an edit that must fit. */
function done(page: Page, edit: Parameters<typeof applyEdit>[1]): Page {
  const applied = applyEdit(page, edit, registry)
  if (!applied.ok) throw new Error(applied.message)
  return applied.page
}

/** The slot of the page in which a node stands, at whatever depth. */
function rootSlotOf(page: Page, id: string): string | undefined {
  const place = findPlace(page, id)
  return place && place.parentId !== page.root ? rootSlotOf(page, place.parentId) : place?.slot
}

describe('adding from the shelf', () => {
  test('everything on it can be placed after anything on any page, and lands after it in reading order', () => {
    fc.assert(
      fc.property(
        pageAndNode,
        fc.constantFrom(...starters),
        fc.boolean(),
        ({ page, id }, starter, selected) => {
          const newId = countingIds('new')
          const target = placeAfter(page, selected ? id : undefined, starter.kind, registry)
          const edit = placeEdit(page, target, starter.build(newId), registry, newId)
          const after = done(page, edit)
          expect(validatePage(after, registry)).toEqual([])
          const order = subtreeIds(after, after.root)
          const place = findPlace(after, edit.rootId)
          // A section has one slot of the page to stand in, wherever on the page the selected block stands.
          const isElsewhere = place?.parentId === page.root && place.slot !== rootSlotOf(page, id)
          if (selected && !isElsewhere) expect(order.indexOf(edit.rootId)).toBeGreaterThan(order.indexOf(id))
          else expect(place?.parentId).toBe(page.root)
        },
      ),
      { numRuns: 400 },
    )
  })

  test('each builds a fresh, valid copy of its own kind, never the same ids twice', () => {
    for (const starter of starters) {
      const newId = countingIds('n')
      const [one, two] = [starter.build(newId), starter.build(newId)]
      expect(one.nodes[one.rootId]!.kind).toBe(starter.kind)
      expect(Object.keys(one.nodes).filter((id) => Object.hasOwn(two.nodes, id))).toEqual([])
    }
  })

  test('offers every kind that can be placed, and has a name and a purpose for each', () => {
    const placeable = [...registry.kinds.values()]
      .filter((kind) => kind.group !== 'root' && kind.group !== 'item' && !kind.linksTo)
      .map((kind) => kind.kind)
    expect(starters.filter((starter) => starter.type === 'block').map((starter) => starter.kind)).toEqual(
      placeable,
    )
    expect(new Set(starters.map((starter) => starter.id)).size).toBe(starters.length)
    for (const { title, about } of starters) expect(Math.min(title.length, about.length)).toBeGreaterThan(2)
  })

  test('a block on an empty page gets a section around it; in a section it does not', () => {
    const empty: Page = {
      format: 4,
      root: 'r',
      nodes: {
        r: {
          kind: 'page',
          content: {},
          look: {},
          sizes: { base: {} },
          slots: { ...NO_OTHERS, sections: [] },
        },
      },
    }
    const newId = countingIds('n')
    const heading = starters.find((starter) => starter.id === 'heading')!
    const first = placeEdit(
      empty,
      placeAfter(empty, undefined, 'heading', registry),
      heading.build(newId),
      registry,
      newId,
    )
    const page = done(empty, first)
    expect(page.nodes[first.rootId]!.kind).toBe('section')
    const inside = page.nodes[first.rootId]!.slots.blocks![0]!
    const second = placeEdit(
      page,
      placeAfter(page, inside, 'heading', registry),
      heading.build(newId),
      registry,
      newId,
    )
    expect(second).toMatchObject({ parentId: first.rootId, index: 1 })
  })
})

describe('duplicating', () => {
  test('puts an equal copy right after, which shares no id with the page', () => {
    fc.assert(
      fc.property(pageAndNode, ({ page, id }) => {
        const edit = duplicateEdit(page, id, countingIds('copy'))
        if (id === page.root) return expect(edit).toBeUndefined()
        const after = done(page, edit!)
        const [from, to] = [findPlace(after, id)!, findPlace(after, edit!.rootId)!]
        expect(to).toEqual({ ...from, index: from.index + 1 })
        const bare = (rootId: string) =>
          subtreeIds(after, rootId).map((one) => ({
            ...after.nodes[one]!,
            slots: Object.values(after.nodes[one]!.slots).map((list) => list.length),
          }))
        expect(bare(edit!.rootId)).toEqual(bare(id))
        expect(subtreeIds(after, edit!.rootId).filter((one) => Object.hasOwn(page.nodes, one))).toEqual([])
      }),
      { numRuns: 200 },
    )
  })

  test('a copied fragment is one tree of its own', () => {
    fc.assert(
      fc.property(pageAndNode, ({ page, id }) => {
        const fragment = copyFragment(page, id, countingIds('c'))
        expect(subtreeIds(fragment, fragment.rootId).sort()).toEqual(Object.keys(fragment.nodes).sort())
      }),
      { numRuns: 300 },
    )
  })
})

describe('moving up and down', () => {
  test('down then up is where it was; at the ends there is no move', () => {
    fc.assert(
      fc.property(pageAndNode, ({ page, id }) => {
        const down = stepMoveEdit(page, id, 'down')
        const place = findPlace(page, id)
        if (!down) {
          const last = place && page.nodes[place.parentId]!.slots[place.slot]!.length - 1
          return expect(place?.index).toBe(last)
        }
        const moved = done(page, down)
        expect(findPlace(moved, id)).toEqual({ ...place, index: place!.index + 1 })
        expect(done(moved, stepMoveEdit(moved, id, 'up')!)).toEqual(page)
      }),
      { numRuns: 200 },
    )
  })
})

describe('moving to the place of a sibling', () => {
  test('it is there, all others are in the order that they were in, and the way back leads back', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(anyPage, fc.nat(), fc.nat(), (page, first, second) => {
        const slots = subtreeIds(page, page.root).flatMap((id) => Object.values(getNode(page, id).slots))
        const siblings = slots.find((slot) => slot.length > 1)
        if (!siblings) return counts.skip()
        counts.look()
        const at = first % siblings.length
        const to = (at + 1 + (second % (siblings.length - 1))) % siblings.length
        const id = siblings[at]!
        expect(siblingMoveEdit(page, id, id)).toBeUndefined()
        const moved = done(page, siblingMoveEdit(page, id, siblings[to]!)!)
        const { parentId, slot } = findPlace(page, id)!
        const now = getNode(moved, parentId).slots[slot]!
        expect(now.indexOf(id)).toBe(to)
        expect(now.filter((one) => one !== id)).toEqual(siblings.filter((one) => one !== id))
        expect(done(moved, siblingMoveEdit(moved, id, now[at]!)!)).toEqual(page)
      }),
      { numRuns: 200 },
    )
    counts.expectLooked(0.1)
  })

  test('what is no sibling has no place to give', () => {
    fc.assert(
      fc.property(pageAndNode, fc.nat(), ({ page, id }, pick) => {
        const others = subtreeIds(page, page.root).filter(
          (one) => findPlace(page, one)?.parentId !== findPlace(page, id)?.parentId,
        )
        const other = others[pick % Math.max(1, others.length)]
        if (other !== undefined) expect(siblingMoveEdit(page, id, other)).toBeUndefined()
      }),
    )
  })
})

describe('words for people', () => {
  test('every node has a label that is not empty and not longer than a line, and a description', () => {
    fc.assert(
      fc.property(pageAndNode, ({ page, id }) => {
        expect(nodeLabel(page, id, registry).length).toBeGreaterThan(0)
        expect(nodeLabel(page, id, registry).length).toBeLessThanOrEqual(50)
        expect(describeNode(page, id, registry)).toMatch(/^[a-z]/)
      }),
      { numRuns: 200 },
    )
  })
})

test('a node is within itself and all that holds it, and in nothing else', () => {
  fc.assert(
    fc.property(pageAndNode, ({ page, id }) => {
      for (const other of subtreeIds(page, page.root)) {
        expect(isWithin(page, id, other)).toBe(subtreeIds(page, other).includes(id))
      }
    }),
    { numRuns: 100 },
  )
})

describe('wrapping', () => {
  const siblings = pageAndNode.chain(({ page, id }) => {
    const place = findPlace(page, id)
    const all = place ? getNode(page, place.parentId).slots[place.slot]! : []
    return fc.subarray([...all], { minLength: Math.min(1, all.length) }).map((ids) => ({ page, ids }))
  })

  test('keeps every word and every block, in a valid page, or is refused; taking the box away gives the blocks back in a row', () => {
    let wrapped = 0
    fc.assert(
      fc.property(siblings, fc.constantFrom('row', 'stack'), ({ page, ids }, kind) => {
        const wrap = wrapEdits(page, ids, kind, registry, countingIds('box'))
        if (!wrap) return expect(ids).toEqual([])
        const after = applyEdits(page, wrap.edits, registry)
        // Sections stand in nothing but the page, and items in nothing but what they are items of.
        if (!after.ok) {
          const place = findPlace(page, ids[0]!)!
          const { allow } = registry.kinds.get(getNode(page, place.parentId).kind)!.slots[place.slot]!
          const isFlow = ids.every((id) => getKind(registry, getNode(page, id).kind).group === 'flow')
          return expect(isFlow && allow.includes('flow')).toBe(false)
        }
        wrapped++
        expect(validatePage(after.page, registry)).toEqual([])
        expect([...pageWords(after.page, registry)].sort()).toEqual([...pageWords(page, registry)].sort())
        expect(getNode(after.page, wrap.containerId).slots.blocks).toEqual(ids)
        const undone = applyEdits(after.page, after.inverse, registry)
        expect(undone.ok && undone.page).toEqual(page)
        const open = applyEdits(after.page, unwrapEdits(after.page, wrap.containerId)!, registry)
        if (!open.ok) throw new Error(open.message)
        const { parentId, slot, index } = findPlace(page, ids[0]!)!
        expect(getNode(open.page, parentId).slots[slot]!.slice(index, index + ids.length)).toEqual(ids)
        expect(Object.keys(open.page.nodes).sort()).toEqual(Object.keys(page.nodes).sort())
      }),
      { numRuns: 1000 },
    )
    expect(wrapped).toBeGreaterThan(100)
  })

  test('what holds nothing has no box to take away', () => {
    fc.assert(
      fc.property(pageAndNode, ({ page, id }) => {
        const isEmpty = Object.values(getNode(page, id).slots).flat().length === 0
        expect(unwrapEdits(page, id) === undefined).toBe(isEmpty || id === page.root)
      }),
      { numRuns: 300 },
    )
  })
})
