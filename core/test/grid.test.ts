/** Grids: the order in which placed blocks are read, and the arrangement of narrower sizes that is derived from it. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  arrangedAt,
  arrangeGrid,
  type ColumnsAt,
  type GridChild,
  type PlaceValues,
} from '../src/grid/arrangement.ts'
import { deriveArrangement } from '../src/grid/derive.ts'
import { columnEnd, overlap, type GridPlace, type Placed } from '../src/grid/placed.ts'
import { readingOrder } from '../src/grid/reading-order.ts'
import { at } from './fixtures/placed.ts'

/** A grid as a drawing: each letter is a block, over the rectangle that it fills. */
function drawn(...lines: readonly string[]): Placed[] {
  const found = new Map<string, { left: number; top: number; right: number; bottom: number }>()
  for (const [row, line] of lines.entries())
    for (const [column, id] of [...line].entries()) {
      if (id === ' ' || id === '.') continue
      const box = found.get(id) ?? { left: column, top: row, right: column, bottom: row }
      found.set(id, {
        left: Math.min(box.left, column),
        top: box.top,
        right: Math.max(box.right, column),
        bottom: row,
      })
    }
  return [...found].map(([id, { left, top, right, bottom }]) => ({
    id,
    column: left + 1,
    row: top + 1,
    columns: right - left + 1,
    rows: bottom - top + 1,
    layer: 0,
  }))
}
const read = (...lines: readonly string[]): string => readingOrder(drawn(...lines)).join('')

const anyPlaced = fc
  .array(
    fc.record({
      column: fc.integer({ min: 1, max: 12 }),
      row: fc.integer({ min: 1, max: 14 }),
      columns: fc.integer({ min: 1, max: 12 }),
      rows: fc.integer({ min: 1, max: 4 }),
      layer: fc.integer({ min: 0, max: 2 }),
    }),
    { maxLength: 14 },
  )
  .map((all): Placed[] =>
    all.map((one, i) => ({
      ...one,
      id: `n${i}`,
      column: Math.min(one.column, 13 - Math.min(12, one.columns)),
    })),
  )

describe('the reading order', () => {
  // What a page of a newspaper or a journal shows; the orders are common practice, no source.
  test.each<[string, readonly string[], string]>([
    ['one below the other', ['aaaa', 'bbbb', 'cccc'], 'abc'],
    ['cards in rows', ['aabbcc', 'ddeeff'], 'abcdef'],
    ['a headline over two columns with room between', ['hhhhhhh', 'aaa.bbb', 'ccc.ddd'], 'hacbd'],
    ['columns whose blocks end at different heights', ['aaabbb', 'aaaddd', 'cccddd'], 'acbd'],
    ['a picture beside three lines of text', ['ppppaa', 'ppppbb', 'ppppcc'], 'pabc'],
    ['rows with room between, of cards without', ['aabb', '....', 'ccdd'], 'abcd'],
    ['columns far apart, of cards that touch', ['aa..bb', 'cc..dd'], 'acbd'],
    ['what stands to the left but below, after what it is below', ['..aa', 'bb..'], 'ab'],
    ['a pinwheel, which no line parts', ['aab', 'ceb', 'cdd'], 'abced'],
  ])('%s', (_what, lines, order) => {
    expect(read(...lines)).toBe(order)
  })

  // CSS Grid Layout Module Level 1 (W3C): the layouts that its text draws, read as the page is written there. From memory.
  test.each<[string, readonly string[], string]>([
    ['the overview’s game: title, score, stats, board, controls', ['ta', 'sa', 'bb', 'cc'], 'tsabc'],
    ['the named areas: head, nav, main, foot and an empty cell', ['hh', 'nm', 'f.'], 'hnmf'],
  ])('of a published figure, %s', (_what, lines, order) => {
    expect(read(...lines)).toBe(order)
  })

  test('of what overlaps is from the lowest layer up', () => {
    expect(
      readingOrder([at('text', 2, 2, 4, 1, 1), at('picture', 1, 1, 12, 4, 0), at('below', 1, 5, 12, 1)]),
    ).toEqual(['picture', 'text', 'below'])
  })

  test('of any blocks has each once, whatever order they are given in', () => {
    fc.assert(
      fc.property(anyPlaced, fc.integer(), (placed, seed) => {
        const order = readingOrder(placed)
        expect([...order].sort()).toEqual(placed.map(({ id }) => id).sort())
        const [shuffled] = fc.sample(fc.shuffledSubarray(placed, { minLength: placed.length }), {
          numRuns: 1,
          seed,
        })
        expect(readingOrder(shuffled!)).toEqual(order)
      }),
      { numRuns: 500 },
    )
  })

  test('has what stands above something before it, where a line across the grid parts the two', () => {
    let seen = 0
    fc.assert(
      fc.property(anyPlaced, (placed) => {
        const order = readingOrder(placed)
        for (const a of placed)
          for (const b of placed) {
            const line = a.row + a.rows
            const isAbove = b.row >= line && a.column < columnEnd(b) && b.column < columnEnd(a)
            if (!isAbove || !placed.every((one) => one.row >= line || one.row + one.rows <= line)) continue
            expect([a.id, b.id, order.indexOf(a.id) < order.indexOf(b.id)]).toEqual([a.id, b.id, true])
            seen++
          }
      }),
      { numRuns: 500 },
    )
    expect(seen).toBeGreaterThan(200)
  })
})

