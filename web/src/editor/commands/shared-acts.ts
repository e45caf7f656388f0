/** What commands do with shared sections. */
import { getNode, linkedPart, ownCopyEdits, type NodeId } from '@gullyline/core'
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
