import { ancestry, shownIdOf, stepsOf, type NodeId } from '@gullyline/core'
import type { EditorState } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'

/** What of the page's own rows holds what is selected: its section, or the instance that it is seen in. */
export function topOf(
  { registry }: EditorStore,
  { page, selection, around }: EditorState,
): NodeId | undefined {
  if (selection === undefined) return undefined
  const [first] = stepsOf(shownIdOf(page, selection, around, registry))
  return ancestry(page, first!).at(-2)
}
