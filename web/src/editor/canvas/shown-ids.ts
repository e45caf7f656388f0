/** Elements on the canvas are marked with shown ids; what is selected and edited are nodes. This goes from one to the other. */
import {
  fillAt,
  findNode,
  getKind,
  instanceAround,
  linkedPart,
  originOf,
  seenIdOf,
  stepsOf,
  type NodeId,
  type ShownId,
} from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { isOfComponent as showsComponent } from '../session/node-name.ts'

/** A node, and the instance that it is seen in; empty for one that is no part of any. */
export interface Seen {
  readonly id: NodeId
  readonly around: ShownId
}

/** The shown id of a node, as its element has it: in the instance that is worked in, where its part is shown several times. */
export function shownId({ state, registry }: EditorStore, id: NodeId): ShownId {
  return seenIdOf(state.page, id, state.around, registry)
}

/** A shown node as itself, whatever instances it stands in. */
export function seenAt(shown: ShownId): Seen {
  return { id: originOf(shown), around: instanceAround(shown) }
}

/**
 * What a press on something shown means: the outermost instance that is not worked in yet, or the block itself; on the slot
 * of a component, what its instance has there.
 */
export function pressedAt({ state, registry }: EditorStore, shown: ShownId): Seen {
  const steps = stepsOf(shown)
  const open = state.around === '' ? [] : stepsOf(state.around)
  const depth = open.findIndex((step, i) => step !== steps[i])
  const at = Math.min(depth < 0 ? open.length : depth, steps.length - 1)
  const around = steps.slice(0, at).join('/')
  const isInSlot = at === steps.length - 2
  const fill = isInSlot ? fillAt(state.page, steps[at]!, steps[at + 1]!, registry) : undefined
  return { id: fill ?? steps[at]!, around }
}

/** Whether a node is an instance, which shows what stands elsewhere. */
export function isInstance({ state, registry }: EditorStore, id: NodeId): boolean {
  const node = findNode(state.page, id)
  return node !== undefined && getKind(registry, node.kind).linksTo !== undefined
}

/** Whether a node is an instance that says something of its own. */
export function isOfComponent({ state, registry }: EditorStore, id: NodeId): boolean {
  const node = findNode(state.page, id)
  return node !== undefined && showsComponent(state.page, linkedPart(node, registry))
}
