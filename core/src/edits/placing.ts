import { slotAllows } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { slotRefusal } from '../blocks/slots.ts'
import { findNode, type NodeId, type Page } from '../page/page.ts'
import { slotOfFill } from '../resolve/instance-slots.ts'
import { refuse, type Refusal } from './result.ts'

/** Where something is to be placed. `index` is from 0 to the number of children there, inclusive. */
export interface Target {
  readonly parentId: NodeId
  readonly slot: string
  readonly index: number
}

/** Why a node of this kind can't be placed at a target of the page, or undefined when it can. `leaving` is 1 when it is taken out of the same slot first. */
export function placingRefusal(
  page: Page,
  target: Target,
  kind: string,
  registry: Registry,
  leaving: 0 | 1 = 0,
): Refusal | undefined {
  const parent = findNode(page, target.parentId)
  if (!parent)
    return refuse(
      'unknown-node',
      `There is no block "${target.parentId}" on this page to place it in`,
      target.parentId,
    )
  const children = Object.hasOwn(parent.slots, target.slot) ? parent.slots[target.slot]! : undefined
  const present = (children?.length ?? 0) - leaving
  const reason =
    slotRefusal(registry, parent, target.slot, { kind, present }) ??
    fillRefusal(page, target.parentId, { kind, present }, registry)
  if (reason) return refuse(children ? 'slot-refuses' : 'no-such-slot', reason, target.parentId)
  if (!Number.isInteger(target.index) || target.index < 0 || target.index > present) {
    return refuse(
      'index-out-of-range',
      `Place ${target.index} is not one from 0 to ${present}`,
      target.parentId,
    )
  }
  return undefined
}

/** Why the slot of a component does not take one more block of a kind in an instance of it. */
function fillRefusal(
  page: Page,
  parentId: NodeId,
  child: { readonly kind: string; readonly present: number },
  registry: Registry,
): string | undefined {
  const filled = slotOfFill(page, parentId, registry)
  if (!filled) return undefined
  const { taking, slot } = filled
  const name = `The slot “${slot.name}”`
  if (!slotAllows(taking, getKind(registry, child.kind))) {
    const kinds = taking.allow.flatMap((one) => registry.kinds.get(one)?.plural ?? [])
    return `${name} takes only ${kinds.join(', ') || 'other blocks'}`
  }
  return taking.max !== undefined && child.present >= taking.max
    ? `${name} holds at most ${taking.max}`
    : undefined
}
