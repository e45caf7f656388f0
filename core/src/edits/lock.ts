/**
 * Locked blocks, and those that a component holds in place: nothing in them can be changed, or only their text. Asked before a person makes an edit; undo and
 * merging repeat what was already done, and do not ask.
 */
import type { Registry } from '../blocks/registry.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { ancestry, findPlace, subtreeIds } from '../page/walk.ts'
import { slotOfFill } from '../resolve/instance-slots.ts'
import { describeNode } from './describe.ts'
import { takesRefusal, templateRules } from '../site/template-rules.ts'
import type { Edit, Move } from './edit-shapes.ts'

/** Why an edit does not fit the locks, or undefined when it does. */
export function lockRefusal(page: Page, edit: Edit, registry: Registry): string | undefined {
  if (edit.edit === 'set') {
    if (edit.at[0] === 'lock')
      return isFixed(page, edit.nodeId) ? fixedWords(page, edit.nodeId, registry) : undefined
    return refusalFor(page, edit.nodeId, registry, edit.at[0] === 'content')
  }
  if (edit.edit === 'insert')
    return (
      refusalFor(page, edit.parentId, registry, false) ??
      takesRefusal(page, edit, getNode(edit, edit.rootId).kind, registry)
    )
  const slot = slotOfFill(page, edit.nodeId, registry)
  if (slot) return `The slot “${slot.slot.name}” is part of the component. Select what is in it.`
  if (edit.edit === 'remove')
    return refusalFor(page, edit.nodeId, registry, false) ?? lockedInside(page, edit.nodeId, registry)
  return (
    refusalFor(page, edit.nodeId, registry, false) ??
    refusalFor(page, edit.toParentId, registry, false) ??
    movedRefusal(page, edit, registry)
  )
}

/** What stays in its slot was taken there already. */
function movedRefusal(
  page: Page,
  { nodeId, toParentId, toSlot }: Move,
  registry: Registry,
): string | undefined {
  const from = findPlace(page, nodeId)
  const node = findNode(page, nodeId)
  if (!node || (from?.parentId === toParentId && from.slot === toSlot)) return undefined
  return takesRefusal(page, { parentId: toParentId, slot: toSlot }, node.kind, registry)
}

function isFixed(page: Page, nodeId: NodeId): boolean {
  return templateRules(page).fixed.includes(nodeId)
}

function fixedWords(page: Page, nodeId: NodeId, registry: Registry): string {
  const what = describeNode(page, nodeId, registry)
  const but = findNode(page, nodeId)?.lock === 'text' ? ': only its text can be changed' : ''
  return `${what.charAt(0).toUpperCase()}${what.slice(1)} is fixed by the page’s template${but}.`
}

function refusalFor(page: Page, nodeId: NodeId, registry: Registry, isWords: boolean): string | undefined {
  const holder = ancestry(page, nodeId).find((id) => {
    const lock = findNode(page, id)?.lock
    return lock === 'all' || (lock === 'text' && !isWords)
  })
  return holder === undefined ? undefined : refusal(page, holder, registry)
}

/** A container can't be removed while something in it is locked. */
function lockedInside(page: Page, nodeId: NodeId, registry: Registry): string | undefined {
  const inside = findNode(page, nodeId) ? subtreeIds(page, nodeId) : []
  const lock = inside.find((id) => findNode(page, id)?.lock !== undefined)
  return lock === undefined ? undefined : refusal(page, lock, registry)
}

function refusal(page: Page, holder: NodeId, registry: Registry): string {
  if (isFixed(page, holder)) return fixedWords(page, holder, registry)
  const what = describeNode(page, holder, registry)
  const but = findNode(page, holder)?.lock === 'text' ? 'only its text can be changed' : 'it can’t be changed'
  return `${what.charAt(0).toUpperCase()}${what.slice(1)} is locked: ${but}. Unlock it first.`
}
