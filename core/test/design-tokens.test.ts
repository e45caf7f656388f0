/** Files of design tokens as looks, and looks as such files. */
import { describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import { readDesignTokens, UnreadableTokens, type DesignToken } from '../src/look/design-tokens.ts'
import { contrastRatio } from '../src/look/contrast-ratio.ts'
import { lookFromTokens, tokenFile } from '../src/look/look-from-tokens.ts'
import { LOOK_SCHEMA } from '../src/look/look-schema.ts'
import type { Look } from '../src/look/look.ts'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import { testLook } from './arbitraries/site.ts'

const read = (file: object) => readDesignTokens(JSON.stringify(file))
const valueOf = (file: object, path: string): DesignToken['value'] | undefined =>
  read(file).tokens.find((one) => one.path === path)?.value
const isLook = new Ajv2020({ strict: false }).compile(LOOK_SCHEMA)

/**
 * Examples as the Design Tokens Format Module and Color Module (2025.10) of the Design Tokens Community Group have them;
 * written down from memory.
 */
describe('examples of the format', () => {
  test('a token, and the type that a group gives it', () => {
    const file = {
      'token uno': { $value: '#ff0000', $type: 'color' },
      brand: {
        $type: 'color',
        $description: 'Our colours',
        'acid green': { $value: { colorSpace: 'srgb', components: [0, 1, 0.4], hex: '#00ff66' } },
        'hot pink': { $value: { colorSpace: 'srgb', components: [1, 0.2, 0.6] }, $deprecated: true },
      },
    }
    expect(valueOf(file, 'token uno')).toBe('#ff0000')
    expect(valueOf(file, 'brand.acid green')).toBe('#00ff66')
    expect(valueOf(file, 'brand.hot pink')).toBe('#ff3399')
  })

  test('references to tokens, to the token of a group itself, and by JSON pointers', () => {
    const file = {
      'group name': { $type: 'number', 'token name': { $value: 1234 } },
      alias: { $value: '{group name.token name}' },
      pointer: { $type: 'number', $value: { $ref: '#/group name/token name/$value' } },
      blue: { $type: 'color', $root: { $value: '#0000ff' }, deep: { $value: '{blue.$root}' } },
    }
    expect(valueOf(file, 'alias')).toBe(1234)
    expect(valueOf(file, 'pointer')).toBe(1234)
    expect(valueOf(file, 'blue.$root')).toBe('#0000ff')
    expect(valueOf(file, 'blue.deep')).toBe('#0000ff')
  })

  test('measures, fonts, weights and typography', () => {
    const file = {
      spacing: {
        $type: 'dimension',
        small: { $value: { value: 0.5, unit: 'rem' } },
        old: { $value: '12px' },
      },
      family: { $type: 'fontFamily', body: { $value: ['Helvetica', 'Arial', 'sans-serif'] } },
      weight: { $type: 'fontWeight', thick: { $value: 'extra-bold' }, thin: { $value: 350 } },
      'type styles': {
        'heading-level-1': {
          $type: 'typography',
          $value: {
            fontFamily: '{family.body}',
            fontSize: { value: 42, unit: 'px' },
            fontWeight: '{weight.thick}',
            letterSpacing: { value: 0.1, unit: 'px' },
            lineHeight: 1.2,
          },
        },
      },
    }
    expect(valueOf(file, 'spacing.small')).toBe(8)
    expect(valueOf(file, 'spacing.old')).toBe(12)
    expect(valueOf(file, 'weight.thick')).toBe(800)
    expect(valueOf(file, 'type styles.heading-level-1')).toEqual({
      size: 42,
      leading: 1.2,
      tracking: 0.1,
      weight: 800,
      family: ['Helvetica', 'Arial', 'sans-serif'],
    })
  })

  // The colours are those of CSS Color 4 for named colours, in the spaces that its examples convert them to (from memory).
  test.each<[string, readonly number[], string]>([
    ['hsl', [120, 100, 25], '#008000'],
    ['hwb', [0, 0, 0], '#ff0000'],
    ['lab', [46.2775, -47.5621, 48.5837], '#008000'],
    ['oklab', [0.51975, -0.1403, 0.10768], '#008000'],
    ['oklch', [0.51975, 0.17686, 142.495], '#008000'],
    ['srgb-linear', [1, 1, 1], '#ffffff'],
    ['display-p3', [0.2161, 0.4942, 0.1313], '#008000'],
  ])('a colour in %s', (colorSpace, components, hex) => {
    expect(valueOf({ one: { $type: 'color', $value: { colorSpace, components } } }, 'one')).toBe(hex)
  })

  test('what a look has no place for is listed with the reason', () => {
    const file = {
      fast: { $type: 'duration', $value: { value: 200, unit: 'ms' } },
      lost: { $type: 'color', $value: '{nowhere}' },
      odd: { $type: 'color', $value: { colorSpace: 'srgb', components: [1] } },
      none: { $value: true },
    }
    expect(read(file)).toMatchObject({
      tokens: [],
      left: [
        { path: 'fast', why: 'A look has nothing of the type “duration”.' },
        { path: 'lost', why: 'It refers to “nowhere”, which is not in the file.' },
        { path: 'odd', why: 'Its value is not what its type asks for.' },
        { path: 'none', why: 'It has no type.' },
      ],
    })
  })
})

test('hostile files are refused in words, at once', () => {
  const start = performance.now()
  const refuses = (text: string, words: string | RegExp) => {
    expect(() => readDesignTokens(text)).toThrow(UnreadableTokens)
    expect(() => readDesignTokens(text)).toThrow(words)
  }
  refuses('a{color:red}', 'is not JSON')
  refuses('[]', 'no group of design tokens')
  refuses('{"a":{}}', 'no design token')
  refuses(`"${'x'.repeat(2_000_001)}"`, 'two million')
  refuses('{"a":{"$value":"{b}"},"b":{"$value":"{a}"}}', 'in a ring: a → b → a')
  refuses('{"a":'.repeat(100) + '1' + '}'.repeat(100), 'deep')
  const many = Object.fromEntries(
    Array.from({ length: 5_001 }, (_one, i) => [`t${i}`, { $type: 'number', $value: i }]),
  )
  refuses(JSON.stringify(many), 'more than 5000 tokens')
  const chain = Object.fromEntries(
    Array.from({ length: 60 }, (_one, i) => [`t${i}`, { $value: `{t${i + 1}}` }]),
  )
  refuses(JSON.stringify(chain), 'chain of references')
  expect(
    valueOf({ one: { $type: 'color', $value: '{__proto__.x}' }, two: { $type: 'number', $value: 1 } }, 'one'),
  ).toBeUndefined()
  const took = performance.now() - start
  expect(took).toBeLessThan(patienceOf(2_000, took))
})

const colour = fc.integer({ min: 0, max: 0xffffff }).map((rgb) => `#${rgb.toString(16).padStart(6, '0')}`)

describe('a look', () => {
  test('written as tokens and read again is the same look, whatever look it is read on', () => {
    fc.assert(
      fc.property(colour, colour, fc.integer({ min: 1, max: 200 }), (ink, accent, px) => {
        const look: Look = {
          ...testLook,
          surfaces: { ...testLook.surfaces, plain: { ...testLook.surfaces.plain!, ink, accent } },
          space: { ...testLook.space, m: { from: px / 2, to: px } },
          radius: { ...testLook.radius, l: px },
        }
        const { look: again, left } = lookFromTokens(readDesignTokens(tokenFile(look)), testLook)
        expect(again).toEqual(look)
        expect(left).toEqual([])
      }),
    )
  })

  test('made of any colours is a look, on which every text can be read', () => {
    const files = fc.dictionary(
      fc.constantFrom(
        'brand',
        'text',
        'background-main',
        'primary',
        'border',
        'on-primary',
        'grey.1',
        'link',
      ),
      colour,
      { minKeys: 1 },
    )
    fc.assert(
      fc.property(files, (colours) => {
        const file = Object.fromEntries(
          Object.entries(colours).map(([name, hex]) => [name, { $type: 'color', $value: hex }]),
        )
        const { look, taken, left } = lookFromTokens(read(file), testLook)
        expect(isLook(look)).toBe(true)
        for (const surface of Object.values(look.surfaces)) {
          for (const role of ['ink', 'quiet', 'titleInk', 'link'] as const)
            expect(contrastRatio(surface[role], surface.background)).toBeGreaterThanOrEqual(4.5)
          expect(contrastRatio(surface.onAccent, surface.accent)).toBeGreaterThanOrEqual(4.5)
        }
        const told = new Set([...taken, ...left].map(({ path }) => path))
        expect([...told].sort()).toEqual(Object.keys(file).sort())
      }),
    )
  })

  test('takes from tokens of another naming the colours and steps that come nearest', () => {
    const file = {
      colors: { $type: 'color', paper: { $value: '#fffdf8' }, 'text-strong': { $value: '#1a1205' } },
      spacing: { $type: 'dimension', '4': { $value: '18px' }, '9': { $value: '90px' } },
      radii: { $type: 'dimension', 'radius-md': { $value: '10px' } },
      heading: { $type: 'typography', $value: { fontSize: '50px', lineHeight: 1.1, fontWeight: 700 } },
      'font-body': { $type: 'fontFamily', $value: ['Nobody’s Font', 'serif'] },
    }
    const { look, left } = lookFromTokens(read(file), testLook)
    expect(look.surfaces.plain).toMatchObject({ background: '#fffdf8', ink: '#1a1205' })
    expect(look.space.s).toEqual({ from: 18, to: 18 })
    expect(look.radius.m).toBe(10)
    expect(look.type.headline.size.to).toBe(50)
    expect(left.map(({ path }) => path)).toContain('font-body')
  })
})
