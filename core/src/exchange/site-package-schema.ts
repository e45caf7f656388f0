/** The JSON Schema (2020-12) of a site package: its shape alone, and whole with every block kind. */
import type { BlockDefinition } from '../blocks/define-block.ts'
import { SHARED_SCHEMA } from '../kit/fields.ts'
import { LOOK_SCHEMA } from '../look/look-schema.ts'
import { ID_PATTERN } from '../page/id.ts'
import { LONGEST_PART_ABOUT, LONGEST_PART_NAME, PART_PURPOSES } from '../reuse/part-facts.ts'
import { MOST_NAVIGATION } from '../site/navigation.ts'
import { pageSchema } from './package-schema.ts'
import { SITE_PACKAGE_FORMAT } from './site-package.ts'

/** As many as a large site has, and few enough to be looked through in a moment. */
const MOST_PAGES = 10_000
const MOST_PARTS = 2_000
const MOST_MEDIA = 20_000

const id = { type: 'string', pattern: ID_PATTERN }
const idOrNull = { type: ['string', 'null'], pattern: ID_PATTERN }
const ids = { pattern: ID_PATTERN }
const line = (maxLength: number) => ({
  type: 'string',
  maxLength,
  pattern: '^[^\\u0000-\\u001F\\u007F\\uD800-\\uDFFF]*$',
})
const words = (maxLength: number) => ({ ...line(maxLength), minLength: 1 })

function object(required: Readonly<Record<string, object>>, optional: Readonly<Record<string, object>> = {}) {
  return {
    type: 'object',
    properties: { ...required, ...optional },
    required: Object.keys(required),
    additionalProperties: false,
  }
}

const medium = {
  name: words(200),
  digest: { type: 'string', pattern: '^[0-9a-f]{64}$' },
  bytes: { type: 'integer', minimum: 1 },
}

function sitePackageSchema(document: object) {
  const owned = object({ id, document })
  return object(
    {
      format: { const: SITE_PACKAGE_FORMAT },
      look: LOOK_SCHEMA,
      parts: {
        type: 'object',
        maxProperties: MOST_PARTS,
        propertyNames: ids,
        additionalProperties: object({
          type: { enum: ['pattern', 'shared', 'template'] },
          name: words(LONGEST_PART_NAME),
          purpose: { enum: Object.keys(PART_PURPOSES) },
          about: line(LONGEST_PART_ABOUT),
          document,
        }),
      },
      pages: {
        type: 'array',
        maxItems: MOST_PAGES,
        items: object({
          id,
          parentId: idOrNull,
          slug: { type: 'string', maxLength: 100, pattern: '^[\\p{L}\\p{N}\\p{M}-]*$' },
          document,
        }),
      },
      pictures: {
        type: 'object',
        maxProperties: MOST_MEDIA,
        propertyNames: ids,
        additionalProperties: object({ ...medium, alt: line(1000), isDecoration: { type: 'boolean' } }),
      },
      files: {
        type: 'object',
        maxProperties: MOST_MEDIA,
        propertyNames: ids,
        additionalProperties: object(medium),
      },
    },
    {
      site: object({
        name: words(100),
        language: { type: 'string', pattern: '^[A-Za-z0-9-]{2,35}$' },
        homePageId: id,
        notFoundPageId: idOrNull,
        icon: idOrNull,
        sharePicture: idOrNull,
        navigationLimit: { type: 'integer', minimum: 0, maximum: MOST_NAVIGATION },
        navigation: { type: 'array', maxItems: MOST_NAVIGATION, items: { type: 'object' } },
        header: owned,
        footer: owned,
      }),
    },
  )
}

/** Everything but what stands inside the documents, which are judged with better words; see `sitePackageProblems`. */
export const SITE_PACKAGE_SHAPE = sitePackageSchema({ type: 'object' })

/** The whole schema, for other people's programs. */
export function fullSitePackageSchema(kinds: readonly BlockDefinition[]): object {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Gullyline site package',
    ...sitePackageSchema({ $ref: '#/$defs/page' }),
    $defs: { page: pageSchema(kinds), shared: SHARED_SCHEMA },
  }
}
