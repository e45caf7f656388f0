/**
 * The fields of a component: values of blocks inside a part that each instance has for itself. A field points at a value of
 * one block, whose kind says what it may be; where an instance says nothing, the block's own value stands.
 */
import type { FieldSchema } from '../kit/fields.ts'
import { ID_PATTERN } from '../page/id.ts'
import type { Json, JsonObject } from '../page/json.ts'
import type { NodeId, PageNode } from '../page/page.ts'
import type { BlockDefinition } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

export interface ComponentField {
  /** It stays when the field is called otherwise. */
  readonly id: string
  /** What the field is called where it is filled in. */
  readonly name: string
  /** Says to those who fill it in what belongs there. */
  readonly help?: string
  /** The block that it is a value of, and which of its content. */
  readonly node: NodeId
  readonly key: string
}

export const MOST_COMPONENT_FIELDS = 50
/** An instance may have values for fields that its part has no more, and that may come back. */
export const MOST_VALUES = MOST_COMPONENT_FIELDS + 10
export const LONGEST_FIELD_NAME = 60
export const LONGEST_FIELD_HELP = 200

/** Where the root of a part has its fields. */
export const FIELDS_KEY = 'fields'

const words = (maxLength: number): object => ({ type: 'string', minLength: 1, maxLength, pattern: '\\S' })
const id = { type: 'string', pattern: ID_PATTERN }

/** The schema of the list of fields. */
export const COMPONENT_FIELDS: FieldSchema = {
  title: 'Fields',
  control: 'fields',
  hidden: true,
  type: 'array',
  maxItems: MOST_COMPONENT_FIELDS,
  items: {
    type: 'object',
    properties: {
      id,
      name: words(LONGEST_FIELD_NAME),
      help: words(LONGEST_FIELD_HELP),
      node: id,
      key: { type: 'string', pattern: '^[a-z][a-zA-Z]{0,31}$' },
    },
    required: ['id', 'name', 'node', 'key'],
    additionalProperties: false,
  },
}

/** The fields of a part, by its root; none for a part that is the same wherever it stands. */
export function fieldsOf(root: Pick<PageNode, 'content'>): readonly ComponentField[] {
  return (root.content[FIELDS_KEY] ?? []) as unknown as readonly ComponentField[]
}

/** What can be a field of a component: values that say something, not those that arrange it. */
const FILLED_IN = new Set<FieldSchema['control']>([
  'line',
  'formatted-line',
  'words',
  'list',
  'choice',
  'toggle',
  'link',
  'media',
  'icon',
  'date',
  'percent',
])

/** The values of a kind's content that can be fields of a component, with what each is called. */
export function fillable({
  content,
}: BlockDefinition): readonly (readonly [key: string, field: FieldSchema])[] {
  return Object.entries(content.properties).filter(
    ([, field]) => FILLED_IN.has(field.control) && field.hidden !== true,
  )
}

/** The part of a kind's content that a field is of; undefined where the kind has none of that name. */
export function schemaOf(
  { key }: ComponentField,
  node: PageNode,
  registry: Registry,
): FieldSchema | undefined {
  const { properties } = getKind(registry, node.kind).content
  return Object.hasOwn(properties, key) ? properties[key] : undefined
}

/** Whether a block can have this value in a field of a component. */
export function fits(node: PageNode, key: string, value: Json, registry: Registry): boolean {
  return registry.check(node.kind, 'content', { ...node.content, [key]: value }).length === 0
}

/** The content of a block with the values that an instance has for it. What it can't have is left out, and its own stands. */
export function filledIn(node: PageNode, values: JsonObject, registry: Registry): PageNode {
  const all = { ...node, content: { ...node.content, ...values } }
  if (registry.check(node.kind, 'content', all.content).length === 0) return all
  const fitting = Object.entries(values).filter(([key, value]) => fits(node, key, value, registry))
  return { ...node, content: { ...node.content, ...Object.fromEntries(fitting) } }
}

/** What an instance has for the blocks of its part, by block and key; undefined where it has nothing. */
export function valuesByNode(
  root: Pick<PageNode, 'content'>,
  { values }: Pick<PageNode, 'values'>,
): ReadonlyMap<NodeId, JsonObject> | undefined {
  if (values === undefined) return undefined
  const found = new Map<NodeId, JsonObject>()
  for (const { id: field, node, key } of fieldsOf(root))
    if (Object.hasOwn(values, field)) found.set(node, { ...found.get(node), [key]: values[field]! })
  return found.size === 0 ? undefined : found
}
