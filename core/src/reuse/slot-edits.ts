/** Slots of components: made, filled, and carried to another component. */
import {
  FILLS_SLOT,
  MOST_COMPONENT_SLOTS,
  slotsOf,
  SLOTS_KEY,
  type ComponentSlot,
} from '../blocks/component-slots.ts'
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import type { Edit, Insert } from '../edits/edit-shapes.ts'
import type { Json } from '../page/json.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'
import { linkedPart, type PartIn } from '../resolve/expand.ts'
import { freeName } from './make-component.ts'

/** An edit that gives an instance a place for what it has in a slot. */
export function addFillEdit(
  session: Page,
  instance: NodeId,
  slot: string,
  registry: Registry,
  newId: NewId,
): Insert {
  const rootId = newId()
  const index = getNode(session, instance).slots[FILLS_SLOT]!.length
  const node = newNode(getKind(registry, 'slot-fill'), { content: { slot } })
  return { edit: 'insert', parentId: instance, slot: FILLS_SLOT, index, rootId, nodes: { [rootId]: node } }
}

/**
 * Edits that make a slot of a block in a part one that instances fill, and give those in the session a place for what they
 * have there. None where the part has all the slots that it can have.
 */
export function declareSlotEdits(
  session: Page,
  part: NodeId,
  { node, slot }: Pick<ComponentSlot, 'node' | 'slot'>,
  registry: Registry,
  newId: NewId,
): readonly Edit[] {
  const slots = slotsOf(getNode(session, part))
  if (slots.length >= MOST_COMPONENT_SLOTS) return []
  const { title, slots: own } = getKind(registry, getNode(session, node).kind)
  const wanted = Object.keys(own).length > 1 ? `${title}: ${own[slot]!.title.toLowerCase()}` : title
  const made = { id: newId(), name: freeName(wanted, slots), node, slot }
  const instances = Object.keys(session.nodes).filter(
    (id) => linkedPart(getNode(session, id), registry) === part,
  )
  return [
    setSlotsEdit(part, [...slots, made]),
    ...instances.map((id) => addFillEdit(session, id, made.id, registry, newId)),
  ]
}

/** The edit that gives a part these slots. */
export function setSlotsEdit(part: NodeId, slots: readonly ComponentSlot[]): Edit {
  const at = ['content', SLOTS_KEY] as const
  return slots.length === 0
    ? { edit: 'set', nodeId: part, at }
    : { edit: 'set', nodeId: part, at, value: slots as unknown as Json }
}

/** The slots of another part for what an instance has in slots of the same names, by the ids of the slots that it has. */
export function carriedSlots(from: PartIn, to: PartIn): ReadonlyMap<string, string> {
  const targets = slotsOf(getNode(to, to.root))
  return new Map(
    slotsOf(getNode(from, from.root)).flatMap(({ id, name }) => {
      const target = targets.find((one) => one.name === name)
      return target ? [[id, target.id] as const] : []
    }),
  )
}
