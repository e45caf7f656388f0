/** Contrast of every pair of colours that the interface shows, by WCAG 2.2's formula. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import { contrastRatio as contrast } from '@gullyline/core'
import { tarrowmoorLook } from '../../demo/src/look.ts'
import { SCHEMES, STRIP } from '../src/ui/theme.ts'

test('the formula gives the published examples: 21 for black on white, 4.54 for #767676 on white', () => {
  expect(contrast('#000000', '#ffffff')).toBe(21)
  // WebAIM and the Understanding document of 1.4.3 name #767676 as the lightest grey that passes on white.
  expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2)
  expect(contrast('#777777', '#ffffff')).toBeLessThan(4.5)
})

describe.each(Object.entries(SCHEMES))('the %s scheme', (_name, scheme) => {
  const words: readonly (readonly [keyof typeof scheme, keyof typeof scheme])[] = [
    ['quiet', 'paper'],
    ['quiet', 'panel'],
    ['plain', 'paper'],
    ['plain', 'panel'],
    ['strong', 'paper'],
    ['strong', 'panel'],
    ['accent', 'paper'],
    ['accent', 'accentTint'],
    ['onAccent', 'accent'],
    ['clay', 'paper'],
    ['clay', 'clayTint'],
    ['ochre', 'ochreTint'],
    ['moss', 'mossTint'],
    ['plain', 'backdrop'],
    ['strong', 'backdrop'],
    ['quiet', 'backdrop'],
    ['quiet', 'line'],
  ]
  test.each(words)('words of %s on %s reach 4.5 (1.4.3)', (ink, ground) => {
    expect(contrast(scheme[ink], scheme[ground])).toBeGreaterThanOrEqual(4.5)
  })
  test.each([
    ['control', 'paper'],
    ['control', 'panel'],
    ['accentBright', 'paper'],
    ['accentBright', 'backdrop'],
  ] as const)('edges of %s on %s reach 3 (1.4.11)', (edge, ground) =>
    expect(contrast(scheme[edge], scheme[ground])).toBeGreaterThanOrEqual(3),
  )
})

test('the frame that is there before any script has the colours of the scheme', () => {
  const css = readFileSync(join(import.meta.dirname, '../src/ui/first-frame.css'), 'utf8')
  for (const name of ['paper', 'line', 'backdrop'] as const) {
    const { [name]: light } = SCHEMES.light
    const { [name]: dark } = SCHEMES.dark
    expect(css).toContain(`--first-${name}: light-dark(${light}, ${dark});`)
  }
  expect(css).toContain(`--first-strip: ${STRIP.ground};`)
})

test('the strip is read in both schemes', () => {
  for (const ink of [STRIP.words, STRIP.line, STRIP.pointer])
    expect(contrast(ink, STRIP.ground)).toBeGreaterThanOrEqual(4.5)
  expect(contrast(STRIP.onPointer, STRIP.pointer)).toBeGreaterThanOrEqual(4.5)
})

describe('the sample site', () => {
  test.each(Object.entries(tarrowmoorLook.surfaces))(
    'every ink of surface %s reaches 4.5 on it',
    (_name, surface) => {
      for (const ink of [surface.ink, surface.quiet, surface.titleInk, surface.link, surface.accent]) {
        expect([ink, contrast(ink, surface.background) >= 4.5]).toEqual([ink, true])
      }
      expect(contrast(surface.onAccent, surface.accent)).toBeGreaterThanOrEqual(4.5)
    },
  )
})
