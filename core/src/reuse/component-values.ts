/** What instances of components say in their fields: read, and found by what is shown. */
import {
  fieldsOf,
  fittingValue,
  schemaOf,
  variantOf,
  type ComponentField,
} from '../blocks/component-fields.ts'
import { slotsOf } from '../blocks/component-slots.ts'
import type { Problem, Registry } from '../blocks/registry.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { linkedPart, type PartIn, type Parts } from '../resolve/expand.ts'

/** A field of an instance, with what its part says of it. */
export interface InstanceField {
  readonly field: ComponentField
  /** What a value may be, under the name of the field. */
  readonly schema: FieldSchema
  /** The block of the part that it is a value of. */
  readonly source: PageNode
  /** What the instance says, as the field has it by now; undefined where the value of its variant, or of the block, stands. */
  readonly own: Json | undefined
  /** Whether what is shown is the variant's. */
  readonly isOfVariant: boolean
  /** What is shown. */
  readonly value: Json | undefined
}

/** The fields of an instance, in the order of its part; none of those whose block is not there any more. */
export function instanceFields(session: Page, id: NodeId, registry: Registry): readonly InstanceField[] {
  const instance = findNode(session, id)
  const part = instance && linkedPart(instance, registry)
  const root = part === undefined ? undefined : findNode(session, part)
  if (!instance || !root) return []
  const variant = variantOf(root, instance)
  return fieldsOf(root).flatMap((field): InstanceField[] => {
    const source = findNode(session, field.node)
    const schema = source && schemaOf(field, source, registry)
    if (!source || !schema) return []
    const asFitting = (filled: Json | undefined): Json | undefined =>
      filled === undefined ? undefined : fittingValue(source, field, filled, registry)
    const own = asFitting(instance.values?.[field.id])
    const ofVariant = own === undefined ? asFitting(variant?.values[field.id]) : undefined
    const value = own ?? ofVariant ?? source[field.of ?? 'content'][field.key] ?? schema.default
    const isOfVariant = ofVariant !== undefined
    return [{ field, schema: { ...schema, title: field.name }, source, own, isOfVariant, value }]
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
  { node, key, of }: Pick<ComponentField, 'node' | 'key' | 'of'>,
  registry: Registry,
): ComponentField | undefined {
  return instanceFields(session, id, registry).find(
    ({ field }) => field.node === node && field.key === key && field.of === of,
  )?.field
}

/** Whether a part is a component: its instances say something of their own, or hold it. */
export function isComponent(document: PartIn): boolean {
  const root = findNode(document, document.root)
  return root !== undefined && (fieldsOf(root).length > 0 || slotsOf(root).length > 0)
}

/** A value of an instance that its block can't have. */
export interface ValueProblem extends Problem {
  readonly nodeId: NodeId
  readonly fieldId: string
}

/** Problems of what the instances on a page say: values that the blocks they are for can't have. */
export function valueProblems(page: Page, parts: Parts, registry: Registry): readonly ValueProblem[] {
  return Object.entries(page.nodes).flatMap(([id, node]) => {
    const part = linkedPart(node, registry)
    const document = part !== undefined && Object.hasOwn(parts, part) ? parts[part] : undefined
    if (!document || !node.values) return []
    return fieldsOf(getNode(document, document.root)).flatMap((field): ValueProblem[] => {
      const source = findNode(document, field.node)
      const value = node.values![field.id]
      if (!source || value === undefined || fittingValue(source, field, value, registry) !== undefined)
        return []
      const pointer = `/nodes/${id}/values/${field.id}`
      return [{ pointer, message: `“${field.name}” can’t be that`, nodeId: id, fieldId: field.id }]
    })
  })
}
