import { useEffect, useReducer, useSyncExternalStore } from 'react'
import type { Editor } from '@tiptap/core'
import { selectWord } from './text-selection.ts'

let active: Editor | undefined
const listeners = new Set<() => void>()

/** What waits for somebody to type: the text editor starts once its element was drawn. */
let waiting: (() => void) | undefined

/** Does something with the text editor that is about to start, or has. */
export function whenTyping(act: () => void): void {
  if (active) act()
  else waiting = act
}

/** Tells who types now: the bar with bold, italic, link and list works on that text editor. */
export function setActiveEditor(editor: Editor | undefined): void {
  active = editor
  for (const listener of listeners) listener()
  const act = waiting
  waiting = undefined
  if (editor) act?.()
}

/** Selects the word at a point of the frame's window. */
export function selectWordAt(point: { readonly x: number; readonly y: number }): void {
  if (active) selectWord(active, point)
}

/** The text editor that is being typed in, rendered again at each of its changes. */
export function useActiveEditor(): Editor | undefined {
  const editor = useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => active,
  )
  const [, again] = useReducer((count: number) => count + 1, 0)
  useEffect(() => {
    if (!editor) return
    editor.on('transaction', again)
    return () => {
      editor.off('transaction', again)
    }
  }, [editor])
  return editor
}

/** Which of the text's paragraphs and lists the caret is in, counted from 0; 0 where nothing is typed. */
export function typedParagraph(): number {
  return active?.state.selection.$from.index(0) ?? 0
}