const NONE: ReadonlyMap<string, GridPlace> = new Map()

describe('the derived arrangement', () => {
  test('three cards stay beside each other while each has room, and stand below each other after that', () => {
    const wide = [at('a', 1, 1, 4, 2), at('b', 5, 1, 4, 2), at('c', 9, 1, 4, 2)]
    const medium = deriveArrangement(wide, { from: 12, to: 8, set: NONE })
    expect(medium.map(({ column, columns, row }) => [column, columns, row])).toEqual([
      [1, 3, 1],
      [4, 3, 1],
      [7, 2, 1],
    ])
    const narrow = deriveArrangement(medium, { from: 8, to: 4, set: NONE })
    expect(narrow.map(({ column, columns, row }) => [column, columns, row])).toEqual([
      [1, 4, 1],
      [1, 4, 3],
      [1, 4, 5],
    ])
  })

  test('words over a picture stay over it, in proportion', () => {
    const wide = [at('picture', 1, 1, 12, 6, 0), at('words', 7, 3, 6, 3, 1)]
    expect(deriveArrangement(wide, { from: 12, to: 4, set: NONE })).toEqual([
      at('picture', 1, 1, 4, 6, 0),
      at('words', 3, 3, 2, 3, 1),
    ])
  })

  test('of any blocks: all are there, within the columns, and nothing overlaps that did not before', () => {
    fc.assert(
      fc.property(anyPlaced, fc.constantFrom(2, 4, 6, 8), (wide, to) => {
        const narrow = deriveArrangement(wide, { from: 12, to, set: NONE })
        expect(narrow.map(({ id }) => id)).toEqual(wide.map(({ id }) => id))
        for (const one of narrow) {
          expect(one.column).toBeGreaterThanOrEqual(1)
          expect(one.row).toBeGreaterThanOrEqual(1)
          expect(one.columns).toBeGreaterThanOrEqual(1)
          expect(columnEnd(one)).toBeLessThanOrEqual(to + 1)
        }
        for (const [i, a] of narrow.entries())
          for (const [j, b] of narrow.entries())
            if (i < j && overlap(a, b))
              expect([a.id, b.id, overlap(wide[i]!, wide[j]!)]).toEqual([a.id, b.id, true])
        expect(deriveArrangement(wide, { from: 12, to, set: NONE })).toEqual(narrow)
      }),
      { numRuns: 1000 },
    )
  })

  test('keeps what is set where it is, and the rest flows around it in the order in which it is read', () => {
    fc.assert(
      fc.property(anyPlaced, fc.constantFrom(2, 4, 8), fc.integer({ min: 1, max: 12 }), (wide, to, row) => {
        const [first] = wide
        if (!first) return
        const place: GridPlace = { column: 1, columns: 2, row, rows: 2 }
        const narrow = deriveArrangement(wide, { from: 12, to, set: new Map([[first.id, place]]) })
        expect(narrow[0]).toMatchObject(place)
        for (const one of narrow.slice(1)) expect([one.id, overlap(one, narrow[0]!)]).toEqual([one.id, false])
        for (const [i, a] of narrow.entries())
          for (const [j, b] of narrow.entries())
            if (i < j && i > 0 && overlap(a, b)) expect(overlap(wide[i]!, wide[j]!)).toBe(true)
      }),
      { numRuns: 500 },
    )
  })

  test('of a grid follows the wider size until a child is set, and never changes a wider one', () => {
    const columns: ColumnsAt = { base: 12, medium: 8, narrow: 4 }
    const placesOf = (placed: Placed): GridChild => {
      const { id, layer, ...place } = placed
      return { id, places: { base: { ...place, layer } } }
    }
    const set = fc.record({ column: fc.integer({ min: 1, max: 4 }), row: fc.integer({ min: 1, max: 20 }) })
    fc.assert(
      fc.property(
        anyPlaced,
        set,
        fc.constantFrom('medium', 'narrow'),
        fc.boolean(),
        (wide, place, size, hidden) => {
          const children = wide.map(placesOf)
          const before = arrangeGrid(children, columns)
          expect(arrangedAt(before, 'base').placed).toEqual(wide)
          const [first, ...rest] = children
          if (!first) return
          const values: PlaceValues = { ...place, hidden }
          const changed = [{ ...first, places: { ...first.places, [size]: values } }, ...rest]
          const after = arrangeGrid(changed, columns)
          expect(after.get('base')).toEqual(before.get('base'))
          if (size === 'narrow') expect(after.get('medium')).toEqual(before.get('medium'))
          const here = arrangedAt(after, size)
          expect(here.hidden).toEqual(hidden ? [first.id] : [])
          if (!hidden) expect(here.placed[0]).toMatchObject({ row: place.row })
          // Taken back, all is as it was.
          expect(arrangeGrid([first, ...rest], columns)).toEqual(before)
        },
      ),
      { numRuns: 300 },
    )
  })
})

