import type { Editor } from '@tiptap/core'
import { safeHref } from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { markdownToHtml } from './paste.ts'
import { pasteBlocks, pastePictures } from './paste-blocks.ts'
import { readPasted } from './pasted.ts'

/**
 * Takes care of what does not simply go into the text: an address on selected text links it, a table becomes a table
 * after this block, a picture is uploaded. True when it did; false leaves it to the text editor.
 */
export function pasteWhileTyping(store: EditorStore, editor: Editor, event: ClipboardEvent): boolean {
  if (!event.clipboardData) return false
  const pasted = readPasted(event.clipboardData)
  switch (pasted.type) {
    case 'too-much':
    case 'other-files':
      store.dispatch({ type: 'tell', words: pasted.words, tone: 'refused' })
      return true
    case 'nothing':
      store.dispatch({ type: 'tell', words: NOTHING, tone: 'refused' })
      return true
    case 'pictures':
      pastePictures(store, pasted.files)
      return true
    case 'address':
      return linkSelection(editor, pasted.href)
    case 'html':
      return pasteTable(store, pasted.html)
    case 'text':
      return pasteTable(store, markdownToHtml(pasted.text) ?? '')
  }
}

const NOTHING = 'Nothing pasted: the clipboard has nothing that can be put on a page'

/** A table can't stand inside text: it goes after it. */
function pasteTable(store: EditorStore, html: string): boolean {
  if (!hasTable(html)) return false
  void pasteBlocks(store, { html })
  return true
}

function linkSelection(editor: Editor, href: string): boolean {
  const { selection, schema } = editor.state
  if (selection.empty || !('link' in schema.marks) || safeHref(href) === undefined) return false
  return editor.chain().setMark('link', { to: { href } }).run()
}

/** Whether there is a table with more than one cell: others only arrange what is in them. */
function hasTable(html: string): boolean {
  const { body } = new DOMParser().parseFromString(html, 'text/html')
  return [...body.querySelectorAll('table')].some((table) => table.querySelectorAll('td, th').length > 1)
}
