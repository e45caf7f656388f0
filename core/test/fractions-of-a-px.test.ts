/**
 * Browsers round what they lay out, one to 64ths of a px and another to 60ths, and give it as numbers that are rounded again:
 * rows that touch may overlap by a millionth. None of that is a gully, and none of it hides one.
 */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readBand, type Box, type MeasuredBand, type MeasuredElement, type Reading } from '../src/index.ts'

/** An edge is off by no more: a size and a distance then differ by less than half of the smaller unit. */
const MOST_OFF = 1 / 512
const WINDOW = 1000

function elementOf(
  id: string,
  parent: number,
  box: Box,
  own: Partial<MeasuredElement> = {},
): MeasuredElement {
  return {
    id,
    parent,
    box,
    content: { left: box.x, right: box.x + box.width },
    clips: 'none',
    isScrolled: false,
    isAbsolute: false,
    isLifted: false,
    isOpaque: false,
    wraps: false,
    ...own,
  }
}

/** Links with words, in a block that wraps them. */
function bandOf(boxes: readonly Box[]): MeasuredBand {
  const band = { x: 0, y: 0, width: WINDOW, height: 800 }
  return {
    width: WINDOW,
    box: band,
    elements: [
      elementOf('around', -1, band, { wraps: true }),
      ...boxes.map((box, i) =>
        elementOf(`link${i}`, 0, box, {
          target: { isInline: false, name: `Link ${i}` },
          text: {
            words: `Link ${i}`,
            role: 'running',
            lines: [box],
            characters: 6,
            brokenWords: 0,
            fontSize: 16,
            isBold: false,
            colour: [0, 0, 0, 1],
          },
        }),
      ),
    ],
  }
}

interface Table {
  readonly columns: number
  readonly rows: number
  readonly width: number
  readonly height: number
  readonly gap: number
}

const table: fc.Arbitrary<Table> = fc.record({
  columns: fc.integer({ min: 1, max: 5 }),
  rows: fc.integer({ min: 1, max: 4 }),
  width: fc.integer({ min: 8, max: 60 }),
  height: fc.integer({ min: 8, max: 60 }),
  // None is what rows of links mostly have.
  gap: fc.oneof(fc.constant(0), fc.integer({ min: 1, max: 20 })),
})

function boxesOf({ columns, rows, width, height, gap }: Table): readonly Box[] {
  return Array.from({ length: columns * rows }, (_unused, i) => ({
    x: 10 + (i % columns) * (width + gap),
    y: 10 + Math.floor(i / columns) * (height + gap),
    width,
    height,
  }))
}

function found({ strains, shape, order }: Reading): unknown {
  return { strains: [...strains.keys()].sort(), shape, order }
}

test('boxes that are off by a fraction of a px are read as those that are not, in any order of the document', () => {
  let withFindings = 0
  const off = fc.double({ min: -MOST_OFF, max: MOST_OFF, noNaN: true })
  const offs = fc.array(fc.tuple(off, off, off, off), { minLength: 20, maxLength: 20 })
  const places = fc.array(fc.nat(), { minLength: 20, maxLength: 20 })
  fc.assert(
    fc.property(table, places, offs, (given, keys, by) => {
      const boxes = boxesOf(given)
        .map((box, i) => ({ box, key: keys[i]! % 3 }))
        .sort((a, b) => a.key - b.key)
        .map(({ box }) => box)
      const rounded = boxes.map(({ x, y, width, height }, i): Box => {
        const [left, top, right, bottom] = by[i]!
        return { x: x + left, y: y + top, width: width + right - left, height: height + bottom - top }
      })
      const exact = readBand(bandOf(boxes), {}, 'plain')
      if (exact.strains.size > 0) withFindings++
      expect(found(readBand(bandOf(rounded), {}, 'plain'))).toEqual(found(exact))
    }),
    { numRuns: 500 },
  )
  expect(withFindings).toBeGreaterThan(50)
})

test('rows of links that touch are in order where one browser lets them overlap by what its numbers are rounded to', () => {
  const row = (y: number): readonly Box[] => [0, 100, 200].map((x) => ({ x, y, width: 90, height: 33.6 }))
  // 33.6 px high from 100.01667 on, as 60ths of a px are written; the next row at 133.61666.
  const { strains } = readBand(bandOf([...row(100.016_67), ...row(133.616_66)]), {}, 'plain')
  expect([...strains.keys()]).toEqual([])
})
