/**
 * The fields of a block kind: each is a JSON Schema (2020-12) with a few annotations of ours, `title`, `control`,
 * `scale`, `words` and `prompt`, from which the details pane is built. Validators ignore the annotations.
 */
import { MARKS } from '../page/rich-text.ts'
import { ID_PATTERN } from '../page/id.ts'
import type { Json } from '../page/json.ts'
import { OWN_COLOUR, OWN_MEASURE } from '../look/own-values.ts'
import { SCALES, STEP_WORDS, type ScaleName } from '../look/scales.ts'
import { ICON_NAMES } from './icons.ts'

export type Control =
  | 'line'
  | 'formatted-line'
  | 'words'
  | 'list'
  | 'table'
  | 'choice'
  | 'toggle'
  | 'level'
  | 'percent'
  | 'count'
  | 'step'
  | 'surface'
  | 'link'
  | 'media'
  | 'anchor'
  | 'icon'
  | 'date'
  | 'part'
  | 'fields'

export interface FieldSchema {
  readonly title: string
  readonly control: Control
  readonly default?: Json
  /** For words: what is asked for while there are none; see `prompts.ts`. */
  readonly prompt?: string
  /** For choices: the word shown for each value. */
  readonly words?: Readonly<Record<string, string>>
  readonly scale?: ScaleName
  /** Kept out of the list of settings, since it is changed in a way of its own. */
  readonly hidden?: boolean
  /** For lines that are often longer than one line of the details: they are typed in a box of several. */
  readonly isLong?: boolean
  /** Says nothing where the block does not stand in a band. */
  readonly onlyInBand?: boolean
  /** Has a value of its own at each size or one that is worked out, and never that of a wider size. */
  readonly isDerived?: boolean
  /** Says nothing where the block is not placed on a grid. */
  readonly onlyInGrid?: boolean
  /** Shown only while another field of the same part is not set to true. */
  readonly unless?: string
  /** What gives the value where none is set. */
  readonly inherits?: Inherits
  readonly [keyword: string]: unknown
}

/** A field that has another field's word for its own, as the size of a heading has its level's. */
export interface Inherits {
  /** The field that is followed: of the same arrangement, or else of the look or the content. */
  readonly key: string
  /** What each of its values gives, or `*` for all others; left out where it is that value itself. */
  readonly gives?: Readonly<Record<string, string>>
}

export interface ObjectSchema {
  readonly type: 'object'
  readonly properties: Readonly<Record<string, FieldSchema>>
  readonly required: readonly string[]
  readonly additionalProperties: false
}

/** Names of our annotations, which a JSON Schema validator has to be told of. */
export const ANNOTATIONS = [
  'control',
  'words',
  'scale',
  'unless',
  'hidden',
  'inherits',
  'isLong',
  'onlyInBand',
  'onlyInGrid',
  'isDerived',
  'prompt',
] as const

/** The keys of definitions shared by all kinds; a field refers to one by `$ref`. */
const SHARED_SCHEMA_ID = 'gullyline:shared'

function shared(name: string): { readonly $ref: string } {
  return { $ref: `${SHARED_SCHEMA_ID}#/$defs/${name}` }
}

// Characters that neither HTML nor a person's text has a use for: all C0 controls but tab and newline, and halves of
// surrogate pairs, which no encoding can write (Unicode 16, 3.9, D71 to D75).
const PLAIN = '^[^\\u0000-\\u0008\\u000B-\\u001F\\u007F\\uD800-\\uDFFF]*$'
const ONE_LINE = '^[^\\u0000-\\u001F\\u007F\\uD800-\\uDFFF]*$'

/** So far away that nobody meets it by typing, and near enough that no document is refused for its size alone. */
const LONGEST_TEXT = 100_000
const MAX_LINE = LONGEST_TEXT
const MAX_RUN = LONGEST_TEXT

/** How deep lists may stand in lists. MariaDB's JSON takes 32 levels in all, and nobody reads the seventh. */
const DEEPEST_LIST = 6

function listDefinitions(): Readonly<Record<string, object>> {
  const name = (depth: number) => (depth === 1 ? 'list' : `list${depth}`)
  const listAt = (depth: number) => ({
    type: 'object',
    properties: {
      type: { const: 'list' },
      ordered: { type: 'boolean' },
      items: { type: 'array', minItems: 1, maxItems: 500, items: itemAt(depth) },
    },
    required: ['type', 'ordered', 'items'],
    additionalProperties: false,
  })
  const itemAt = (depth: number) => ({
    type: 'object',
    properties: {
      runs: { type: 'array', maxItems: 2000, items: shared('run') },
      ...(depth < DEEPEST_LIST ? { list: shared(name(depth + 1)) } : {}),
    },
    required: ['runs'],
    additionalProperties: false,
  })
  return Object.fromEntries(
    Array.from({ length: DEEPEST_LIST }, (_unused, i) => [name(i + 1), listAt(i + 1)] as const),
  )
}

