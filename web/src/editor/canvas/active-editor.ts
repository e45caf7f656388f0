import { useEffect, useReducer, useSyncExternalStore } from 'react'
import type { Editor } from '@tiptap/core'

let active: Editor | undefined
const listeners = new Set<() => void>()

/** Tells who types now: the bar with bold, italic, link and list works on that text editor. */
export function setActiveEditor(editor: Editor | undefined): void {
  active = editor
  for (const listener of listeners) listener()
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
