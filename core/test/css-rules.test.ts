/** What a narrower size declares, read as a browser reads it: what comes out is what the size asked for. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { declarationsThatDiffer, type Declarations } from '../src/kit/css-rules.ts'
import { insetCss, widthInside } from '../src/kit/inset.ts'

/** A browser in little: `font` sets the size and the weight as well (CSS Fonts 4, 2.7, "font"); later declarations win. */
function computed(...sheets: readonly Declarations[]): Record<string, string> {
  const values: Record<string, string> = {}
  for (const sheet of sheets) {
    for (const [property, value] of Object.entries(sheet)) {
      if (property === 'font') for (const one of ['font-size', 'font-weight']) values[one] = `of ${value}`
      if (value === 'initial') delete values[property]
      else values[property] = value
    }
  }
  return values
}

const value = fc.constantFrom('a', 'b', 'c')
const plain = { color: value, 'text-align': value }
/** As kinds write them: a font at every size or at none, and the shorthand before what it would reset. */
const withFont = fc.record(
  { font: value, 'font-size': value, 'font-weight': value, ...plain },
  { requiredKeys: ['font'] },
)
const without = fc.record(plain, { requiredKeys: [] })
const twoSizes: fc.Arbitrary<[Declarations, Declarations]> = fc.oneof(
  fc.tuple(withFont, withFont),
  fc.tuple(without, without),
)

describe('declarations that differ from a wider size', () => {
  test('make of the wider size what the narrower one asks for', () => {
    fc.assert(
      fc.property(twoSizes, ([wider, next]) => {
        expect(computed(wider, declarationsThatDiffer(wider, next))).toEqual(computed(next))
      }),
      { numRuns: 1000 },
    )
  })
  test('say nothing where nothing differs', () => {
    fc.assert(fc.property(twoSizes, ([one]) => expect(declarationsThatDiffer(one, one)).toEqual({})))
  })
})

test('room inside: all around, by side, and what is left of the width (worked by hand)', () => {
  const around = { insetAbove: 'all', insetRight: 'all', insetBelow: 'all', insetLeft: 'all' }
  expect(insetCss({ inset: 'm', ...around }, {})).toBe('var(--space-m)')
  expect(widthInside('100vw', { inset: 'm', ...around }, {})).toBe('(100vw - 2*var(--space-m))')
  expect(insetCss({ inset: 'none', ...around }, {})).toBe('0px')
  expect(widthInside('100vw', { inset: 'none', ...around }, {})).toBeUndefined()
  const sides = { inset: 's', ...around, insetAbove: 'none', insetLeft: '24px' }
  expect(insetCss(sides, {})).toBe('0px var(--space-s) var(--space-s) 1.5rem')
  expect(widthInside('100vw', sides, {})).toBe('(100vw - 1.5rem - var(--space-s))')
  expect(
    widthInside('100vw', { inset: 'l', ...around, insetRight: 'none', insetLeft: 'none' }, {}),
  ).toBeUndefined()
  // Nobody said how much: what stands on a background of its own has some.
  const usual = { inset: 'usual', ...around }
  expect([insetCss(usual, {}), insetCss(usual, { surface: 'night' })]).toEqual(['0px', 'var(--space-m)'])
  expect(widthInside('100vw', usual, { surface: 'night' })).toBe('(100vw - 2*var(--space-m))')
})