export const SHARED_SCHEMA = {
  $id: SHARED_SCHEMA_ID,
  $defs: {
    link: {
      oneOf: [
        {
          type: 'object',
          properties: {
            page: { type: 'string', pattern: ID_PATTERN },
            anchor: { type: 'string', pattern: '^[a-z][a-z0-9-]{0,63}$' },
          },
          required: ['page'],
          additionalProperties: false,
        },
        {
          type: 'object',
          properties: { file: { type: 'string', pattern: ID_PATTERN } },
          required: ['file'],
          additionalProperties: false,
        },
        {
          type: 'object',
          properties: { href: { type: 'string', minLength: 1, maxLength: 2000, pattern: ONE_LINE } },
          required: ['href'],
          additionalProperties: false,
        },
      ],
    },
    run: {
      type: 'object',
      properties: {
        text: { type: 'string', minLength: 1, maxLength: MAX_RUN, pattern: PLAIN },
        // Comparing each with each is bounded by "maxItems", which validators look at first and stop at.
        marks: {
          type: 'array',
          minItems: 1,
          maxItems: MARKS.length,
          items: { enum: MARKS },
          uniqueItems: true,
        },
        link: shared('link'),
      },
      required: ['text'],
      additionalProperties: false,
    },
    // Plain words are a string; runs are there for what is formatted. What is told of either is told in one place.
    line: {
      if: { type: 'string' },
      then: { type: 'string', maxLength: MAX_LINE, pattern: ONE_LINE },
      else: {
        type: 'array',
        minItems: 1,
        maxItems: 200,
        items: {
          ...shared('run'),
          type: 'object',
          properties: { text: { type: 'string', pattern: ONE_LINE } },
        },
      },
    },
    ...listDefinitions(),
    richText: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        required: ['type'],
        discriminator: { propertyName: 'type' },
        oneOf: [
          {
            type: 'object',
            properties: {
              type: { const: 'paragraph' },
              runs: { type: 'array', maxItems: 2000, items: shared('run') },
            },
            required: ['type', 'runs'],
            additionalProperties: false,
          },
          shared('list'),
        ],
      },
    },
    listWords: { type: 'array', minItems: 1, maxItems: 1, items: shared('list') },
    rows: {
      type: 'array',
      minItems: 1,
      maxItems: 200,
      items: {
        type: 'array',
        minItems: 1,
        maxItems: 12,
        items: { type: 'string', maxLength: MAX_LINE, pattern: ONE_LINE },
      },
    },
    media: {
      type: 'object',
      properties: {
        id: { type: 'string', pattern: ID_PATTERN },
        focus: {
          type: 'object',
          properties: {
            x: { type: 'number', minimum: 0, maximum: 100 },
            y: { type: 'number', minimum: 0, maximum: 100 },
          },
          required: ['x', 'y'],
          additionalProperties: false,
        },
        crop: {
          type: 'object',
          properties: {
            x: { type: 'number', minimum: 0, maximum: 99 },
            y: { type: 'number', minimum: 0, maximum: 99 },
            width: { type: 'number', minimum: 1, maximum: 100 },
            height: { type: 'number', minimum: 1, maximum: 100 },
            shape: { type: 'number', minimum: 0.01, maximum: 100 },
          },
          required: ['x', 'y', 'width', 'height', 'shape'],
          additionalProperties: false,
        },
      },
      required: ['id'],
      additionalProperties: false,
    },
  },
} as const

/** The schema of one part of a node. `required` names the fields that must be there; a required field needs a default. */
export function fields(
  properties: Readonly<Record<string, FieldSchema>>,
  required: readonly string[] = [],
): ObjectSchema {
  return { type: 'object', properties, required, additionalProperties: false }
}

/** One line of plain words. */
export function line(title: string, initial = '', maxLength = MAX_LINE): FieldSchema {
  return { title, control: 'line', type: 'string', maxLength, pattern: ONE_LINE, default: initial }
}

/** One line of words, some of which may have marks or a link; see `page/line.ts`. */
export function formattedLine(title: string, initial = ''): FieldSchema {
  return { title, control: 'formatted-line', ...shared('line'), default: initial }
}

