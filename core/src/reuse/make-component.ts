/** Making a component of a part: which values of its blocks are fields. */
import { FIELDS_KEY, MOST_COMPONENT_FIELDS, type ComponentField } from '../blocks/component-fields.ts'
import { partSchema, type BlockDefinition } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Json } from '../page/json.ts'
import { getNode, type Page } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'

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

/** A value of a kind that can be a field of a component. */
export interface Fillable {
  readonly key: string
  readonly of?: 'look'
  readonly schema: FieldSchema
}

/** The values of a kind that can be fields of a component: what it says, and then how it may be styled. */
export function fillable(kind: BlockDefinition): readonly Fillable[] {
  const known = fillableOf.get(kind) ?? findFillable(kind)
  fillableOf.set(kind, known)
  return known
}

const fillableOf = new WeakMap<BlockDefinition, readonly Fillable[]>()

function findFillable(kind: BlockDefinition): readonly Fillable[] {
  const said = Object.entries(kind.content.properties)
    .filter(([, { control, hidden }]) => FILLED_IN.has(control) && hidden !== true)
    .map(([key, schema]): Fillable => ({ key, schema }))
  const styled = Object.entries(partSchema(kind, 'look').properties)
    .filter(([, { hidden }]) => hidden !== true)
    .map(([key, schema]): Fillable => ({ key, of: 'look', schema }))
  return [...said, ...styled]
}

/** What a component most often has fields for: what it says and shows, and where it leads. */
const SAID = new Set<FieldSchema['control']>(['line', 'formatted-line', 'words', 'list', 'media', 'link'])

/** The part with a field for everything that its blocks say, so that each instance can say something else. */
export function withFieldsForAll(document: Page, registry: Registry, newId: NewId): Page {
  const fields: ComponentField[] = []
  for (const node of subtreeIds(document, document.root).slice(1)) {
    const { content } = getNode(document, node)
    const kind = getKind(registry, getNode(document, node).kind)
    for (const { key, of, schema } of fillable(kind))
      if (
        of === undefined &&
        SAID.has(schema.control) &&
        content[key] !== undefined &&
        fields.length < MOST_COMPONENT_FIELDS
      )
        fields.push(newField(fields, { node, key }, kind, newId))
  }
  return withFields(document, fields)
}

/** A new field for a value of a block, called after it, and as no other field of the part is. */
export function newField(
  others: readonly ComponentField[],
  { node, key, of }: Pick<ComponentField, 'node' | 'key' | 'of'>,
  kind: BlockDefinition,
  newId: NewId,
): ComponentField {
  const [first] = fillable(kind)
  const { title } = partSchema(kind, of ?? 'content').properties[key]!
  const wanted = first?.key === key && of === undefined ? kind.title : `${kind.title}: ${title.toLowerCase()}`
  return { id: newId(), name: freeName(wanted, others), node, key, ...(of ? { of } : {}) }
}

/** Returns the name, with a number behind it where another field or slot has it already. */
export function freeName(wanted: string, others: readonly { readonly name: string }[]): string {
  let name = wanted
  for (let n = 2; others.some((one) => one.name === name); n++) name = `${wanted} ${n}`
  return name
}

/** The part with these fields and no others. */
export function withFields(document: Page, fields: readonly ComponentField[]): Page {
  const root = getNode(document, document.root)
  const content = { ...root.content, [FIELDS_KEY]: fields as unknown as Json }
  return { ...document, nodes: { ...document.nodes, [document.root]: { ...root, content } } }
}
