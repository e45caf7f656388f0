/** The sizes of a site: whatever is done to them, pages keep what was set, and look different only where they should. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { changeSentences } from '../src/compare/change-sentences.ts'
import { applyEdit, editSentence } from '../src/edits/edit.ts'
import { migrateLook } from '../src/look/migrate-look.ts'
import type { Look } from '../src/look/look.ts'
import { PAGE_FORMAT, type Page, type PageNode } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import {
  keyBetween,
  LEAST_RANGE,
  SIZE_FROM,
  sizesFault,
  withFormerSize,
  withoutSize,
  withSize,
} from '../src/sizes/change-sizes.ts'
import { isSizeKey, sizesSet } from '../src/sizes/size-keys.ts'
import {
  sampleWidth,
  sizeAt,
  sizeBounds,
  sizeWord,
  USUAL_SIZES,
  widthBelow,
  type WithSizes,
} from '../src/sizes/site-sizes.ts'
import { answered } from './arbitraries/answered.ts'
import { anyPage, editFor } from './arbitraries/page.ts'
import { testLook, testSite } from './arbitraries/site.ts'

const WIDTHS = Array.from({ length: 2100 - 300 }, (_unused, i) => i + 300)
const below = fc.integer({ min: SIZE_FROM.least, max: SIZE_FROM.most })
/** One change of a site's sizes, by an administrator who tries anything; what does not fit is not done. */
const change = fc.oneof(
  below.map((at) => (now: WithSizes, i: number) => withSize(now, { name: `size ${i}`, below: at })),
  fc.nat(5).map((at) => (now: WithSizes) => withoutSize(now, now.sizes[at]?.key ?? 'none')),
  fc.nat(5).map((at) => (now: WithSizes) => withFormerSize(now, now.formerSizes?.[at]?.key ?? 'none')),
)
const changes = fc.array(change, { minLength: 1, maxLength: 12 })

/** The sizes of a site after each of these changes that fits, and those it began with. */
function done(list: readonly ((now: WithSizes, i: number) => WithSizes)[]): readonly WithSizes[] {
  const all: WithSizes[] = [{ sizes: USUAL_SIZES }]
  for (const [i, act] of list.entries()) {
    const next = act(all.at(-1)!, i)
    if (next !== all.at(-1) && sizesFault(next) === undefined) all.push(next)
  }
  return all
}

const htmlOf = (page: Page, at: WithSizes): string => {
  const look: Look = { ...testLook, ...at }
  return renderPage(
    { page: answered(page, (prompt) => prompt), title: 'A page', description: 'What it is' },
    registry,
    { ...testSite(), look },
    'inline',
  ).html
}
/** A page on which things were set at several sizes, some of which the site may not have. */
const changedPage: fc.Arbitrary<Page> = anyPage.chain((page) =>
  fc.array(editFor(page), { maxLength: 12 }).map((edits) =>
    edits.reduce((now, edit) => {
      const applied = applyEdit(now, edit, registry)
      return applied.ok ? applied.page : now
    }, page),
  ),
)

test('a key between two others lies between them, is a key, and leaves room before and after', () => {
  const keys = fc.stringMatching(/^[b-z][a-z]{0,4}[b-z]$/).filter(isSizeKey)
  fc.assert(
    fc.property(keys, fc.option(keys, { nil: undefined }), (one, other) => {
      if (one === other) return
      const [wider, narrower] = other !== undefined && other < one ? [other, one] : [one, other]
      const between = keyBetween(wider, narrower)
      expect(between > wider && (narrower === undefined || between < narrower)).toBe(true)
      expect(isSizeKey(between)).toBe(true)
      expect(between.endsWith('a')).toBe(false)
    }),
    { numRuns: 2000 },
  )
})

test('what is no key of a size is none: other letters, what sorts before the widest, and the name that every object has', () => {
  for (const key of ['', 'a', 'ba', 'BASE', 'n1', '__proto__', 'constructor', 'x'.repeat(25), 'base '])
    expect([key, isSizeKey(key)]).toEqual([key, false])
})

test('whatever is done to the sizes of a site, every width has one, and their words, bounds and samples are theirs', () => {
  let looked = 0
  fc.assert(
    fc.property(changes, (list) => {
      for (const at of done(list)) {
        looked++
        const bounds = sizeBounds(at)
        expect([...bounds].sort((a, b) => a - b)).toEqual(bounds)
        for (const { key, name } of at.sizes) {
          expect(sizeAt(sampleWidth(key, at), at)).toBe(key)
          expect(sizeWord(key, at)).toBe(name)
        }
        const keys = WIDTHS.map((width) => sizeAt(width, at))
        expect(keys.every((key, i) => i === 0 || keys[i - 1]! >= key)).toBe(true)
      }
    }),
    { numRuns: 60 },
  )
  expect(looked).toBeGreaterThan(150)
})

test('what is set at a size is in force exactly where that size or a narrower one is shown', () => {
  fc.assert(
    fc.property(changes, fc.constantFrom('base', 'g', 'medium', 'narrow', 't'), (list, key) => {
      for (const at of done(list))
        expect(
          WIDTHS.filter((width) => width < (widthBelow(key, at) ?? Infinity) !== sizeAt(width, at) >= key),
        ).toEqual([])
    }),
    { numRuns: 60 },
  )
})

/** Whether something is set at a size that the site never had: a size that is added may stand on either side of it. */
function hasUnknownSizes(page: Page, { sizes, formerSizes = [] }: WithSizes): boolean {
  const keys = new Set([...sizes, ...formerSizes].map(({ key }) => key))
  return sizesSet(...Object.values(page.nodes)).some((key) => !keys.has(key))
}

