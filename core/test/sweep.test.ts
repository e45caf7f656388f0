/** Finding the ends of gullies from what is found at single widths, with layouts that are functions of the width. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { contrastOf, paintOf, rgbaOf } from '../src/measure/colour.ts'
import { PageSweep } from '../src/measure/page-sweep.ts'
import { firstWidths, SWEEP_TO } from '../src/measure/sweep.ts'
import type { Reading, RuledStrain } from '../src/measure/run-rules.ts'
import { contrastRatio } from '../src/look/contrast-ratio.ts'

const BOUNDS = [720, 1200]

interface Trouble {
  readonly id: string
  readonly from: number
  readonly to: number
}

/** `stillFrom` is the width from which on nothing changes its size. */
function readingAt(width: number, troubles: readonly Trouble[], stillFrom = Infinity): Reading {
  const here = troubles.filter(({ from, to }) => width >= from && width <= to)
  const strains = here.map(({ id, from }): [string, RuledStrain] => [
    `sideways ${id}`,
    { rule: 'sideways', id, amount: width - from, why: id },
  ])
  const extent = Math.min(width, stillFrom)
  return { strains: new Map(strains), shape: '', height: 100, order: '', lines: 1, loaded: [], extent }
}

/**
 * Sweeps bands whose troubles are known. Gives what was found, how often each band was laid out, and how often the page came
 * to another of its sizes.
 */
function swept(
  sweep: PageSweep,
  bands: ReadonlyMap<string, readonly Trouble[]>,
  { most = Infinity, stillFrom = Infinity } = {},
) {
  const laidOut = new Map<string, number>()
  let crossings = 0
  let last: number | undefined
  for (let job = sweep.next(most); job; job = sweep.next(most)) {
    const { width, setting } = job
    expect(job.bands.length).toBeLessThanOrEqual(most)
    const size = BOUNDS.filter((bound) => width >= bound).length
    if (last !== undefined) crossings += Math.abs(size - last)
    last = size
    for (const key of job.bands) laidOut.set(key, (laidOut.get(key) ?? 0) + 1)
    const troubles = (key: string) => (setting === 'plain' ? (bands.get(key) ?? []) : [])
    sweep.take(job, new Map(job.bands.map((key) => [key, readingAt(width, troubles(key), stillFrom)])))
  }
  return { gullies: sweep.gullies(), laidOut, crossings }
}

/** Bands with a node each of the same name. */
const named = (keys: Iterable<string>): ReadonlyMap<string, string> =>
  new Map([...keys].map((key) => [key, key]))

