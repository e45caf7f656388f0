import { useEffect } from 'react'
import { copiedIds, copy, cut, paste } from '../commands/acts.ts'
import { BLOCKS_TYPE, htmlForOthers, readFragments } from '../commands/clipboard.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { elementsOf } from './boxes.ts'
import { shownId } from './shown-ids.ts'
import { pasteBlocks, pastePictures } from './paste-blocks.ts'
import { readPasted } from './pasted.ts'

/**
 * Copy, cut and paste as the browser means them, wherever the focus is: so that blocks go to other programs as HTML and
 * as text, to other sites as blocks, and words from other programs come in as blocks.
 */
export function useClipboard(store: EditorStore, inner: Document | undefined): void {
  useEffect(() => {
    if (!inner) return
    const take = (event: ClipboardEvent): void => {
      const { clipboardData } = event
      if (!clipboardData || isElsewhere(event, store)) return
      const elements = copiedIds(store).flatMap((id) => elementsOf(inner, shownId(store, id)))
      event.preventDefault()
      const fragments = event.type === 'cut' ? cut(store) : copy(store)
      if (fragments.length === 0) return
      clipboardData.setData(BLOCKS_TYPE, JSON.stringify(fragments))
      clipboardData.setData('text/html', htmlForOthers(elements))
      clipboardData.setData('text/plain', elements.map((one) => one.innerText.trim()).join('\n\n'))
    }
    const putIn = (event: ClipboardEvent): void => {
      const { clipboardData } = event
      if (!clipboardData || isElsewhere(event, store)) return
      event.preventDefault()
      const blocks = clipboardData.getData(BLOCKS_TYPE)
      if (blocks !== '') return paste(store, readFragments(blocks, store.registry))
      put(store, clipboardData)
    }
    const documents = [document, inner]
    for (const one of documents) {
      one.addEventListener('copy', take)
      one.addEventListener('cut', take)
      one.addEventListener('paste', putIn)
    }
    return () => {
      for (const one of documents) {
        one.removeEventListener('copy', take)
        one.removeEventListener('cut', take)
        one.removeEventListener('paste', putIn)
      }
    }
  }, [store, inner])
}

/** Words being typed, fields and dialogs have the clipboard for themselves. */
function isElsewhere(event: ClipboardEvent, store: EditorStore): boolean {
  const target = event.target as Element | null
  return (
    event.defaultPrevented ||
    store.state.typing !== undefined ||
    target?.closest?.('input, textarea, select, [role="dialog"], [role="alertdialog"]') != null
  )
}

function put(store: EditorStore, data: DataTransfer): void {
  const pasted = readPasted(data)
  switch (pasted.type) {
    case 'too-much':
    case 'other-files':
      return store.dispatch({ type: 'tell', words: pasted.words, tone: 'refused' })
    case 'nothing':
      return paste(store)
    case 'pictures':
      return pastePictures(store, pasted.files)
    case 'address':
    case 'text':
      return void pasteBlocks(store, { text: pasted.text })
    case 'html':
      return void pasteBlocks(store, { html: pasted.html })
  }
}
