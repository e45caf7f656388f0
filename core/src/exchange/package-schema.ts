/** The JSON Schema (2020-12) of a page package: its shape alone, and whole with every block kind. */
import { MOST_VALUES } from '../blocks/component-fields.ts'
import type { BlockDefinition } from '../blocks/define-block.ts'
import { SHARED_SCHEMA } from '../kit/fields.ts'
import { fieldsOfWords } from '../blocks/prompts.ts'
import { LOOK_SCHEMA } from '../look/look-schema.ts'
import { ID_PATTERN } from '../page/id.ts'
import { PAGE_FORMAT } from '../page/page.ts'
import { EXTENSIONS, PACKAGE_FORMAT } from './page-package.ts'

const line = (maxLength: number) => ({ type: 'string', maxLength, pattern: '^[^\\u0000-\\u001F\\u007F]*$' })
const id = { pattern: ID_PATTERN }
const base64 = { type: 'string', maxLength: 40_000_000, pattern: '^[A-Za-z0-9+/]*={0,2}$' }

/** Kinds of file that run nothing when they are opened: those that the library takes. */
const FILE_NAME = '^[A-Za-z0-9][\\w-]*\\.(pdf|od[tsp]|docx|xlsx|pptx|epub|ics|mp3|txt|csv)$'
/** A place of the site. With two slashes at its beginning it would be another host (URL Standard, "path-absolute-URL string"). */
const PATH = '^/(?!/)[\\p{L}\\p{N}\\p{M}_/.-]*$'
const OPTIONAL = new Set(['header', 'footer', 'files'])

/** Everything but what stands inside the pages, which `validatePage` judges with better words. */
export const PACKAGE_SHAPE_SCHEMA = packageSchema({ type: 'object' })

/** The whole schema, for other people's programs. */
export function fullPackageSchema(kinds: readonly BlockDefinition[]): object {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Gullyline page package',
    ...packageSchema({ $ref: '#/$defs/page' }),
    $defs: { page: pageSchema(kinds), shared: SHARED_SCHEMA },
  }
}

function packageSchema(page: object) {
  const properties = {
    format: { const: PACKAGE_FORMAT },
    site: {
      type: 'object',
      properties: {
        name: line(200),
        language: { type: 'string', pattern: '^[A-Za-z0-9-]{2,35}$' },
        home: { type: 'string', pattern: PATH },
      },
      required: ['name', 'language', 'home'],
      additionalProperties: false,
    },
    title: line(200),
    description: line(500),
    page,
    header: page,
    footer: page,
    look: LOOK_SCHEMA,
    paths: {
      type: 'object',
      propertyNames: id,
      additionalProperties: { type: 'string', maxLength: 2000, pattern: PATH },
    },
    media: {
      type: 'object',
      propertyNames: id,
      additionalProperties: {
        type: 'object',
        properties: {
          name: line(200),
          alt: line(1000),
          width: { type: 'integer', minimum: 1, maximum: 30_000 },
          height: { type: 'integer', minimum: 1, maximum: 30_000 },
          type: { enum: Object.keys(EXTENSIONS) },
          data: base64,
        },
        required: ['name', 'alt', 'width', 'height', 'type', 'data'],
        additionalProperties: false,
      },
    },
    files: {
      type: 'object',
      propertyNames: id,
      additionalProperties: {
        type: 'object',
        // A name that is no path: it is written to a folder.
        properties: { name: { type: 'string', maxLength: 200, pattern: FILE_NAME }, data: base64 },
        required: ['name', 'data'],
        additionalProperties: false,
      },
    },
    fonts: { type: 'object', propertyNames: { pattern: '^[\\w-]+\\.woff2$' }, additionalProperties: base64 },
  }
  const required = Object.keys(properties).filter((key) => !OPTIONAL.has(key))
  return { type: 'object', properties, required, additionalProperties: false }
}

export function pageSchema(kinds: readonly BlockDefinition[]): object {
  return {
    type: 'object',
    properties: {
      format: { const: PAGE_FORMAT },
      root: { type: 'string', ...id },
      nodes: { type: 'object', propertyNames: id, additionalProperties: { oneOf: kinds.map(nodeSchema) } },
    },
    required: ['format', 'root', 'nodes'],
    additionalProperties: false,
  }
}

/** What an instance says in the fields of its part, which says what each may be. */
const VALUES = { type: 'object', minProperties: 1, maxProperties: MOST_VALUES, propertyNames: id }

function nodeSchema(definition: BlockDefinition): object {
  const { kind, title, content, look, arrangement, slots } = definition
  const list = { type: 'array', items: { type: 'string', ...id }, uniqueItems: true }
  const differing = { ...arrangement, minProperties: 1 }
  return {
    title,
    type: 'object',
    properties: {
      kind: { const: kind },
      name: { type: 'string', minLength: 1, maxLength: 200 },
      lock: { enum: ['all', 'text'] },
      prompts: {
        type: 'object',
        properties: Object.fromEntries(
          fieldsOfWords(definition).map((field) => [field, { ...line(200), minLength: 1 }]),
        ),
        additionalProperties: false,
      },
      ...(definition.linksTo ? { values: VALUES } : {}),
      content,
      look,
      sizes: {
        type: 'object',
        properties: { base: arrangement, medium: differing, narrow: differing },
        required: ['base'],
        additionalProperties: false,
      },
      slots: {
        type: 'object',
        properties: Object.fromEntries(Object.keys(slots).map((slot) => [slot, list])),
        required: Object.keys(slots),
        additionalProperties: false,
      },
    },
    required: ['kind', 'content', 'look', 'sizes', 'slots'],
    additionalProperties: false,
  }
}
