/**
 * The fields of a component: values of blocks inside a part that each instance has for itself. A field points at a value of
 * one block, whose kind says what it may be; where an instance says nothing, the block's own value stands.
 */
import type { FieldSchema } from '../kit/fields.ts'
import { ID_PATTERN } from '../page/id.ts'
import type { Json, JsonObject } from '../page/json.ts'
import type { NodeId, PageNode } from '../page/page.ts'
import { convertedValue } from './converted-value.ts'
import { partSchema } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

export interface ComponentField {
  /** It stays when the field is called otherwise. */
  readonly id: string
  /** What the field is called where it is filled in. */
  readonly name: string
  /** Says to those who fill it in what belongs there. */
  readonly help?: string
  /** The block that it is a value of, and which of its content; or of its look: then instances may be styled in this. */
  readonly node: NodeId
  readonly key: string
  readonly of?: 'look'
  /** Each instance must say something of its own here. */
  readonly required?: true
  /** So many characters at most are good here. */
  readonly longest?: number
}

/** A named set of values: an instance that is of this variant says them where it says nothing itself. */
export interface ComponentVariant {
  readonly id: string
  readonly name: string
  /** By the ids of fields. */
  readonly values: JsonObject
}

export const MOST_COMPONENT_FIELDS = 50
/** An instance may have values for fields that its part has no more, and that may come back. */
export const MOST_VALUES = MOST_COMPONENT_FIELDS + 10
export const LONGEST_FIELD_NAME = 60
export const LONGEST_FIELD_HELP = 200
export const LONGEST_FIELD_LIMIT = 10_000
export const MOST_VARIANTS = 20

/** Where the root of a part has its fields. */
export const FIELDS_KEY = 'fields'
/** Where it has its variants. */
export const VARIANTS_KEY = 'variants'
/** Where an instance says of which variant it is. */
export const VARIANT_KEY = 'variant'

/** The schema of a text that says something. */
export const words = (maxLength: number): object => ({
  type: 'string',
  minLength: 1,
  maxLength,
  pattern: '\\S',
})
export const ID = { type: 'string', pattern: ID_PATTERN }

/** A list that the root of a part has and no setting shows. */
export function hiddenList(
  title: string,
  maxItems: number,
  required: Readonly<Record<string, object>>,
  optional: Readonly<Record<string, object>> = {},
): FieldSchema {
  return {
    title,
    control: 'fields',
    hidden: true,
    type: 'array',
    maxItems,
    items: {
      type: 'object',
      properties: { ...required, ...optional },
      required: Object.keys(required),
      additionalProperties: false,
    },
  }
}

const name = words(LONGEST_FIELD_NAME)

/** The schema of the list of fields. */
export const COMPONENT_FIELDS: FieldSchema = hiddenList(
  'Fields',
  MOST_COMPONENT_FIELDS,
  { id: ID, name, node: ID, key: { type: 'string', pattern: '^[a-z][a-zA-Z]{0,31}$' } },
  {
    help: words(LONGEST_FIELD_HELP),
    of: { const: 'look' },
    required: { const: true },
    longest: { type: 'integer', minimum: 1, maximum: LONGEST_FIELD_LIMIT },
  },
)

/** The schema of the list of variants. What the values may be, the blocks say that they are for. */
export const COMPONENT_VARIANTS: FieldSchema = hiddenList('Variants', MOST_VARIANTS, {
  id: ID,
  name,
  values: { type: 'object', propertyNames: { pattern: ID_PATTERN }, maxProperties: MOST_VALUES },
})

/** The variants of a part, by its root. */
export function variantsOf(root: Pick<PageNode, 'content'>): readonly ComponentVariant[] {
  return (root.content[VARIANTS_KEY] ?? []) as unknown as readonly ComponentVariant[]
}

/** The variant that an instance is of; undefined where it is of none, or of one that its part has no more. */
export function variantOf(
  root: Pick<PageNode, 'content'>,
  instance: Pick<PageNode, 'content'>,
): ComponentVariant | undefined {
  const wanted = instance.content[VARIANT_KEY]
  return wanted === undefined ? undefined : variantsOf(root).find(({ id }) => id === wanted)
}

/** The fields of a part, by its root; none for a part that is the same wherever it stands. */
export function fieldsOf(root: Pick<PageNode, 'content'>): readonly ComponentField[] {
  return (root.content[FIELDS_KEY] ?? []) as unknown as readonly ComponentField[]
}

/** What a field may be, by the kind of its block; undefined where the kind has no value of that name. */
export function schemaOf(
  { key, of }: ComponentField,
  node: PageNode,
  registry: Registry,
): FieldSchema | undefined {
  const { properties } = partSchema(getKind(registry, node.kind), of ?? 'content')
  return Object.hasOwn(properties, key) ? properties[key] : undefined
}

/**
 * What an instance fills in, as the block of a field can have it: in another form where the field was of another type when
 * it was filled in. Undefined where that can't be without losing some of it.
 */
export function fittingValue(
  node: PageNode,
  { key, of }: Pick<ComponentField, 'key' | 'of'>,
  value: Json,
  registry: Registry,
): Json | undefined {
  return convertedValue(node, of ?? 'content', key, value, registry)
}

/** What an instance has for one block of its part. */
export interface FilledIn {
  readonly content?: JsonObject
  readonly look?: JsonObject
}

/** A block with the values that an instance has for it. What it can't have is left out, and its own stands. */
export function filledIn(node: PageNode, values: FilledIn, registry: Registry): PageNode {
  const content = filledPart(node, 'content', values.content, registry)
  const look = filledPart(node, 'look', values.look, registry)
  return { ...node, content, look }
}

function filledPart(
  node: PageNode,
  of: 'content' | 'look',
  values: JsonObject | undefined,
  registry: Registry,
): JsonObject {
  if (values === undefined) return node[of]
  const all = { ...node[of], ...values }
  if (registry.check(node.kind, of, all).length === 0) return all
  const fitting = Object.entries(values).flatMap(([key, value]) => {
    const form = convertedValue(node, of, key, value, registry)
    return form === undefined ? [] : [[key, form] as const]
  })
  return { ...node[of], ...Object.fromEntries(fitting) }
}

/** What an instance has for the blocks of its part, by block; undefined where it has nothing. */
export function valuesByNode(
  root: Pick<PageNode, 'content'>,
  instance: Pick<PageNode, 'values' | 'content'>,
): ReadonlyMap<NodeId, FilledIn> | undefined {
  const values = valuesOf(root, instance)
  if (values === undefined) return undefined
  const found = new Map<NodeId, FilledIn>()
  for (const { id: field, node, key, of } of fieldsOf(root)) {
    if (!Object.hasOwn(values, field)) continue
    const part = of ?? 'content'
    const before = found.get(node)
    found.set(node, { ...before, [part]: { ...before?.[part], [key]: values[field]! } })
  }
  return found.size === 0 ? undefined : found
}

/** What an instance says in its fields, by their ids: its own values, and where it has none those of its variant. */
export function valuesOf(
  root: Pick<PageNode, 'content'>,
  instance: Pick<PageNode, 'values' | 'content'>,
): JsonObject | undefined {
  const variant = variantOf(root, instance)
  return variant ? { ...variant.values, ...instance.values } : instance.values
}