describe('sweeping', () => {
  const wide = fc
    .record({ from: fc.integer({ min: 320, max: 1880 }), length: fc.integer({ min: 33, max: 1600 }) })
    .map(({ from, length }) => ({ from, to: Math.min(1920, from + length) }))

  test('every range of at least the first step is found to the px, however many bands are laid out at once', () => {
    fc.assert(
      fc.property(fc.array(wide, { maxLength: 6 }), fc.integer({ min: 1, max: 4 }), (ranges, most) => {
        const sweep = new PageSweep(BOUNDS)
        const bands = new Map(ranges.map((range, i) => [`b${i}`, [{ id: `n${i}`, ...range }]]))
        sweep.show(named(bands.keys()))
        const { gullies } = swept(sweep, bands, { most })
        expect(gullies.map(({ nodeId, from, to }) => ({ nodeId, from, to }))).toEqual(
          ranges.map(({ from, to }, i) => ({ nodeId: `n${i}`, from, to })),
        )
        // Told where it is worst.
        for (const { worst, to } of gullies) expect(worst).toBe(to)
      }),
    )
  })

  test('both sides of each bound are laid out, so that what is wrong on one px there is found', () => {
    const sweep = new PageSweep(BOUNDS)
    const bands = new Map([['b', [719, 720, 1199, 1200].map((at) => ({ id: `n${at}`, from: at, to: at }))]])
    sweep.show(named(['b']))
    expect(swept(sweep, bands).gullies.map(({ from, to }) => [from, to])).toEqual([
      [719, 719],
      [720, 720],
      [1199, 1199],
      [1200, 1200],
    ])
  })

  test('after an edit only the band that is another is laid out again', () => {
    const sweep = new PageSweep(BOUNDS)
    const before = new Map([
      ['a', [{ id: 'a', from: 400, to: 500 }]],
      ['b', []],
    ])
    sweep.show(named(['a', 'b']))
    swept(sweep, before)
    sweep.show(named(['a', 'c']))
    const { gullies, laidOut } = swept(sweep, new Map([...before, ['c', [{ id: 'c', from: 800, to: 900 }]]]))
    expect([...laidOut.keys()]).toEqual(['c'])
    expect(gullies.map(({ nodeId }) => nodeId)).toEqual(['a', 'c'])
    expect(sweep.progress).toBe(1)
  })

  test('a page comes to another of its sizes seldom: all of its styles are found anew there', () => {
    fc.assert(
      fc.property(wide, wide, fc.integer({ min: 1, max: 3 }), (range, other, most) => {
        const sweep = new PageSweep(BOUNDS)
        const crossingsOf = (key: string, { from, to }: Omit<Trouble, 'id'>): number => {
          sweep.show(new Map([[key, 'n']]))
          return swept(sweep, new Map([[key, [{ id: 'n', from, to }]]]), { most }).crossings
        }
        // Through some widths soon, back through all others, to what is looked for between, and once for each setting.
        const [there, back, between, resized, spaced] = [2, 2, 2, 3, 4]
        expect(crossingsOf('before', range)).toBeLessThanOrEqual(there + back + between + resized + spaced)
        expect(crossingsOf('after', other)).toBeLessThanOrEqual(back + between + resized + spaced)
      }),
    )
  })

  test('something is known of all widths soon, also where an edit comes before anything is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10 }), (layouts) => {
        const sweep = new PageSweep(BOUNDS)
        const measured: number[] = []
        const measure = (most: number): void => {
          for (let i = 0; i < most; i++) {
            const job = sweep.next()!
            if (job.bands.includes('a')) measured.push(job.width)
            sweep.take(job, new Map(job.bands.map((key) => [key, readingAt(job.width, [])])))
          }
        }
        sweep.show(named(['a', 'b']))
        measure(layouts)
        sweep.show(new Map([...named(['a']), ['c', 'b']]))
        measure(firstWidths({ from: 320, to: SWEEP_TO, bounds: BOUNDS }, 'plain').length / 3)
        const all = [320, ...measured.sort((a, b) => a - b), SWEEP_TO]
        for (const [i, width] of all.slice(1).entries()) expect(width - all[i]!).toBeLessThanOrEqual(128)
      }),
    )
  })

  test('after an edit of any band its edges are found to the px, with fewer layouts where they stayed', () => {
    const layouts = { first: 0, again: 0 }
    fc.assert(
      fc.property(wide, wide, fc.integer({ min: -3, max: 3 }), (range, other, by) => {
        const sweep = new PageSweep(BOUNDS)
        const layoutsOf = (key: string, { from, to }: Omit<Trouble, 'id'>): number => {
          sweep.show(new Map([[key, 'n']]))
          const { gullies, laidOut } = swept(sweep, new Map([[key, [{ id: 'n', from, to }]]]))
          expect(gullies.map((one) => [one.from, one.to])).toEqual([[from, to]])
          return laidOut.get(key)!
        }
        layouts.first += layoutsOf('before', range)
        layouts.again += layoutsOf('same', range)
        layoutsOf('moved', { from: Math.max(320, range.from + by), to: Math.min(1920, range.to + by) })
        layoutsOf('elsewhere', other)
      }),
    )
    expect(layouts.again).toBeLessThan(layouts.first)
  })

  test('after an edit little is laid out where nothing changed its size, all edges are found, and no point is missing', () => {
    const layouts = { first: 0, again: 0 }
    const still = fc.integer({ min: 320, max: 1700 })
    fc.assert(
      fc.property(still, still, wide, wide, (before, after, one, other) => {
        // What is still is wrong everywhere or nowhere.
        const settled = ({ from, to }: Omit<Trouble, 'id'>, from1: number): Trouble | undefined =>
          from >= from1 ? undefined : { id: 'n', from, to: to >= from1 ? SWEEP_TO : to }
        const sweep = new PageSweep(BOUNDS)
        const layoutsOf = (key: string, range: Omit<Trouble, 'id'>, stillFrom: number): number => {
          sweep.show(new Map([[key, 'n']]))
          const trouble = settled(range, stillFrom)
          const { gullies, laidOut } = swept(sweep, new Map([[key, trouble ? [trouble] : []]]), { stillFrom })
          expect(gullies.map(({ from, to }) => [from, to])).toEqual(
            trouble ? [[trouble.from, trouble.to]] : [],
          )
          expect(sweep.progress).toBe(1)
          const points = sweep.points.map(({ width }) => width)
          for (const width of firstWidths({ from: 320, to: SWEEP_TO, bounds: BOUNDS }, 'plain'))
            expect(points).toContain(width)
          return laidOut.get(key)!
        }
        layouts.first += layoutsOf('before', one, before)
        layouts.again += layoutsOf('same', one, before)
        layoutsOf('later', other, after)
        layoutsOf('never', other, Infinity)
      }),
      { numRuns: 50 },
    )
    expect(layouts.again).toBeLessThan(0.75 * layouts.first)
  })
})

describe('colours', () => {
  test('the contrast of computed colours is that of the same colours by the formula', () => {
    const channel = fc.integer({ min: 0, max: 255 })
    const colour = fc.tuple(channel, channel, channel)
    const hex = (all: readonly number[]) => `#${all.map((one) => one.toString(16).padStart(2, '0')).join('')}`
    fc.assert(
      fc.property(colour, colour, (a, b) => {
        const ratio = contrastOf(rgbaOf(`rgb(${a.join(', ')})`), rgbaOf(`rgb(${b.join(', ')})`))
        expect(ratio).toBeCloseTo(contrastRatio(hex(a), hex(b)), 9)
      }),
    )
  })

  test('an overlay is the gradient that its style says (CSS Images 3, 3.1)', () => {
    const side = paintOf('linear-gradient(90deg, color(srgb 0 0 0 / 0.8), color(srgb 0 0 0 / 0.2) 50%)', {
      width: 100,
      height: 40,
    })!
    expect([0, 0.25, 0.5, 1].map((x) => Math.round(side(x, 0.5)[3] * 100))).toEqual([80, 50, 20, 20])
    const sized = paintOf('linear-gradient(90deg, rgb(0, 0, 0) 0%, rgba(0, 0, 0, 0) max(50%, 150px))', {
      width: 200,
      height: 9,
    })!
    expect([0, 0.375, 0.75, 1].map((x) => Math.round(sized(x, 0.5)[3] * 100))).toEqual([100, 50, 0, 0])
    const down = paintOf('linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))', { width: 10, height: 10 })!
    expect(down(0.5, 0).map(Math.round)).toEqual([255, 0, 0, 1])
    expect(down(0.1, 0.5).map(Math.floor)).toEqual([127, 0, 127, 1])
    expect(paintOf('none', { width: 1, height: 1 })).toBeUndefined()
  })
})
