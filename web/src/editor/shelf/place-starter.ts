import { placeEdits, type Edit, type NodeId, type Starter, type Target } from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'

/**
 * Places what the shelf offers: one block, or all blocks or sections of a pattern, in one step with what is done besides.
 * Returns the first block that
 * was added, not what had to be put around it; undefined when it was refused.
 */
export function placeStarter(
  store: EditorStore,
  starter: Starter,
  target: Target,
  origin: 'shelf' | 'pointer',
  also: readonly Edit[] = [],
): NodeId | undefined {
  const fragments = [starter.build(newId), ...starter.buildRest(newId)]
  const edits = [...placeEdits(store.state.page, target, fragments, store.registry, newId), ...also]
  const { rootId } = fragments[0]!
  const isIn = store.do(`Added ${starter.title.toLowerCase()}`, edits, { select: rootId, origin })
  return isIn ? rootId : undefined
}
