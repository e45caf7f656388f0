/** Another part in the place of one: what instances fill in stays, in fields of the same names. */
import { fieldsOf, fittingValue, VARIANT_KEY, valuesOf } from '../blocks/component-fields.ts'
import { FILLS_SLOT, filledSlot, slotsOf } from '../blocks/component-slots.ts'
import type { Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import type { JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { linkedPart, type PartIn } from '../resolve/expand.ts'
import { addFillEdit, carriedSlots } from './slot-edits.ts'

/** What an instance fills in, for the fields of another part that have the same name and can hold it. */
function carriedValues(from: PartIn, to: PartIn, values: JsonObject, registry: Registry): JsonObject {
  const targets = fieldsOf(getNode(to, to.root))
  const carried = fieldsOf(getNode(from, from.root)).flatMap((field) => {
    const value = values[field.id]
    const target = targets.find((one) => one.name === field.name)
    const block = target && findNode(to, target.node)
    if (value === undefined || !block) return []
    const form = fittingValue(block, target, value, registry)
    return form === undefined ? [] : [[target.id, form] as const]
  })
  return Object.fromEntries(carried)
}

/**
 * A document that shows another part wherever it showed one, with what its instances fill in there in the fields of the
 * same names. Both parts must be made of the same, sections or blocks.
 */
export function withOtherPart(document: Page, own: Page, other: Page, registry: Registry): Page {
  const slots = carriedSlots(own, other)
  const ofInstances = new Set(
    Object.values(document.nodes).flatMap((node) =>
      linkedPart(node, registry) === own.root ? (node.slots[FILLS_SLOT] ?? []) : [],
    ),
  )
  const nodes = Object.entries(document.nodes).map(([id, node]) => {
    const filled = ofInstances.has(id) ? slots.get(filledSlot(node, registry) ?? '') : undefined
    if (filled !== undefined) return [id, { ...node, content: { ...node.content, slot: filled } }]
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
  newId: NewId,
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
  const isKnown = own !== undefined && findNode(session, own) && findNode(session, other)
  const slots = isKnown
    ? carriedSlots({ nodes, root: own }, { nodes, root: other })
    : new Map<string, string>()
  const fills = node.slots[FILLS_SLOT] ?? []
  const carriedFills = fills.flatMap((fill): Edit[] => {
    const slot = slots.get(filledSlot(getNode(session, fill), registry) ?? '')
    return slot === undefined ? [] : [{ edit: 'set', nodeId: fill, at: ['content', 'slot'], value: slot }]
  })
  const filled = new Set(
    fills.flatMap((fill) => {
      const slot = filledSlot(getNode(session, fill), registry) ?? ''
      return [slot, slots.get(slot) ?? '']
    }),
  )
  const missing = isKnown ? slotsOf(getNode(session, other)).filter((slot) => !filled.has(slot.id)) : []
  const newFills = missing.map((slot, i) => ({
    ...addFillEdit(session, id, slot.id, registry, newId),
    index: fills.length + i,
  }))
  // No other part has this variant.
  const isOfVariant = node.content[VARIANT_KEY] !== undefined
  return [
    ...(isOfVariant ? [{ edit: 'set', nodeId: id, at: ['content', VARIANT_KEY] } as const] : []),
    { edit: 'set', nodeId: id, at: ['content', 'part'], value: other },
    ...carriedFills,
    ...newFills,
    ...Object.entries(carried).map(([field, value]): Edit => ({
      edit: 'set',
      nodeId: id,
      at: ['values', field],
      value,
    })),
  ]
}
