/** The generated validators, judged by Ajv on the schemas as the kinds state them. */
import { describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import { defaultRegistry } from '../../src/blocks/default-registry.ts'
import { partSchema } from '../../src/blocks/define-block.ts'
import { ANNOTATIONS, SHARED_SCHEMA } from '../../src/kit/fields.ts'
import { NODE_PARTS } from '../../src/blocks/registry.ts'
import { loadChecks, screenRegistry } from '../../src/blocks/screen-registry.ts'
import { valuesFor } from '../arbitraries/value.ts'

const ajv = new Ajv2020({
  strictTuples: false,
  strictTypes: false,
  discriminator: true,
  schemas: [SHARED_SCHEMA],
})
ajv.addVocabulary([...ANNOTATIONS])

const parts = [...defaultRegistry.kinds.values()].flatMap((definition) =>
  NODE_PARTS.map((part) => {
    const schema = partSchema(definition, part)
    return { kind: definition.kind, part, schema, validate: ajv.compile(schema) }
  }),
)

/** A value that a part may have, or one that differs from it in one field. */
const tried = fc
  .constantFrom(...parts)
  .chain((one) =>
    fc
      .tuple(
        valuesFor(one.schema),
        fc.option(fc.tuple(fc.constantFrom('x', ...Object.keys(one.schema.properties)), fc.jsonValue())),
      )
      .map(([values, other]) => ({ ...one, value: other ? { ...values, [other[0]]: other[1] } : values })),
  )

describe('the check of a part of a kind', () => {
  test('accepts what its schema accepts, and points at the same fault', () => {
    const verdicts = { accepted: 0, refused: 0 }
    fc.assert(
      fc.property(tried, ({ kind, part, validate, value }) => {
        const isValid = validate(value)
        verdicts[isValid ? 'accepted' : 'refused']++
        const problems = defaultRegistry.check(kind, part, value)
        expect(problems.map(({ pointer }) => pointer)).toEqual(
          isValid ? [] : validate.errors!.map(({ instancePath }) => instancePath),
        )
      }),
      { numRuns: 3000 },
    )
    expect(Math.min(verdicts.accepted, verdicts.refused)).toBeGreaterThan(300)
  })

  test('finds nothing on a screen before it is loaded, and the same afterwards', async () => {
    const wrong = ['heading', 'content', { text: 5, level: 2 }] as const
    expect(screenRegistry.check(...wrong)).toEqual([])
    await loadChecks()
    expect(screenRegistry.check(...wrong)).toEqual(defaultRegistry.check(...wrong))
    expect(screenRegistry.check(...wrong)).not.toEqual([])
    expect([...screenRegistry.kinds]).toEqual([...defaultRegistry.kinds])
  })
})
