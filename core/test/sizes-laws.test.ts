import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { fluidCss, fluidPx } from '../src/look/look.ts'
import { normalizeRichText, richTextWords } from '../src/page/rich-text.ts'
import { ID_BYTES, ID_PATTERN, idFrom } from '../src/page/id.ts'
import { cascade, cascadeValue } from '../src/sizes/cascade.ts'
import { sizeAt } from '../src/sizes/site-sizes.ts'
import { USUAL_KEYS } from '../src/sizes/size-keys.ts'
import { Counts } from './arbitraries/counts.ts'
import { anyPage } from './arbitraries/page.ts'
import { richText, valuesFor } from './arbitraries/value.ts'
import { testLook } from './arbitraries/site.ts'

/** Those of the usual sizes, and of sizes that a site put between and after them. */
const SIZE_KEYS = [...USUAL_KEYS, 'g', 't'].sort()

const pageAndNode = anyPage.chain((page) =>
  fc.constantFrom(...Object.keys(page.nodes)).map((id) => ({ page, id })),
)

test('every width has exactly one size, and sizes follow each other from narrow to wide', () => {
  let last = 2
  for (let width = 200; width <= 2500; width++) {
    const at = testLook.sizes.findIndex(({ key }) => key === sizeAt(width, testLook))
    expect(at).toBeGreaterThanOrEqual(0)
    expect(at).toBeLessThanOrEqual(last)
    last = at
  }
})

test('changing a value at one size never changes a wider one, nor a narrower one that sets its own', () => {
  const counts = new Counts()
  fc.assert(
    fc.property(pageAndNode, fc.constantFrom(...SIZE_KEYS), fc.nat(), ({ page, id }, size, seed) => {
      const node = page.nodes[id]!
      const schema = getKind(registry, node.kind).arrangement
      const [values] = fc.sample(valuesFor(schema), { numRuns: 1, seed })
      const [key] = Object.keys(values!)
      if (key === undefined) return counts.skip()
      counts.look()
      const applied = applyEdit(
        page,
        { edit: 'set', nodeId: id, at: ['sizes', size, key], value: values![key]! },
        registry,
      )
      if (!applied.ok) throw new Error(applied.message)
      const after = applied.page.nodes[id]!
      expect(cascadeValue(after, schema, size, key)).toEqual({ value: values![key], origin: { from: 'own' } })
      for (const other of SIZE_KEYS) {
        const isWider = other < size
        const setsOwn = other !== size && node.sizes[other]?.[key] !== undefined
        if (isWider || setsOwn)
          expect(cascade(after, schema, other)[key]).toEqual(cascade(node, schema, other)[key])
      }
    }),
    { numRuns: 500 },
  )
  counts.expectLooked(0.35)
})

test('the two ways to read a value agree, field by field', () => {
  fc.assert(
    fc.property(pageAndNode, fc.constantFrom(...SIZE_KEYS), ({ page, id }, size) => {
      const node = page.nodes[id]!
      const schema = getKind(registry, node.kind).arrangement
      const all = cascade(node, schema, size)
      for (const key of Object.keys(schema.properties))
        expect(cascadeValue(node, schema, size, key).value).toEqual(all[key])
    }),
    { numRuns: 500 },
  )
})

test('a fluid length stays between its ends, grows one way, and its CSS says the same', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: 200, max: 3000 }),
      (from, to, width) => {
        const px = fluidPx({ from, to }, width)
        expect(px).toBeGreaterThanOrEqual(Math.min(from, to))
        expect(px).toBeLessThanOrEqual(Math.max(from, to))
        expect(Math.abs(evaluateClamp(fluidCss({ from, to }), width) - px)).toBeLessThan(0.1)
      },
    ),
    { numRuns: 500 },
  )
})

/** The value in px of the CSS that `fluidCss` writes, by the definition of clamp() in CSS Values and Units 4. */
function evaluateClamp(css: string, width: number): number {
  const rem = (text: string) => parseFloat(text) * 16
  const match = /^clamp\(([-\d.]+)rem,([-\d.]+)rem \+ ([-\d.]+)vw,([-\d.]+)rem\)$/.exec(css)
  if (!match) return rem(css)
  const [, low, base, slope, high] = match
  return Math.max(rem(low!), Math.min(rem(base!) + (parseFloat(slope!) * width) / 100, rem(high!)))
}

test('normalising text changes no word, and doing it twice changes nothing more', () => {
  fc.assert(
    fc.property(richText, (text) => {
      const split = text.map((block) =>
        block.type === 'paragraph'
          ? {
              ...block,
              runs: block.runs.flatMap((run) => [...run.text].map((letter) => ({ ...run, text: letter }))),
            }
          : block,
      )
      const once = normalizeRichText(split)
      expect(once).toEqual(normalizeRichText(text))
      expect(normalizeRichText(once)).toEqual(once)
      expect(richTextWords(once)).toEqual(richTextWords(text))
    }),
    { numRuns: 500 },
  )
})

test('every id made from random bytes is one that pages take, and bytes that differ mostly make ids that do', () => {
  const pattern = new RegExp(ID_PATTERN)
  const bytes = fc.uint8Array({ minLength: ID_BYTES, maxLength: ID_BYTES })
  fc.assert(fc.property(bytes, (value) => expect(idFrom(value)).toMatch(pattern)))
  const ids = new Set(fc.sample(bytes, { numRuns: 2000, seed: 7 }).map(idFrom))
  expect(ids.size).toBeGreaterThan(1500)
})
