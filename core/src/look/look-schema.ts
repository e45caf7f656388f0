/** The JSON Schema (2020-12) of a look. */
import { SIZE_KEY_PATTERN } from '../sizes/size-keys.ts'
import {
  FEWEST_SIZES,
  LONGEST_SIZE_NAME,
  MOST_FORMER_SIZES,
  MOST_SIZES,
  SIZE_FROM,
} from '../sizes/change-sizes.ts'
import { SCALES } from './scales.ts'

const px = { type: 'number', minimum: 0, maximum: 4000 }
const object = (properties: Readonly<Record<string, unknown>>, optional: readonly string[] = []) => ({
  type: 'object',
  properties,
  required: Object.keys(properties).filter((name) => !optional.includes(name)),
  additionalProperties: false,
})
const each = (names: readonly string[], schema: unknown) =>
  object(Object.fromEntries(names.map((name) => [name, schema])))
const fluid = object({ from: px, to: px })
const colour = { type: 'string', pattern: '^#[0-9a-f]{6}$' }
// What goes into CSS as it stands may hold nothing that ends a declaration.
const cssWords = { type: 'string', maxLength: 200, pattern: '^[\\w ,.-]+$' }
const title = { type: 'string', minLength: 1, maxLength: 80 }
const family = object(
  {
    name: cssWords,
    fallback: cssWords,
    files: {
      type: 'array',
      maxItems: 20,
      items: object({
        file: { type: 'string', pattern: '^[\\w-]+\\.woff2$' },
        style: { enum: ['normal', 'italic'] },
        weight: { type: 'string', pattern: '^\\d{1,4}( \\d{1,4})?$' },
      }),
    },
    metrics: object({
      unitsPerEm: { type: 'number', minimum: 16, maximum: 16_384 },
      ascent: { type: 'number', minimum: 0, maximum: 65_535 },
      descent: { type: 'number', minimum: -65_535, maximum: 0 },
      lineGap: { type: 'number', minimum: 0, maximum: 65_535 },
      letterWidth: { type: 'number', minimum: 1, maximum: 65_535 },
      like: { enum: ['serif', 'sans'] },
    }),
  },
  ['metrics'],
)

const size = object({
  key: { type: 'string', pattern: SIZE_KEY_PATTERN },
  name: { type: 'string', minLength: 1, maxLength: LONGEST_SIZE_NAME },
  from: { type: 'integer', minimum: 0, maximum: SIZE_FROM.most },
})

const surfaces = {
  type: 'object',
  propertyNames: { pattern: '^[a-z][a-z0-9-]{0,31}$' },
  additionalProperties: object({
    title,
    background: colour,
    ink: colour,
    quiet: colour,
    titleInk: colour,
    link: colour,
    accent: colour,
    onAccent: colour,
    line: colour,
  }),
}

export const LOOK_SCHEMA = object(
  {
    fonts: object({ words: family, titles: family }),
    space: each(SCALES.space, fluid),
    type: each(
      SCALES.type,
      object({
        size: fluid,
        leading: { type: 'number', minimum: 0.5, maximum: 4 },
        tracking: { type: 'number', minimum: -0.5, maximum: 1 },
        weight: { type: 'integer', minimum: 1, maximum: 1000 },
        family: { enum: ['words', 'titles'] },
      }),
    ),
    radius: each(SCALES.radius, px),
    surfaces,
    pageSurface: { type: 'string', pattern: '^[a-z][a-z0-9-]{0,31}$' },
    widths: object({ reading: px, broad: px }),
    gutter: fluid,
    sizes: { type: 'array', minItems: FEWEST_SIZES, maxItems: MOST_SIZES, items: size },
    formerSizes: { type: 'array', maxItems: MOST_FORMER_SIZES, items: size },
    ownValues: { type: 'boolean' },
    themes: {
      type: 'object',
      propertyNames: { pattern: '^[a-z][a-z0-9-]{0,31}$' },
      additionalProperties: object(
        { title, surfaces, pageSurface: { type: 'string', pattern: '^[a-z][a-z0-9-]{0,31}$' } },
        ['pageSurface'],
      ),
    },
  },
  ['themes', 'ownValues', 'formerSizes'],
)
