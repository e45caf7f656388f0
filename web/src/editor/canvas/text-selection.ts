/** Where the caret of a text editor is and goes. */
import type { Editor } from '@tiptap/core'
import type { Node as DocumentNode } from '@tiptap/pm/model'
import { TextSelection, type Transaction } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'
import type { TypingStart } from '../session/editor-state.ts'

/** Puts the caret where typing starts: under a point, over everything, or at the end. */
export function placeCaret(editor: Editor, start: TypingStart | undefined): void {
  const { doc } = editor.state
  if (start === 'all') editor.commands.selectAll()
  else editor.commands.setTextSelection((start && positionAt(editor.view, start)) ?? doc.content.size)
}

function positionAt(
  view: EditorView,
  { x, y }: { readonly x: number; readonly y: number },
): number | undefined {
  return view.posAtCoords({ left: x, top: y })?.pos
}

/** Selects the word at a point of the frame's window, as pressing twice does in every text. */
export function selectWord(editor: Editor, point: { readonly x: number; readonly y: number }): void {
  const pos = positionAt(editor.view, point)
  if (pos === undefined) return
  const range = wordAround(editor.state.doc, pos)
  editor.commands.setTextSelection(range)
  editor.view.focus()
}

/** The word around a position: Unicode Standard Annex 29, "Word Boundaries", as the browser has them. */
function wordAround(doc: DocumentNode, pos: number): { from: number; to: number } {
  // Between two paragraphs there is no text: the nearest is meant.
  const { $from: $pos } = TextSelection.near(doc.resolve(pos))
  // One character for each position, so that places in the text are places in the document.
  const text = $pos.parent.textBetween(0, $pos.parent.content.size, undefined, '\ufffc')
  const segments = new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text)
  const at = Math.min($pos.parentOffset, Math.max(0, text.length - 1))
  const found = segments.containing(at)
  if (!found) return { from: $pos.pos, to: $pos.pos }
  const start = $pos.start() + found.index
  return { from: start, to: start + found.segment.length }
}

/** What is selected on the screen, as positions of the document; undefined where that is not in this editor. */
export function selectionOnScreen(view: EditorView): { anchor: number; head: number } | undefined {
  const selection = view.dom.ownerDocument.getSelection()
  const { anchorNode, focusNode } = selection ?? {}
  if (!selection || !anchorNode || !focusNode) return undefined
  if (!view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return undefined
  return {
    anchor: view.posAtDOM(anchorNode, selection.anchorOffset),
    head: view.posAtDOM(focusNode, selection.focusOffset),
  }
}

/**
 * A transaction whose selection is the one on the screen. The key that moved the caret may have been the last one, and
 * the browser tells the editor of that only after this one: on a slow machine letters would land where the caret was.
 */
export function atSelectionOnScreen(view: EditorView): Transaction {
  const { tr } = view.state
  const shown = selectionOnScreen(view)
  if (!shown) return tr
  const { anchor, head } = view.state.selection
  return shown.anchor === anchor && shown.head === head
    ? tr
    : tr.setSelection(TextSelection.between(tr.doc.resolve(shown.anchor), tr.doc.resolve(shown.head)))
}

/** Shows another document, changing only what differs, so that the caret stays at its place in the text. */
export function showDocument(editor: Editor, next: DocumentNode): void {
  const { doc } = editor.state
  const start = doc.content.findDiffStart(next.content)
  const ends = doc.content.findDiffEnd(next.content)
  if (start === null || !ends) return
  // Equal text around the change may be counted to both of its ends.
  const overlap = Math.max(0, start - Math.min(ends.a, ends.b))
  const slice = next.slice(start, ends.b + overlap)
  editor.view.dispatch(
    editor.state.tr
      .replace(start, ends.a + overlap, slice)
      .setMeta('preventUpdate', true)
      .setMeta('addToHistory', false),
  )
}