describe('a page', () => {
  test('is the same to the byte after a size is added at which nothing is set', () => {
    let looked = 0
    fc.assert(
      fc.property(changedPage, changes, below, (page, list, at) => {
        const now = done(list).at(-1)!
        const next = withSize(now, { name: 'new', below: at })
        if (sizesFault(next) !== undefined || hasUnknownSizes(page, now)) return
        looked++
        expect(htmlOf(page, next)).toBe(htmlOf(page, now))
      }),
      { numRuns: 150 },
    )
    expect(looked).toBeGreaterThan(40)
  })

  test('is the same to the byte after a size is taken out and brought back, and valid in between', () => {
    let looked = 0
    fc.assert(
      fc.property(changedPage, changes, fc.nat(4), (page, list, i) => {
        const now = done(list).at(-1)!
        const key = now.sizes[i + 1]?.key
        if (key === undefined || now.sizes.length === 2) return
        const without = withoutSize(now, key)
        expect(sizesFault(without)).toBeUndefined()
        expect(without.sizes.map((one) => one.key)).not.toContain(key)
        const back = withFormerSize(without, key)
        expect(back.sizes).toEqual(now.sizes)
        looked++
        expect(htmlOf(page, back)).toBe(htmlOf(page, now))
        expect(validatePage(page, registry)).toEqual([])
      }),
      { numRuns: 150 },
    )
    expect(looked).toBeGreaterThan(40)
  })
})

test('what a size hands on to narrower ones stays when it is taken out', () => {
  const at = withoutSize({ sizes: USUAL_SIZES }, 'medium')
  expect(at.sizes).toEqual([
    { key: 'base', name: 'wide', from: 1200 },
    { key: 'narrow', name: 'narrow', from: 0 },
  ])
  // At 800 px, where medium was, narrow is shown, which has what was set at medium.
  expect([sizeAt(800, at), widthBelow('medium', at), widthBelow('narrow', at)]).toEqual([
    'narrow',
    1200,
    1200,
  ])
  expect(sizeWord('medium', at)).toBe('medium')
})

test('without the narrowest, the next wider size reaches down, and what was set at the narrowest is shown nowhere', () => {
  const at = withoutSize({ sizes: USUAL_SIZES }, 'narrow')
  expect([sizeAt(320, at), widthBelow('narrow', at)]).toEqual(['medium', 0])
  expect(withFormerSize(at, 'narrow').sizes).toEqual(USUAL_SIZES)
})

test.each([
  ['one size', [{ key: 'base', name: 'wide', from: 0 }], '2 to 6'],
  ['the widest is another', [{ key: 'medium', name: 'a', from: 700 }, USUAL_SIZES[2]!], '“base”'],
  ['two of one name', [USUAL_SIZES[0]!, { key: 'narrow', name: 'Wide', from: 0 }], 'same name'],
  [
    'no order',
    [USUAL_SIZES[0]!, { ...USUAL_SIZES[2]!, from: 700 }, { key: 'medium', name: 'b', from: 0 }],
    'order',
  ],
  ['begins nowhere', [USUAL_SIZES[0]!, { key: 'narrow', name: 'n', from: 5 }], 'at 0 px'],
  ['too near', [USUAL_SIZES[0]!, { ...USUAL_SIZES[1]!, from: 1201 - LEAST_RANGE }, USUAL_SIZES[2]!], 'apart'],
  ['not a whole px', [{ ...USUAL_SIZES[0]!, from: 1200.5 }, USUAL_SIZES[2]!], '321 to 1920'],
])('sizes with a fault are told in words: %s', (_name, sizes, words) => {
  expect(sizesFault({ sizes })).toContain(words)
})

test('a look of before has its bounds as sizes of the usual names; another value is left to validation', () => {
  const { sizes: _sizes, ...rest } = testLook
  expect(migrateLook({ ...rest, bounds: { medium: 640, wide: 1000 } })).toEqual({
    ...rest,
    sizes: [
      { key: 'base', name: 'wide', from: 1000 },
      { key: 'medium', name: 'medium', from: 640 },
      { key: 'narrow', name: 'narrow', from: 0 },
    ],
  })
  expect(migrateLook(testLook)).toBe(testLook)
  for (const other of [null, 3, 'look', [], {}]) expect(migrateLook(other)).toBe(other)
})

test('sentences call a size as its site does, one that was taken out as it did, and no other by a guess', () => {
  const page = pageOf({ sizes: { base: {}, g: { gap: 'm' }, medium: { gap: 's' } } })
  const at = { sizes: [...USUAL_SIZES], formerSizes: [{ key: 'g', name: 'laptop', from: 1200 }] }
  const told = (size: string, sizes?: WithSizes): string =>
    editSentence(page, { edit: 'set', nodeId: 'row', at: ['sizes', size, 'gap'] }, registry, sizes)
  expect(told('g', at)).toMatch(/ at laptop$/)
  expect(told('medium', { sizes: USUAL_SIZES.map((one) => ({ ...one, name: `our ${one.name}` })) })).toMatch(
    / at our medium$/,
  )
  expect(told('g')).toMatch(/ at another size$/)
  const [sentence] = changeSentences(pageOf({ sizes: { base: {} } }), page, registry, at)
  expect(sentence).toMatch(/ at laptop$/)
})

function pageOf(row: Partial<PageNode>): Page {
  const node = (kind: string, more: Partial<PageNode>): PageNode => newNode(getKind(registry, kind), more)
  return {
    format: PAGE_FORMAT,
    root: 'page',
    nodes: {
      page: node('page', { slots: { sections: ['section'] } }),
      section: node('section', { slots: { blocks: ['row'] } }),
      row: node('row', row),
    },
  }
}