test('children that nobody placed stand below the others', () => {
  const children: GridChild[] = [
    { id: 'a', places: {} },
    { id: 'b', places: { base: { column: 3, row: 2, columns: 4, rows: 2 } } },
    { id: 'c', places: {} },
  ]
  const { placed } = arrangedAt(arrangeGrid(children, COLUMNS_AT), 'base')
  expect(placed.map(({ row, columns }) => [row, columns])).toEqual([
    [4, 12],
    [2, 4],
    [5, 12],
  ])
})

const COLUMNS_AT: ColumnsAt = { base: 12, medium: 8, narrow: 4 }
const below = (id: string, row: number, narrow: PlaceValues = {}): GridChild => ({
  id,
  places: { base: { column: 1, row, columns: 12, rows: 2 }, narrow },
})

test('of the room of what is left out of a size, one empty row is left there, as of any other', () => {
  const children = [below('a', 1), below('b', 3, { hidden: true }), below('c', 5)]
  const arranged = arrangeGrid(children, COLUMNS_AT)
  const [medium, narrow] = ['medium', 'narrow'].map((size) => arrangedAt(arranged, size))
  expect(narrow!.placed.map(({ id, row }) => [id, row])).toEqual([
    ['a', 1],
    ['c', 4],
  ])
  expect(medium!.placed.map(({ row }) => row)).toEqual([1, 3, 5])
})

test('of a place that is set in part, the rest is as it is derived', () => {
  const beside = (id: string, column: number, narrow: PlaceValues = {}): GridChild => ({
    id,
    places: { base: { column, row: 1, columns: 6, rows: 2 }, narrow },
  })
  const arranged = arrangeGrid([beside('a', 1), beside('b', 7, { row: 9 })], COLUMNS_AT)
  const { placed } = arrangedAt(arranged, 'narrow')
  expect(placed[1]).toMatchObject({ column: 1, columns: 4, row: 9, rows: 2 })
})
