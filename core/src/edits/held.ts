/**
 * Blocks that are held: nobody changes them, or only their words. Asked before an edit is made, for whoever edits by
 * hand; undo and merging go by what was done, whoever holds what.
 */
import type { Registry } from '../blocks/registry.ts'
import { findNode, type NodeId, type Page } from '../page/page.ts'
import { ancestry, subtreeIds } from '../page/walk.ts'
import { describeNode } from './describe.ts'
import type { Edit } from './edit.ts'

/** Why an edit does not fit what is held, or undefined when it does. */
export function heldRefusal(page: Page, edit: Edit, registry: Registry): string | undefined {
  if (edit.edit === 'set') {
    if (edit.at[0] === 'held') return undefined
    return refusalFor(page, edit.nodeId, registry, edit.at[0] === 'content')
  }
  if (edit.edit === 'insert') return refusalFor(page, edit.parentId, registry, false)
  if (edit.edit === 'remove')
    return refusalFor(page, edit.nodeId, registry, false) ?? heldInside(page, edit.nodeId, registry)
  return refusalFor(page, edit.nodeId, registry, false) ?? refusalFor(page, edit.toParentId, registry, false)
}

function refusalFor(page: Page, nodeId: NodeId, registry: Registry, isWords: boolean): string | undefined {
  const holder = ancestry(page, nodeId).find((id) => {
    const held = findNode(page, id)?.held
    return held === 'all' || (held === 'words' && !isWords)
  })
  return holder === undefined ? undefined : refusal(page, holder, registry)
}

/** What holds others can't be taken away with something in it that is held. */
function heldInside(page: Page, nodeId: NodeId, registry: Registry): string | undefined {
  const inside = findNode(page, nodeId) ? subtreeIds(page, nodeId) : []
  const held = inside.find((id) => findNode(page, id)?.held !== undefined)
  return held === undefined ? undefined : refusal(page, held, registry)
}

function refusal(page: Page, holder: NodeId, registry: Registry): string {
  const what = describeNode(page, holder, registry)
  const but = findNode(page, holder)?.held === 'words' ? 'only its words can be changed' : 'nobody changes it'
  return `${what.charAt(0).toUpperCase()}${what.slice(1)} is held: ${but}. Let it go first.`
}
