import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { LONGER_THAN_ONE, SLICE_MS, SliceSize } from '../src/editor/gullyline/slice-size.ts'

/** A machine on which a layout takes so long by itself and so long for each band, in ms. */
const machines = fc.record({
  alone: fc.double({ min: 0, max: 60, noNaN: true }),
  each: fc.double({ min: 0.05, max: 20, noNaN: true }),
})

/** How many of a page's bands a slice has once that has settled. */
function settled({ alone, each }: { alone: number; each: number }, bands: number): number {
  const size = new SliceSize()
  for (let i = 0; i < 60; i++) {
    const some = Math.min(bands, size.most)
    size.note(some, alone + each * some)
  }
  return Math.min(bands, size.most)
}

test('a slice takes no longer than it may, or half as long again as a single band', () => {
  fc.assert(
    fc.property(machines, fc.integer({ min: 1, max: 100 }), (machine, bands) => {
      const { alone, each } = machine
      const took = alone + each * settled(machine, bands)
      expect(took).toBeLessThanOrEqual(Math.max(SLICE_MS, LONGER_THAN_ONE * (alone + each)) + 1e-9)
    }),
  )
})

test('slices are not small for nothing: four times as many bands would take longer than the shorter of both limits', () => {
  fc.assert(
    fc.property(machines, fc.integer({ min: 1, max: 64 }), (machine, bands) => {
      const { alone, each } = machine
      const some = settled(machine, bands)
      const more = alone + each * 4 * some
      if (some < bands) expect(more).toBeGreaterThan(Math.min(SLICE_MS, LONGER_THAN_ONE * (alone + each)))
    }),
  )
})

test('where a layout takes long by itself, a page is not laid out band by band', () => {
  expect(settled({ alone: 12, each: 0.5 }, 16)).toBeGreaterThanOrEqual(8)
})

test('one slow moment is forgotten', () => {
  const size = new SliceSize()
  size.note(16, 300)
  for (let i = 0; i < 60; i++) size.note(Math.min(16, size.most), 1)
  expect(size.most).toBeGreaterThanOrEqual(16)
})