/** Words without which a block says nothing: they begin empty, and `prompt` asks for them. */
export function asked(prompt: string, field: FieldSchema): FieldSchema {
  return { ...field, prompt }
}

/** Formatted text; see `page/rich-text.ts`. It begins empty. */
export function words(title: string): FieldSchema {
  const initial = [{ type: 'paragraph', runs: [] }]
  return { title, control: 'words', ...shared('richText'), default: initial }
}

/** Formatted text that is one list and nothing else. It begins with one empty item. */
export function list(title: string): FieldSchema {
  const initial = [{ type: 'list', ordered: false, items: [{ runs: [] }] }]
  return { title, control: 'list', ...shared('listWords'), default: initial }
}

/** Rows of cells of plain words. Rows may differ in length; what shows them fills up the shorter ones. */
export function table(title: string, initial: Json): FieldSchema {
  return { title, control: 'table', ...shared('rows'), default: initial }
}

/** A share of a whole, in %. */
export function percent(title: string, initial: number): FieldSchema {
  return { title, control: 'percent', type: 'number', minimum: 1, maximum: 100, default: initial }
}

/** A whole number. */
export function count(
  title: string,
  {
    from,
    to,
    step: by = 1,
    initial,
  }: { readonly from: number; readonly to: number; readonly step?: number; readonly initial?: number },
): FieldSchema {
  return {
    title,
    control: 'count',
    type: 'integer',
    minimum: from,
    maximum: to,
    ...(by === 1 ? {} : { multipleOf: by }),
    ...(initial === undefined ? {} : { default: initial }),
  }
}

/** A day, as HTML's valid date strings write it: 2026-11-27. */
export function date(title: string): FieldSchema {
  return {
    title,
    control: 'date',
    type: 'string',
    pattern: '^[0-9]{4}-(0[1-9]|1[0-2])-(0[1-9]|[12][0-9]|3[01])$',
  }
}

/** A drawn sign, by its name in `icons.ts`. */
export function icon(title: string, initial: string): FieldSchema {
  return { title, control: 'icon', enum: ICON_NAMES, default: initial }
}

/** One of a few named values; the first is not special, `initial` is the value where none is set. */
export function choice(
  title: string,
  initial: string,
  options: Readonly<Record<string, string>>,
): FieldSchema {
  return { title, control: 'choice', enum: Object.keys(options), words: options, default: initial }
}

export function toggle(title: string, initial: boolean): FieldSchema {
  return { title, control: 'toggle', type: 'boolean', default: initial }
}

export function level(title: string, initial: number): FieldSchema {
  return { title, control: 'level', type: 'integer', minimum: 1, maximum: 6, default: initial }
}

/** A step of one of the scales that every look has, or a measure outside of them; see `look/own-values.ts`. */
export function step(title: string, scale: ScaleName, initial: string): FieldSchema {
  const pattern = `^(?:${SCALES[scale].join('|')}|${OWN_MEASURE})$`
  return { title, control: 'step', scale, type: 'string', pattern, default: initial }
}

/** A step that inherits another field where none is set: `name` is the value for that, `words` say what it inherits. */
export function stepOr(
  title: string,
  scale: ScaleName,
  [name, words]: readonly [string, string],
  inherits: Inherits,
): FieldSchema {
  const pattern = `^(?:${[name, ...SCALES[scale]].join('|')}|${OWN_MEASURE})$`
  const all = { [name]: words, ...STEP_WORDS[scale] }
  return { title, control: 'step', scale, words: all, type: 'string', pattern, default: name, inherits }
}

/** The name of a surface of the site's look, or a colour outside of it. Which names there are, the look says, so any name is valid here. */
export function surface(title: string): FieldSchema {
  return { title, control: 'surface', type: 'string', pattern: `^(?:[a-z][a-z0-9-]{0,31}|${OWN_COLOUR})$` }
}

export function link(title: string): FieldSchema {
  return { title, control: 'link', ...shared('link') }
}

/** A picture of the media library, with the point that must stay in view when it is cropped, in % from the left and top. */
export function media(title: string): FieldSchema {
  return { title, control: 'media', ...shared('media') }
}

/** The id of a document that is shown in the place of the block. It is chosen by placing it, and not in the settings. */
export function partId(title: string): FieldSchema {
  // No part is called so: a kind's defaults are valid by themselves.
  return { title, control: 'part', type: 'string', pattern: ID_PATTERN, hidden: true, default: 'none' }
}

/** A name for a place that links can point to. */
export function anchor(title: string): FieldSchema {
  return { title, control: 'anchor', type: 'string', pattern: '^[a-z][a-z0-9-]{0,63}$' }
}
