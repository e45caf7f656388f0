/** Moving what is placed on a grid: to lines that something shares, and several at once. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { newNode } from '../src/blocks/define-block.ts'
import { defaultRegistry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { toFlow, toGrid } from '../src/edits/grid-conversion.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { PAGE_FORMAT, type Page, type PageNode } from '../src/page/page.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { columnEnd, overlap, rowEnd, type Placed } from '../src/grid/placed.ts'
import {
  aligned,
  closeUp,
  distributed,
  emptyRowsAbove,
  makeRoom,
  relayered,
  resizedTogether,
} from '../src/grid/rearrange.ts'
import { guidesOf, resized, snapped, spansThatCentre } from '../src/grid/snap.ts'
import { at } from './fixtures/placed.ts'

const COLUMNS = 12
const placed = fc
  .array(
    fc.record({
      column: fc.integer({ min: 1, max: COLUMNS }),
      row: fc.integer({ min: 1, max: 20 }),
      columns: fc.integer({ min: 1, max: COLUMNS }),
      rows: fc.integer({ min: 1, max: 5 }),
      layer: fc.integer({ min: 0, max: 4 }),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map((all): Placed[] =>
    all.map((one, i) => ({
      ...one,
      id: `n${i}`,
      column: Math.min(one.column, COLUMNS + 1 - Math.min(COLUMNS, one.columns)),
    })),
  )
const chosen = fc.func(fc.boolean())
const idsOf = (all: readonly Placed[], isChosen: (id: string) => boolean): ReadonlySet<string> =>
  new Set(all.filter(({ id }) => isChosen(id)).map(({ id }) => id))
const isIn = ({ column, row, columns, rows }: Omit<Placed, 'id' | 'layer'>): boolean =>
  column >= 1 && row >= 1 && columns >= 1 && rows >= 1 && column + columns <= COLUMNS + 1

describe('dragging', () => {
  test('what is dragged anywhere lands on whole lines inside the grid, less than a column and a row from the wish', () => {
    const wish = fc.record({
      column: fc.double({ min: 1, max: COLUMNS, noNaN: true }),
      row: fc.double({ min: 1, max: 30, noNaN: true }),
    })
    fc.assert(
      fc.property(placed, wish, fc.integer({ min: 1, max: COLUMNS }), (others, { column, row }, columns) => {
        const place = snapped({ column, row, columns, rows: 2 }, others, COLUMNS)
        expect(isIn(place)).toBe(true)
        expect([place.column, place.row].every(Number.isInteger)).toBe(true)
        const most = COLUMNS - columns + 1
        expect(Math.abs(place.column - Math.min(column, most))).toBeLessThan(1)
        expect(Math.abs(place.row - row)).toBeLessThan(1)
      }),
    )
  })

  test('a neighbour’s edge and the middle of the section pull over half a column', () => {
    const other = at('a', 3, 1, 5, 2)
    // Between 7 and 8: the right edge of the neighbour is line 8.
    expect(snapped({ column: 7.4, row: 1, columns: 2, rows: 1 }, [other], COLUMNS).column).toBe(8)
    expect(snapped({ column: 7.4, row: 1, columns: 2, rows: 1 }, [], COLUMNS).column).toBe(7)
    // Six of twelve stand in the middle at column 4.
    expect(snapped({ column: 4.6, row: 1, columns: 6, rows: 1 }, [], COLUMNS).column).toBe(4)
  })

  test('guides say which lines are shared, and an odd span is told which spans can stand in the middle', () => {
    const other = at('a', 1, 1, 4, 2)
    const guides = guidesOf({ column: 4, row: 3, columns: 6, rows: 1 }, [other], COLUMNS)
    expect(guides).toContainEqual({ axis: 'column', line: 7, of: 'middle', with: [] })
    expect(guides).toContainEqual({ axis: 'row', line: 3, of: 'edge', with: ['a'] })
    expect(guidesOf({ column: 2, row: 4, columns: 2, rows: 1 }, [other], COLUMNS)).toEqual([
      { axis: 'column', line: 3, of: 'centre', with: ['a'] },
    ])
    expect(spansThatCentre({ column: 4, row: 1, columns: 5, rows: 1 }, COLUMNS)).toEqual([4, 6])
    expect(spansThatCentre({ column: 4, row: 1, columns: 6, rows: 1 }, COLUMNS)).toBeUndefined()
    expect(spansThatCentre({ column: 1, row: 1, columns: 5, rows: 1 }, COLUMNS)).toBeUndefined()
  })

  test('a resized rectangle stays inside the grid and keeps the sides that were not moved', () => {
    const by = fc.integer({ min: -15, max: 15 })
    const sides = fc.subarray(['left', 'right', 'top', 'bottom'] as const)
    fc.assert(
      fc.property(placed, sides, by, by, ([one], moved, across, down) => {
        const place = resized(one!, moved, { across, down }, COLUMNS)
        expect(isIn(place)).toBe(true)
        if (!moved.includes('left')) expect(place.column).toBe(one!.column)
        if (!moved.includes('right')) expect(columnEnd(place)).toBe(columnEnd(one!))
        if (!moved.includes('top')) expect(place.row).toBe(one!.row)
        if (!moved.includes('bottom')) expect(rowEnd(place)).toBe(rowEnd(one!))
      }),
    )
  })
})

describe('several at once', () => {
  const line = fc.integer({ min: 1, max: 22 })

  test('room that was made can be closed up again, and nothing comes to overlap by either', () => {
    fc.assert(
      fc.property(placed, line, fc.integer({ min: 1, max: 6 }), (all, where, rows) => {
        const opened = makeRoom(all, where, rows)
        const pairs = (list: readonly Placed[]) =>
          list.flatMap((a, i) => list.slice(i + 1).map((b) => overlap(a, b)))
        pairs(opened).forEach((isOver, i) => {
          if (isOver) expect(pairs(all)[i]).toBe(true)
        })
        expect(
          opened.filter(({ row }, i) => row !== all[i]!.row).every(({ row }) => row >= where + rows),
        ).toBe(true)
        // Rows that were empty before are empty still: it is closed by what was opened.
        const isBeside = all.some((one) => one.row < where && rowEnd(one) > where)
        if (!isBeside) expect(closeUp(opened, where + rows, rows)).toEqual(all)
      }),
    )
  })

  test('closing up moves things up by empty rows alone', () => {
    fc.assert(
      fc.property(placed, line, (all, where) => {
        const closed = closeUp(all, where, 99)
        const by = emptyRowsAbove(all, where)
        closed.forEach((one, i) =>
          expect(one.row).toBe(all[i]!.row >= where ? all[i]!.row - by : all[i]!.row),
        )
        expect(closed.every(isIn)).toBe(true)
      }),
    )
  })

  test('aligned rectangles share the edge, and stay inside what was around them', () => {
    fc.assert(
      fc.property(placed, chosen, (all, isChosen) => {
        const ids = idsOf(all, isChosen)
        const own = (list: readonly Placed[]) => list.filter(({ id }) => ids.has(id))
        const [left, right] = [
          Math.min(...own(all).map((one) => one.column)),
          Math.max(...own(all).map(columnEnd)),
        ]
        for (const [alignment, edge] of [
          ['left', (one: Placed) => one.column],
          ['right', columnEnd],
          ['top', (one: Placed) => one.row],
          ['bottom', rowEnd],
        ] as const) {
          const moved = own(aligned(all, ids, alignment))
          if (ids.size > 1) expect(new Set(moved.map(edge)).size).toBe(1)
          for (const one of moved) expect(one.column >= left && columnEnd(one) <= right).toBe(true)
        }
        for (const one of own(aligned(all, ids, 'centre')))
          if (ids.size > 1)
            expect(Math.abs(one.column + columnEnd(one) - left - right)).toBeLessThanOrEqual(1)
      }),
    )
  })

  test('distributed rectangles have gaps that differ by no more than a column, and the outermost stay', () => {
    const row = [at('a', 1, 1, 2, 1), at('b', 4, 1, 2, 1), at('c', 11, 1, 2, 1)]
    const spread = distributed(row, new Set(['a', 'b', 'c']), 'column')
    expect(spread.map(({ column }) => column)).toEqual([1, 6, 11])
    expect(distributed(row, new Set(['a', 'b']), 'column')).toBe(row)
  })

  test('resized as one they stay inside the grid and come to overlap no more, and others stay', () => {
    const by = fc.integer({ min: -15, max: 15 })
    const sides = fc.subarray(['left', 'right', 'top', 'bottom'] as const)
    let resizes = 0
    fc.assert(
      fc.property(placed, chosen, sides, by, by, (all, isChosen, moved, across, down) => {
        const ids = idsOf(all, isChosen)
        const next = resizedTogether(all, ids, { sides: moved, across, down }, COLUMNS)
        expect(next.map(({ id, layer }) => [id, layer])).toEqual(all.map(({ id, layer }) => [id, layer]))
        const inGrid = all.every(isIn)
        next.forEach((one, i) => {
          if (!ids.has(one.id)) return expect(one).toEqual(all[i])
          if (inGrid) expect(isIn(one)).toBe(true)
          next.forEach((other, j) => {
            if (j < i && ids.has(other.id) && overlap(one, other))
              expect(overlap(all[i]!, all[j]!)).toBe(true)
          })
        })
        if (next.some((one, i) => one.columns !== all[i]!.columns)) resizes++
      }),
      { numRuns: 300 },
    )
    expect(resizes).toBeGreaterThan(20)
  })

  test('one resized as one goes where it goes alone; two side by side each take half of what is given', () => {
    const sides = fc.subarray(['left', 'right', 'top', 'bottom'] as const)
    const by = fc.integer({ min: -15, max: 15 })
    fc.assert(
      fc.property(placed, sides, by, by, ([one], moved, across, down) => {
        const alone = resized(one!, moved, { across, down }, COLUMNS)
        expect(resizedTogether([one!], new Set(['n0']), { sides: moved, across, down }, COLUMNS)).toEqual([
          { ...one!, ...alone },
        ])
      }),
    )
    const pair = [at('a', 1, 1, 2, 1), at('b', 3, 1, 2, 1)]
    const both = new Set(['a', 'b'])
    expect(resizedTogether(pair, both, { sides: ['right'], across: 4, down: 0 }, COLUMNS)).toEqual([
      at('a', 1, 1, 4, 1),
      at('b', 5, 1, 4, 1),
    ])
    // Each keeps a column.
    expect(resizedTogether(pair, both, { sides: ['right'], across: -9, down: 0 }, COLUMNS)).toEqual([
      at('a', 1, 1, 1, 1),
      at('b', 2, 1, 1, 1),
    ])
  })

  test('to the front is over all others, to the back under them, and no layer is below 0', () => {
    fc.assert(
      fc.property(placed, chosen, (all, isChosen) => {
        const ids = idsOf(all, isChosen)
        const layers = (list: readonly Placed[], own: boolean) =>
          list.filter(({ id }) => ids.has(id) === own).map(({ layer }) => layer)
        if (ids.size === 0 || ids.size === all.length) return
        const front = relayered(all, ids, 'front')
        const back = relayered(all, ids, 'back')
        expect(Math.min(...layers(front, true))).toBeGreaterThan(Math.max(...layers(front, false)))
        expect(Math.max(...layers(back, true))).toBeLessThan(Math.min(...layers(back, false)))
        for (const list of [front, back, relayered(all, ids, 'backward')])
          expect(list.every(({ layer }) => layer >= 0)).toBe(true)
        expect(relayered(relayered(all, ids, 'forward'), ids, 'backward')).toEqual(all)
      }),
    )
  })
})

describe('a section as a grid section, and back', () => {
  const text = fc.string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 12 })
  const leaf = text.map((words): Sketch => ({ words }))
  const sections = fc.array(
    fc.oneof(
      leaf,
      fc.record({ inside: fc.array(leaf, { minLength: 1, maxLength: 4 }), gap: fc.constantFrom('s', 'l') }),
    ),
    { maxLength: 6 },
  )

  test('all blocks stay, with all that they say and in their order, and both are undone whole', () => {
    fc.assert(
      fc.property(sections, (sketches) => {
        const page = sketchedPage(sketches)
        const said = leaves(page)
        const converted = toGrid(page, 'section', defaultRegistry, ids('g'))
        if (!converted.ok) throw new Error(converted.why)
        const placed = mustApply(page, converted.edits)
        expect(leaves(placed.page)).toEqual(said)
        expect(validatePage(placed.page, defaultRegistry)).toEqual([])
        expect(mustApply(placed.page, placed.inverse).page).toEqual(page)
        const back = toFlow(placed.page, converted.id, defaultRegistry, ids('f'))
        if (!back.ok) throw new Error(back.why)
        const flowing = mustApply(placed.page, back.edits)
        expect(leaves(flowing.page)).toEqual(said)
        expect(validatePage(flowing.page, defaultRegistry)).toEqual([])
        // Nothing of the grid is left behind.
        expect(JSON.stringify(flowing.page)).not.toContain('gridColumn')
        expect(mustApply(flowing.page, flowing.inverse).page).toEqual(placed.page)
      }),
    )
  })

  test('what a grid can’t look like is refused with the reason', () => {
    const page = sketchedPage([{ words: 'Moor' }])
    const tall = { ...page.nodes.section!, sizes: { base: { height: 'tall' } } }
    const refused = toGrid(
      { ...page, nodes: { ...page.nodes, section: tall } },
      'section',
      defaultRegistry,
      ids('x'),
    )
    expect(refused).toMatchObject({ ok: false, why: 'Set the height of the section to Content first' })
    expect(toFlow(page, 'section', defaultRegistry, ids('x')).ok).toBe(false)
  })
})

type Sketch = { readonly words: string } | { readonly inside: readonly Sketch[]; readonly gap: string }

function ids(prefix: string): () => string {
  let count = 0
  return () => `${prefix}${++count}`
}

/** A page with one section of headings and rows of headings. */
function sketchedPage(sketches: readonly Sketch[]): Page {
  const newId = ids('n')
  const nodes: Record<string, PageNode> = {}
  const add = (sketch: Sketch): string => {
    const id = newId()
    nodes[id] =
      'words' in sketch
        ? newNode(getKind(defaultRegistry, 'heading'), { content: { text: sketch.words, level: 2 } })
        : newNode(getKind(defaultRegistry, 'row'), {
            sizes: { base: { gap: sketch.gap } },
            slots: { blocks: sketch.inside.map(add) },
          })
    return id
  }
  nodes.section = newNode(getKind(defaultRegistry, 'section'), { slots: { blocks: sketches.map(add) } })
  nodes.root = newNode(getKind(defaultRegistry, 'page'), { slots: { sections: ['section'] } })
  return { format: PAGE_FORMAT, root: 'root', nodes }
}

/** What is said on a page, with the ids of the blocks, in reading order. */
function leaves(page: Page): unknown[] {
  return subtreeIds(page, page.root).flatMap((id) => {
    const { kind, content } = page.nodes[id]!
    return kind === 'heading' ? [[id, content.text]] : []
  })
}

function mustApply(page: Page, edits: readonly Edit[]) {
  const applied = applyEdits(page, edits, defaultRegistry)
  if (!applied.ok) throw new Error(applied.message)
  return applied
}
