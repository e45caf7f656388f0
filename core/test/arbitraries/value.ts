/** Values that are valid for a field, made from its schema alone, so that a new kind is covered on arrival. */
import fc from 'fast-check'
import type { FieldSchema, ObjectSchema } from '../../src/kit/fields.ts'
import { SCALES } from '../../src/look/scales.ts'
import type { Json, JsonObject } from '../../src/page/json.ts'
import { toLine } from '../../src/page/line.ts'
import {
  EXCLUSIVE_MARKS,
  MARKS,
  normalizeRichText,
  type RichText,
  type Run,
} from '../../src/page/rich-text.ts'
import { webAddress } from './text.ts'

/** Objects as pages read from JSON have them. */
export const PLAIN = { noNullPrototype: true } as const

export const PAGE_IDS = ['home', 'visit', 'gone'] as const
export const PICTURE_IDS = ['pica', 'picb', 'picgone'] as const

/** Words as people type them, and as people who mean harm do. */
export const plainWords = fc
  .oneof(
    fc.string({ unit: 'grapheme', maxLength: 20 }),
    fc.constantFrom(
      '',
      ' ',
      '<b>x</b>',
      '</style><script>alert(1)</script>',
      '&amp;',
      '"><img src=x onerror=1>',
      'two  words',
    ),
  )
  .map((value) => value.replace(/[\u0000-\u001f\u007f]/g, ''))

const link = fc.oneof(
  fc.record(
    { page: fc.constantFrom(...PAGE_IDS), anchor: fc.constantFrom('top', 'hours') },
    { ...PLAIN, requiredKeys: ['page'] },
  ),
  fc.record(
    {
      href: fc.oneof(
        webAddress,
        fc.constantFrom('mailto:a@b.example', 'javascript:alert(1)', '/x', '#y', ' JaVa\u00a0script:1'),
      ),
    },
    PLAIN,
  ),
)

const run = fc.record(
  {
    text: fc.oneof(plainWords, fc.constant('line\nbreak')).filter((value) => value !== ''),
    marks: fc
      .subarray([...MARKS], { minLength: 1, maxLength: 3 })
      // Nothing stands above and below the line at once.
      .filter((marks) =>
        EXCLUSIVE_MARKS.every((group) => group.filter((mark) => marks.includes(mark)).length < 2),
      )
      .map((marks) => [...marks].sort()),
    link,
  },
  { ...PLAIN, requiredKeys: ['text'] },
)
export const anyRuns = fc.array(run, { maxLength: 4 }) as fc.Arbitrary<readonly Run[]>
export const anyLine = fc.oneof(plainWords, anyRuns.map(toLine))
const listDepth = fc.createDepthIdentifier()
const item = fc.letrec<{ item: unknown; list: unknown }>((tie) => ({
  item: fc
    .record({
      runs: fc.array(run, { maxLength: 2 }),
      // As deep as lists may stand in lists.
      list: fc.option(tie('list'), {
        nil: undefined,
        depthSize: 'small',
        maxDepth: 5,
        depthIdentifier: listDepth,
      }),
    })
    .map(({ runs, list }) => (list === undefined ? { runs } : { runs, list })),
  list: fc.record(
    {
      type: fc.constant('list'),
      ordered: fc.boolean(),
      items: fc.array(tie('item'), { minLength: 1, maxLength: 3 }),
    },
    PLAIN,
  ),
}))
export const richText = fc
  .array(
    fc.oneof(
      fc.record({ type: fc.constant('paragraph'), runs: fc.array(run, { maxLength: 3 }) }, PLAIN),
      item.list,
    ),
    { maxLength: 3 },
  )
  .map((value) => normalizeRichText(value as RichText))

function valueFor(field: FieldSchema): fc.Arbitrary<Json> {
  switch (field.control) {
    case 'fields':
      // They point at blocks, which are not known here; a page of no site was made from a template that is not there.
      return fc.constant(field.type === 'object' ? { template: 'none', version: 1 } : [])
    case 'part':
      // Ids are drawn by what makes the page, which knows the parts there are.
      return fc.constant('none')
    case 'line':
      return plainWords
    case 'formatted-line':
      return anyLine as unknown as fc.Arbitrary<Json>
    case 'words':
      return richText as unknown as fc.Arbitrary<Json>
    case 'list':
      return item.list.map((list) => normalizeRichText([list] as RichText) as unknown as Json)
    case 'table':
      return fc.array(fc.array(plainWords, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 3 })
    case 'count': {
      const { minimum, maximum, multipleOf = 1 } = field as unknown as Readonly<Record<string, number>>
      return fc
        .integer({ min: minimum! / multipleOf, max: Math.min(maximum!, 30) / multipleOf })
        .map((one) => one * multipleOf)
    }
    case 'percent':
      return fc.integer({ min: 1, max: 100 })
    case 'icon':
    case 'choice':
      return fc.constantFrom(...(field.enum as string[]))
    case 'step':
      return fc.constantFrom(
        ...SCALES[field.scale!],
        ...Object.keys(field.words ?? {}),
        '0px',
        '18px',
        '999px',
      )
    case 'toggle':
      return fc.boolean()
    case 'level':
      return fc.integer({ min: 1, max: 6 })
    case 'surface':
      return fc.constantFrom('plain', 'night', 'unknown', '#a1b2c3')
    case 'link':
      return link
    case 'media':
      return fc.record(
        {
          id: fc.constantFrom(...PICTURE_IDS),
          focus: fc.record({ x: fc.integer({ min: 0, max: 100 }), y: fc.constant(40) }, PLAIN),
          crop: fc.record(
            {
              x: fc.integer({ min: 0, max: 50 }),
              y: fc.constant(10),
              width: fc.integer({ min: 1, max: 50 }),
              height: fc.constant(25.5),
              shape: fc.constantFrom(0.75, 1.5),
            },
            PLAIN,
          ),
        },
        { ...PLAIN, requiredKeys: ['id'] },
      )
    case 'date':
      return fc.constantFrom('2026-11-27', '1999-02-31')
    case 'anchor':
      return fc.constantFrom('top', 'opening-hours')
  }
}

/** Any value that the schema of one part allows: required fields always there, the others sometimes. */
export function valuesFor(schema: ObjectSchema): fc.Arbitrary<JsonObject> {
  const fields = Object.fromEntries(
    Object.entries(schema.properties)
      // Which template a page was made from belongs to its site, and is no content that can be carried.
      .filter(([key]) => key !== 'madeFrom')
      .map(([key, field]) => [key, valueFor(field)]),
  )
  return fc.record(fields, { ...PLAIN, requiredKeys: [...schema.required] }) as fc.Arbitrary<JsonObject>
}

/** A field of a schema with a value for it: mostly valid, now and then not, and now and then none. */
export function fieldAndValue(schema: ObjectSchema): fc.Arbitrary<{ key: string; value?: Json }> {
  const keys = Object.keys(schema.properties)
  const hostile = fc.record({
    key: fc.constantFrom('__proto__', 'constructor', 'x', ...keys),
    value: fc.constantFrom<Json>(null, -1, 'nonsense', {}, []),
  })
  if (keys.length === 0) return hostile
  return fc.oneof(
    {
      weight: 6,
      arbitrary: fc
        .constantFrom(...keys)
        .chain((key) => valueFor(schema.properties[key]!).map((value) => ({ key, value }))),
    },
    { weight: 2, arbitrary: fc.constantFrom(...keys).map((key) => ({ key })) },
    { weight: 1, arbitrary: hostile },
  )
}
