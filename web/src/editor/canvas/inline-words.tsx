import { useEffect, useLayoutEffect, useRef } from 'react'
import { flushSync } from 'react-dom'
import type { Editor } from '@tiptap/core'
import {
  getKind,
  getNode,
  joinBackEdits,
  markedParagraphEdits,
  sameJson,
  startParagraphEdits,
  takeNameMarkEdits,
  type Json,
  type Line,
  type NodeId,
  type RichText,
} from '@gullyline/core'
import type { EarlyInput } from '../../ui/early-keys.ts'
import type { Typing } from '../session/editor-state.ts'
import { useNode, useStore, type EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { setActiveEditor, typedParagraph } from './active-editor.ts'
import { dropWish, listenForBar } from './bar-keys.ts'
import { useShelf, type ShelfControl } from '../shelf/shelf-state.ts'
import { typedField } from '../session/typed-field.ts'
import { startTyping, stepTyping } from './frame-input.ts'
import { pasteWhileTyping } from './paste-while-typing.ts'
import { docOf, readWords, startTextEditor, takeEarly, type EdgeKey, type Words } from './text-editor.ts'
import { selectWord, showDocument } from './text-selection.ts'

interface InlineWordsProps {
  readonly tag: string
  readonly node: NodeId
  readonly field: string
}

/**
 * The element whose words are being typed. React renders it without children: what is inside belongs to the text
 * editor for as long as it works here.
 */
export function InlineWords({ tag, node: id, field, ...attributes }: InlineWordsProps) {
  const store = useStore()
  const element = useRef<HTMLDivElement>(null)
  const editor = useRef<Editor>(undefined)
  const shelfNow = useShelf()
  const shelf = useRef(shelfNow)
  useEffect(() => {
    shelf.current = shelfNow
  })
  const node = useNode(id)
  const told = node && typedField(store, { id, field })?.value

  useLayoutEffect(() => {
    const typed = typedField(store, { id, field })
    if (!element.current || !typed) return
    const { kind, control, value } = typed
    const title = kind.title.toLowerCase()
    const started = startTextEditor({
      element: element.current,
      words: wordsOf(control, value),
      label: `Text of the ${title}`,
      onEdgeKey: (key) => crossEdge(store, id, key, started.view.dom),
      start: startOnce(store.state.typing),
      onPaste: (running, event) => pasteWhileTyping(store, running, event),
      onChange: (next) => {
        const before = typedField(store, { id, field })
        if (!before || sameJson(next, before.value)) return
        // What the page can't take must not stand on the canvas as if it had: all that is typed after it would be lost.
        if (!setTyped(store, id, field, next, { isDrawn: true }))
          showWords(editor.current, wordsOf(control, before.value))
        else if (kind.turning?.isText === true && !before.isOfInstance)
          queueMicrotask(() => {
            turnMarked(store, id)
            askForName(store, id, shelf.current)
          })
      },
    })
    editor.current = started
    if ('bold' in started.schema.marks) listenForBar(started)
    setActiveEditor({
      editor: started,
      selectWordAt: (point) => selectWord(started, point),
      take: (input) => {
        takeEarly(started, input)
        // The selection on the screen follows only with the focus, and the next letter would go by the one of before.
        started.view.focus()
      },
    })
    return () => {
      dropWish()
      setActiveEditor(undefined)
      started.destroy()
      editor.current = undefined
    }
  }, [store, id, field])

  // Undo and redo change the words from outside of the text editor, which then has to follow. The words are the store's
  // of this moment: a letter may have come since they were told.
  useEffect(() => {
    const running = editor.current
    const typed = typedField(store, { id, field })
    if (!running || !typed) return
    const words = wordsOf(typed.control, typed.value)
    if (!sameJson(readWords(running, words.form), typed.value)) showWords(running, words)
  }, [told, store, id, field])

  // Any tag a kind renders; one name stands for all of them in the types.
  const Tag = tag as 'div'
  return <Tag {...attributes} ref={element} />
}

const begun = new WeakSet<Typing>()

/** Where typing starts: asked for once, so that a text editor that is made anew does not select what was typed meanwhile. */
function startOnce(typing: Typing | undefined): Typing['start'] {
  if (!typing || begun.has(typing)) return undefined
  begun.add(typing)
  return typing.start
}

/** Puts what was typed into the page. False where the page can't take it. */
function setTyped(
  store: EditorStore,
  id: NodeId,
  field: string,
  value: Json,
  { isDrawn }: { readonly isDrawn: boolean },
): boolean {
  const typed = typedField(store, { id, field })
  if (!typed) return false
  const label = `Typed in ${typed.kind.title.toLowerCase()}`
  return store.do(label, [typed.edit(value)], { joinKey: `${id}/${field}`, origin: 'typing', isDrawn })
}

/** Types what was pressed into words that are no longer typed in: at their end, or over all of them. */
export function typeUnseen(
  store: EditorStore,
  { id, field, start }: Typing,
  inputs: readonly EarlyInput[],
): void {
  const before = typedField(store, { id, field })
  if (!before) return
  const { value } = before
  const words = wordsOf(before.control, value)
  const editor = startTextEditor({
    element: document.createElement('div'),
    words,
    label: '',
    start: start === 'all' ? start : undefined,
    onChange: () => undefined,
  })
  for (const input of inputs) takeEarly(editor, input)
  const typed = readWords(editor, words.form)
  editor.destroy()
  if (!sameJson(typed, value)) setTyped(store, id, field, typed, { isDrawn: false })
}

/**
 * Enter at the end of a heading starts a paragraph after it; Backspace at the beginning of a text joins it to what is
 * before; Tab goes on to the next text.
 */
function crossEdge(store: EditorStore, id: NodeId, key: EdgeKey, from: Element): boolean {
  const { page } = store.state
  if (key === 'Tab' || key === 'Shift+Tab') return stepTyping(store, from, key === 'Tab' ? 1 : -1)
  // What a component is made of stays as it is.
  if (getKind(store.registry, getNode(page, id).kind).linksTo) return false
  if (key === 'Enter') {
    const { turning } = getKind(store.registry, getNode(page, id).kind)
    const started = turning?.isLine === true && startParagraphEdits(page, id, store.registry, newId)
    if (!started) return false
    store.do('Started a paragraph', started.edits, { select: started.textId })
    store.dispatch({ type: 'start-typing', typing: { id: started.textId, field: 'words' } })
    return true
  }
  const joined = joinBackEdits(page, id, store.registry)
  if (!joined) return false
  store.do('Joined two blocks', joined.edits, { select: joined.intoId })
  store.dispatch({ type: 'start-typing', typing: { id: joined.intoId, field: joined.field } })
  return true
}

/** A paragraph that begins with the mark of a heading or a quote becomes one, and is typed on in. */
function turnMarked(store: EditorStore, id: NodeId): void {
  const { page, typing } = store.state
  if (typing?.id !== id) return
  const turned = markedParagraphEdits(page, id, typedParagraph(), store.registry, newId)
  if (!turned) return
  store.do('Turned a paragraph into what was marked', turned.edits, { select: turned.madeId })
  startTyping(store, turned.madeId)
}

/** Two dots alone in a paragraph open the shelf, where the name of what is to stand there is typed. */
function askForName(store: EditorStore, id: NodeId, shelf: ShelfControl): void {
  const { page, typing } = store.state
  const at = typedParagraph()
  if (typing?.id !== id || !takeNameMarkEdits(page, id, at, store.registry)) return
  // At once: the next letter is the first of the name.
  flushSync(() => shelf.openAfter(id, { id, at }))
}

function showWords(running: Editor | undefined, words: Words): void {
  if (running) showDocument(running, running.schema.nodeFromJSON(docOf(words)))
}

function wordsOf(control: string | undefined, value: Json | undefined): Words {
  if (control === 'formatted-line') return { form: 'line', value: (value ?? '') as unknown as Line }
  return control === 'words' || control === 'list'
    ? { form: control === 'list' ? 'list' : 'rich', value: (value ?? []) as unknown as RichText }
    : { form: 'plain', value: typeof value === 'string' ? value : '' }
}
