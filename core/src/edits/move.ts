import type { Registry } from '../blocks/registry.ts'
import { getNode, type Page } from '../page/page.ts'
import { findPlace, isWithin } from '../page/walk.ts'
import { withNodes } from '../page/with-nodes.ts'
import { listChild, unlistChild } from './children.ts'
import { defineEdit, ID, INDEX, NAME } from './define-edit.ts'
import { describeNode, describePlace } from './describe.ts'
import type { Move } from './edit-shapes.ts'
import { placingRefusal } from './placing.ts'
import { removeRefusal } from './remove.ts'
import { refuse, type Refusal } from './result.ts'

export const move = defineEdit<Move>({
  fields: { nodeId: ID, toParentId: ID, toSlot: NAME, toIndex: INDEX },
  apply(page, edit, registry) {
    const refusal = moveRefusal(page, edit, registry)
    if (refusal) return refusal
    const from = findPlace(page, edit.nodeId)!
    const left = unlistChild(getNode(page, from.parentId), from.slot, edit.nodeId)
    const into = from.parentId === edit.toParentId ? left : getNode(page, edit.toParentId)
    const joined = listChild(into, edit.toSlot, edit.toIndex, edit.nodeId)
    const changed = { [from.parentId]: left, [edit.toParentId]: joined }
    return {
      ok: true,
      page: { ...page, nodes: withNodes(page.nodes, changed) },
      inverse: {
        edit: 'move',
        nodeId: edit.nodeId,
        toParentId: from.parentId,
        toSlot: from.slot,
        toIndex: from.index,
      },
    }
  },
  sentence(before, edit, registry) {
    const target = { parentId: edit.toParentId, slot: edit.toSlot, index: edit.toIndex }
    return `Moved ${describeNode(before, edit.nodeId, registry)} ${describePlace(before, target, registry, edit.nodeId)}`
  },
})

/** Why a move does not fit the page, or undefined when it does: one question for the drop line, the keys and the edit. */
export function moveRefusal(page: Page, edit: Move, registry: Registry): Refusal | undefined {
  const stuck = removeRefusal(page, edit.nodeId, registry)
  if (stuck) return stuck
  if (isWithin(page, edit.toParentId, edit.nodeId)) {
    return refuse('nests-in-itself', 'A block can’t be placed inside itself', edit.nodeId)
  }
  const from = findPlace(page, edit.nodeId)!
  const sameSlot = from.parentId === edit.toParentId && from.slot === edit.toSlot
  const target = { parentId: edit.toParentId, slot: edit.toSlot, index: edit.toIndex }
  const { kind } = getNode(page, edit.nodeId)
  return placingRefusal(page, target, kind, registry, sameSlot ? 1 : 0)
}
