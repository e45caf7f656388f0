/** What commands do with shared sections. */
import { getNode, linkedPart, otherPartEdits, ownCopyEdits, type NodeId } from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { nodeName } from '../session/node-name.ts'

/** Puts a copy of what an instance shows in its place: visitors see the same, and it changes with nothing else any more. */
export function makeOwnCopy(store: EditorStore, id: NodeId): void {
  const { page } = store.state
  const isInstance = linkedPart(getNode(page, id), store.registry) !== undefined
  const { edits, copies } = ownCopyEdits(page, id, store.registry, newId)
  const [select, ...also] = copies
  if (!isInstance || select === undefined) {
    const words = isInstance
      ? 'There is nothing in it to copy'
      : 'Only a shared section can become an own copy'
    return store.dispatch({ type: 'tell', words, tone: 'refused' })
  }
  store.do(`Made an own copy of “${nodeName(store, page, id)}”`, edits, { select, also })
}

/** Shows another part where an instance stands, with what it fills in there in fields of the same names. */
export function replaceBy(
  store: EditorStore,
  id: NodeId,
  part: { readonly id: string; readonly name: string },
): void {
  const before = nodeName(store, store.state.page, id)
  store.joinPart(part.id)
  const edits = otherPartEdits(store.state.page, id, part.id, store.registry)
  store.do(`Replaced “${before}” by “${part.name}”`, edits)
}
