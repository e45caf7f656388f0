import { placeEdit, type Edit, type NodeId, type Starter, type Target } from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'

/**
 * Places what the shelf offers: one block or pattern, or all sections of a page body, in one step. Returns the block that
 * was added, not what had to be put around it; undefined when it was refused.
 */
export function placeStarter(
  store: EditorStore,
  starter: Starter,
  target: Target,
  origin: 'shelf' | 'pointer',
): NodeId | undefined {
  const fragment = starter.build(newId)
  const first = placeEdit(store.state.page, target, fragment, store.registry, newId)
  const rest = starter.buildRest(newId).map((section, i): Edit => {
    const { parentId, slot, index } = first
    return { edit: 'insert', parentId, slot, index: index + 1 + i, ...section }
  })
  const isIn = store.do(`Added ${starter.title.toLowerCase()}`, [first, ...rest], {
    select: fragment.rootId,
    origin,
  })
  return isIn ? fragment.rootId : undefined
}
