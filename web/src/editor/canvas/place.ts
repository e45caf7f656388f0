import { placeAfter, type Target } from '@gullyline/core'
import { selectedIds } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'

/** Where something new of this kind goes: after what is selected, or at the end of the page. */
export function placeAfterSelection(store: EditorStore, kind: string): Target {
  return placeAfter(store.state.page, selectedIds(store.state).at(-1), kind, store.registry)
}
