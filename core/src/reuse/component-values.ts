/** What instances of components say in their fields: read, and found by what is shown. */
import {
  FIELDS_KEY,
  fieldsOf,
  fillable,
  fits,
  MOST_COMPONENT_FIELDS,
  schemaOf,
  type ComponentField,
} from '../blocks/component-fields.ts'
import type { BlockDefinition } from '../blocks/define-block.ts'
import { getKind, type Problem, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { linkedPart, type Parts } from '../resolve/expand.ts'

/** A field of an instance, with what its part says of it. */
export interface InstanceField {
  readonly field: ComponentField
  /** What a value may be, under the name of the field. */
  readonly schema: FieldSchema
  /** The block of the part that it is a value of. */
  readonly source: PageNode
  /** What the instance says; undefined where the value of the block stands. */
  readonly own: Json | undefined
  /** What is shown. */
  readonly value: Json | undefined
}

/** The fields of an instance, in the order of its part; none of those whose block is not there any more. */
export function instanceFields(session: Page, id: NodeId, registry: Registry): readonly InstanceField[] {
  const instance = findNode(session, id)
  const part = instance && linkedPart(instance, registry)
  const root = part === undefined ? undefined : findNode(session, part)
  if (!instance || !root) return []
  return fieldsOf(root).flatMap((field): InstanceField[] => {
    const source = findNode(session, field.node)
    const schema = source && schemaOf(field, source, registry)
    if (!source || !schema) return []
    const own = instance.values?.[field.id]
    const value = own ?? source.content[field.key] ?? schema.default
    return [{ field, schema: { ...schema, title: field.name }, source, own, value }]
  })
}

/** One field of an instance by its id. */
export function componentField(
  session: Page,
  id: NodeId,
  fieldId: string,
  registry: Registry,
): InstanceField | undefined {
  return instanceFields(session, id, registry).find(({ field }) => field.id === fieldId)
}

/** The field of an instance that a value of a block in its part belongs to. */
export function fieldAt(
  session: Page,
  id: NodeId,
  { node, key }: Pick<ComponentField, 'node' | 'key'>,
  registry: Registry,
): ComponentField | undefined {
  return instanceFields(session, id, registry).find(({ field }) => field.node === node && field.key === key)
    ?.field
}

/** Whether a part is a component: its instances say something of their own. */
export function isComponent(document: Page): boolean {
  const root = findNode(document, document.root)
  return root !== undefined && fieldsOf(root).length > 0
}

/** What a component most often has fields for: what it says and shows, and where it leads. */
const SAID = new Set<FieldSchema['control']>(['line', 'formatted-line', 'words', 'list', 'media', 'link'])

/** The part with a field for everything that its blocks say, so that each instance can say something else. */
export function withFieldsForAll(document: Page, registry: Registry, newId: NewId): Page {
  const fields: ComponentField[] = []
  for (const node of subtreeIds(document, document.root).slice(1)) {
    const { content } = getNode(document, node)
    const kind = getKind(registry, getNode(document, node).kind)
    for (const [key, { control }] of fillable(kind))
      if (SAID.has(control) && content[key] !== undefined && fields.length < MOST_COMPONENT_FIELDS)
        fields.push(newField(fields, { node, key }, kind, newId))
  }
  return withFields(document, fields)
}

/** A new field for a value of a block, called after it, and as no other field of the part is. */
export function newField(
  others: readonly ComponentField[],
  { node, key }: Pick<ComponentField, 'node' | 'key'>,
  kind: BlockDefinition,
  newId: NewId,
): ComponentField {
  const [first] = fillable(kind)
  const title = kind.content.properties[key]!.title
  const wanted = first?.[0] === key ? kind.title : `${kind.title}: ${title.toLowerCase()}`
  let name = wanted
  for (let n = 2; others.some((one) => one.name === name); n++) name = `${wanted} ${n}`
  return { id: newId(), name, node, key }
}

/** The part with these fields and no others. */
function withFields(document: Page, fields: readonly ComponentField[]): Page {
  const root = getNode(document, document.root)
  const content = { ...root.content, [FIELDS_KEY]: fields as unknown as Json }
  return { ...document, nodes: { ...document.nodes, [document.root]: { ...root, content } } }
}

/** Problems of what the instances on a page say: values that the blocks they are for can't have. */
export function valueProblems(page: Page, parts: Parts, registry: Registry): readonly Problem[] {
  return Object.entries(page.nodes).flatMap(([id, node]) => {
    const part = linkedPart(node, registry)
    const document = part !== undefined && Object.hasOwn(parts, part) ? parts[part] : undefined
    if (!document || !node.values) return []
    return fieldsOf(getNode(document, document.root)).flatMap((field): Problem[] => {
      const source = findNode(document, field.node)
      const value = node.values![field.id]
      if (!source || value === undefined || fits(source, field.key, value, registry)) return []
      return [{ pointer: `/nodes/${id}/values/${field.id}`, message: `“${field.name}” can’t be that` }]
    })
  })
}

/** A part: the document that holds its blocks, and the id of its root there. */
interface PartIn {
  readonly nodes: Page['nodes']
  readonly root: NodeId
}

/** What an instance fills in, for the fields of another part that have the same name and can hold the same sort of value. */
export function carriedValues(from: PartIn, to: PartIn, values: JsonObject, registry: Registry): JsonObject {
  const blockOf = (part: PartIn, field: ComponentField): PageNode | undefined => findNode(part, field.node)
  const sortOf = (part: PartIn, field: ComponentField): FieldSchema['control'] | undefined => {
    const block = blockOf(part, field)
    return block && schemaOf(field, block, registry)?.control
  }
  const targets = fieldsOf(getNode(to, to.root))
  const carried = fieldsOf(getNode(from, from.root)).flatMap((field) => {
    const value = values[field.id]
    const target = targets.find((one) => one.name === field.name && sortOf(to, one) === sortOf(from, field))
    const block = target && blockOf(to, target)
    return value !== undefined && block && fits(block, target.key, value, registry)
      ? [[target.id, value] as const]
      : []
  })
  return Object.fromEntries(carried)
}
