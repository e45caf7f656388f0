/** Elements on the canvas are marked with shown ids; what is selected and edited are nodes. This goes from one to the other. */
import {
  findNode,
  getKind,
  instanceAround,
  linkedPart,
  originOf,
  shownIdOf,
  stepsOf,
  type NodeId,
  type ShownId,
} from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { hasFields } from '../session/node-name.ts'

/** A node, and the instance that it is seen in; empty for one that is no part of any. */
export interface Seen {
  readonly id: NodeId
  readonly around: ShownId
}

/** The shown id of a node: in the instance that is worked in, where its part is shown several times. */
export function shownId({ state, registry }: EditorStore, id: NodeId): ShownId {
  return shownIdOf(state.page, id, state.around, registry)
}

/** A shown node as itself, whatever instances it stands in. */
export function seenAt(shown: ShownId): Seen {
  return { id: originOf(shown), around: instanceAround(shown) }
}

/** What a press on something shown means: the outermost instance that is not worked in yet, or the block itself. */
export function pressedAt({ state }: EditorStore, shown: ShownId): Seen {
  const steps = stepsOf(shown)
  const open = state.around === '' ? [] : stepsOf(state.around)
  const depth = open.findIndex((step, i) => step !== steps[i])
  const at = Math.min(depth < 0 ? open.length : depth, steps.length - 1)
  return { id: steps[at]!, around: steps.slice(0, at).join('/') }
}

/** Whether a node is an instance, which shows what stands elsewhere. */
export function isInstance({ state, registry }: EditorStore, id: NodeId): boolean {
  const node = findNode(state.page, id)
  return node !== undefined && getKind(registry, node.kind).linksTo !== undefined
}

/** Whether a node is an instance that says something of its own. */
export function isOfComponent({ state, registry }: EditorStore, id: NodeId): boolean {
  const node = findNode(state.page, id)
  return node !== undefined && hasFields(state.page, linkedPart(node, registry))
}
