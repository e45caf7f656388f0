/** What instances of components have in the slots of their parts, read off a session. */
import { filledSlot, fillsOf, slotsOf, slotTaking, type ComponentSlot } from '../blocks/component-slots.ts'
import type { SlotDefinition } from '../blocks/define-block.ts'
import type { Registry } from '../blocks/registry.ts'
import { findNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { findPlace } from '../page/walk.ts'
import { linkedPart } from './expand.ts'

/** A slot of an instance, with what its part says of it. */
export interface InstanceSlot {
  readonly slot: ComponentSlot
  readonly taking: SlotDefinition
  /** The node that holds what the instance has there; undefined for an instance that is older than the slot. */
  readonly fill: NodeId | undefined
  /** How many blocks the instance has there; where there are none, those of the part are shown. */
  readonly count: number
}

/** The slots of an instance, in the order of its part; none of those whose block is not there any more. */
export function instanceSlots(session: Page, id: NodeId, registry: Registry): readonly InstanceSlot[] {
  const instance = findNode(session, id)
  const root = instance && partRoot(session, instance, registry)
  if (!instance || !root) return []
  const fills = fillsOf(instance, session.nodes, registry)
  return slotsOf(root).flatMap((slot): InstanceSlot[] => {
    const taking = slotTaking(slot, session.nodes, registry)
    const { id: fill, blocks = [] } = fills.get(slot.id) ?? {}
    return taking ? [{ slot, taking, fill, count: blocks.length }] : []
  })
}

/** The slot that a node of an instance fills, with what it takes; undefined for all other nodes. */
export function slotOfFill(session: Page, id: NodeId, registry: Registry): InstanceSlot | undefined {
  const node = findNode(session, id)
  const slot = node && filledSlot(node, registry)
  const place = slot === undefined ? undefined : findPlace(session, id)
  return place && instanceSlots(session, place.parentId, registry).find((one) => one.slot.id === slot)
}

/** The node that an instance has for the slot which a block of its part is, if that is one. */
export function fillAt(
  session: Page,
  instance: NodeId,
  block: NodeId,
  registry: Registry,
): NodeId | undefined {
  return instanceSlots(session, instance, registry).find(({ slot }) => slot.node === block)?.fill
}

function partRoot(session: Page, instance: PageNode, registry: Registry): PageNode | undefined {
  const part = linkedPart(instance, registry)
  return part === undefined ? undefined : findNode(session, part)
}
