/** Another part in the place of one: what instances fill in stays, in fields of the same names. */
import {
  fieldsOf,
  fits,
  schemaOf,
  VARIANT_KEY,
  valuesOf,
  type ComponentField,
} from '../blocks/component-fields.ts'
import type { Registry } from '../blocks/registry.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { linkedPart } from '../resolve/expand.ts'

/** A part: the document that holds its blocks, and the id of its root there. */
export interface PartIn {
  readonly nodes: Page['nodes']
  readonly root: NodeId
}

/** What an instance fills in, for the fields of another part that have the same name and can hold the same sort of value. */
function carriedValues(from: PartIn, to: PartIn, values: JsonObject, registry: Registry): JsonObject {
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
    return value !== undefined && block && fits(block, target, value, registry)
      ? [[target.id, value] as const]
      : []
  })
  return Object.fromEntries(carried)
}

/**
 * A document that shows another part wherever it showed one, with what its instances fill in there in the fields of the
 * same names. Both parts must be made of the same, sections or blocks.
 */
export function withOtherPart(document: Page, own: Page, other: Page, registry: Registry): Page {
  const nodes = Object.entries(document.nodes).map(([id, node]) => {
    if (linkedPart(node, registry) !== own.root) return [id, node]
    const { values, ...rest } = node
    const said = valuesOf(getNode(own, own.root), node)
    const kept = said && { ...values, ...carriedValues(own, other, said, registry) }
    const { [VARIANT_KEY]: _variant, ...held } = node.content
    const content = { ...held, part: other.root }
    const isSaid = kept && Object.keys(kept).length > 0
    return [id, { ...rest, content, ...(isSaid ? { values: kept } : {}) }]
  })
  return { ...document, nodes: Object.fromEntries(nodes) as Page['nodes'] }
}

/** Edits that do the same to one instance of a session that both parts are joined to. */
export function otherPartEdits(
  session: Page,
  id: NodeId,
  other: string,
  registry: Registry,
): readonly Edit[] {
  const node = getNode(session, id)
  const own = linkedPart(node, registry)
  const { nodes } = session
  const root = own === undefined ? undefined : findNode(session, own)
  const said = root && findNode(session, other) ? valuesOf(root, node) : undefined
  const carried =
    said && own !== undefined
      ? carriedValues({ nodes, root: own }, { nodes, root: other }, said, registry)
      : {}
  // No other part has this variant.
  const isOfVariant = node.content[VARIANT_KEY] !== undefined
  return [
    ...(isOfVariant ? [{ edit: 'set', nodeId: id, at: ['content', VARIANT_KEY] } as const] : []),
    { edit: 'set', nodeId: id, at: ['content', 'part'], value: other },
    ...Object.entries(carried).map(([field, value]): Edit => ({
      edit: 'set',
      nodeId: id,
      at: ['values', field],
      value,
    })),
  ]
}
