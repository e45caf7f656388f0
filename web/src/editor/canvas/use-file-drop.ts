import { useEffect } from 'react'
import { getNode, type Look, type Starter } from '@gullyline/core'
import type { DragItem } from '../drag/drag-store.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { landingOnCanvas } from './canvas-landing.ts'
import { frameToWindow } from './frame-geometry.ts'
import { pastePictures } from './paste-blocks.ts'
import { noFiles } from './pasted.ts'
import { filesOf } from '../../media/uploads.ts'

/**
 * Files dropped on the page or anywhere on the screen: pictures are put where they land. Left to the browser, a file
 * dropped beside a place for it would be opened instead of the editor.
 */
export function useFileDrop(store: EditorStore, inner: Document, look: Look): void {
  useEffect(() => {
    const over = (event: DragEvent): void => {
      if (event.dataTransfer?.types.includes('Files')) event.preventDefault()
    }
    const drop = (event: DragEvent): void => {
      const files = filesOf(event.dataTransfer)
      if (files.length === 0 || event.defaultPrevented) return
      event.preventDefault()
      const pictures = files.filter(({ type }) => type.startsWith('image/'))
      const others = files.filter((file) => !pictures.includes(file))
      if (others.length > 0) store.dispatch({ type: 'tell', words: noFiles(others), tone: 'refused' })
      if (pictures.length > 0 && isOnPage(event, inner))
        pastePictures(store, pictures, targetOf(store, inner, event, look))
    }
    const documents = [document, inner]
    for (const one of documents) {
      one.addEventListener('dragover', over)
      one.addEventListener('drop', drop)
    }
    return () => {
      for (const one of documents) {
        one.removeEventListener('dragover', over)
        one.removeEventListener('drop', drop)
      }
    }
  }, [store, inner, look])
}

function isOnPage(event: DragEvent, inner: Document): boolean {
  return (event.target as Node | null)?.ownerDocument === inner || event.target === inner
}

/** The place under the pointer, as for a picture from the shelf. */
function targetOf(store: EditorStore, inner: Document, { clientX, clientY }: DragEvent, look: Look) {
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  if (!frame) return undefined
  const item: DragItem = { type: 'starter', starter: {} as Starter, kind: 'picture', title: 'Picture' }
  const point = frameToWindow(frame, { x: clientX, y: clientY })
  const found = landingOnCanvas(inner, store, { item, point, look })
  if (found?.cell) {
    const { gridId, slot } = found.cell
    return { parentId: gridId, slot, index: getNode(store.state.page, gridId).slots[slot]?.length ?? 0 }
  }
  return found?.landing && found.refusal === undefined ? found.landing.target : undefined
}
