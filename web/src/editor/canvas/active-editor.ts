import { useCallback, useSyncExternalStore } from 'react'
import type { Editor } from '@tiptap/core'
import type { EarlyInput } from '../../ui/early-keys.ts'
import { useValue, Value } from '../../ui/value.ts'

/** The text editor that is being typed in, and what is done with it by those who don't need its code. */
export interface ActiveEditor {
  readonly editor: Editor
  /** Selects the word at a point of the frame's window. */
  readonly selectWordAt: (point: { readonly x: number; readonly y: number }) => void
  /** Takes what was typed before it was there. */
  readonly take: (input: EarlyInput) => void
}

const active = new Value<ActiveEditor | undefined>(undefined)

/** What waits for somebody to type: the text editor starts once its element was drawn. */
let waiting: ((editing: ActiveEditor) => void)[] = []

/** Does something with the text editor that is about to start, or has. */
export function whenTyping(act: (editing: ActiveEditor) => void): void {
  const editing = active.get()
  if (editing) act(editing)
  else waiting.push(act)
}

/** Tells who types now: the bar with bold, italic, link and list works on that text editor. */
export function setActiveEditor(editing: ActiveEditor | undefined): void {
  active.set(editing)
  const acts = waiting
  waiting = []
  if (editing) for (const act of acts) act(editing)
}

/** The text editor that is being typed in. */
export function useActiveEditor(): Editor | undefined {
  return useValue(active)?.editor
}

/** Renders again when what `read` says of the text editor has changed, and not for every letter. */
export function useReading(editor: Editor | undefined, read: (editor: Editor) => string): void {
  const subscribe = useCallback(
    (listener: () => void) => {
      editor?.on('transaction', listener)
      return () => void editor?.off('transaction', listener)
    },
    [editor],
  )
  useSyncExternalStore(subscribe, () => (editor ? read(editor) : ''))
}

/** Which of the text's paragraphs and lists the caret is in, counted from 0; 0 where nothing is typed. */
export function typedParagraph(): number {
  return active.get()?.editor.state.selection.$from.index(0) ?? 0
}
