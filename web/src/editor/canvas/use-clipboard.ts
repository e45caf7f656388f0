import { useEffect } from 'react'
import { copiedIds, copy, cut, paste } from '../acts.ts'
import { BLOCKS_TYPE, htmlForOthers, readFragments } from '../clipboard.ts'
import { newId, type EditorStore } from '../editor-store.ts'
import { elementOf } from './boxes.ts'
import { loadMarkdown, markdownToHtml } from './paste.ts'

/** More letters than this are no page that anybody reads, and would keep the browser busy for long. */
const MOST_PASTED = 1_000_000

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
      const elements = copiedIds(store).flatMap((id) => elementOf(inner, id) ?? [])
      event.preventDefault()
      const fragments = event.type === 'cut' ? cut(store) : copy(store)
      if (fragments.length === 0) return
      clipboardData.setData(BLOCKS_TYPE, JSON.stringify(fragments))
      clipboardData.setData('text/html', htmlForOthers(elements))
      clipboardData.setData('text/plain', elements.map((one) => one.innerText.trim()).join('\n\n'))
    }
    const put = (event: ClipboardEvent): void => {
      const { clipboardData } = event
      if (!clipboardData || clipboardData.files.length > 0 || isElsewhere(event, store)) return
      event.preventDefault()
      const blocks = clipboardData.getData(BLOCKS_TYPE)
      if (blocks !== '') return paste(store, readFragments(blocks))
      const html = clipboardData.getData('text/html')
      const text = clipboardData.getData('text/plain')
      if (html === '' && text === '') return paste(store)
      pasteWords(store, html, text).catch(() =>
        store.dispatch({
          type: 'tell',
          words: 'Not pasted: a part of the editor could not be fetched. Nothing was changed; try once more',
          tone: 'refused',
        }),
      )
    }
    const documents = [document, inner]
    for (const one of documents) {
      one.addEventListener('copy', take)
      one.addEventListener('cut', take)
      one.addEventListener('paste', put)
    }
    return () => {
      for (const one of documents) {
        one.removeEventListener('copy', take)
        one.removeEventListener('cut', take)
        one.removeEventListener('paste', put)
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

async function pasteWords(store: EditorStore, html: string, text: string): Promise<void> {
  if (Math.max(html.length, text.length) > MOST_PASTED) {
    const words = `Not pasted: this is too much at once; at most ${MOST_PASTED / 1_000_000} million letters are taken`
    return store.dispatch({ type: 'tell', words, tone: 'refused' })
  }
  const [{ blocksFromHtml }] = await Promise.all([import('../html-blocks.ts'), loadMarkdown()])
  const fragments = blocksFromHtml(html || (markdownToHtml(text) ?? ''), store.registry, newId)
  if (fragments.length > 0) return paste(store, fragments)
  store.dispatch({ type: 'tell', words: 'Nothing pasted: what was copied has no words', tone: 'refused' })
}
