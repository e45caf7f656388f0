import { freeOfTemplateEdits } from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'

/** Makes the page free of its template: a step that can be undone. */
export function letGoOfTemplate(store: EditorStore): void {
  const edits = freeOfTemplateEdits(store.state.page)
  store.do('Made the page free of its template', edits, { locks: 'passed' })
}
