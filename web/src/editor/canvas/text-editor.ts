/** The text editor that works in place on an element of the page: Tiptap with just what our formatted text can hold. */
import { Editor, Mark, mergeAttributes, type AnyExtension } from '@tiptap/core'
import { Slice } from '@tiptap/pm/model'
import { AllSelection, TextSelection } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'
import { Bold } from '@tiptap/extension-bold'
import { Document as DocumentNode } from '@tiptap/extension-document'
import { HardBreak } from '@tiptap/extension-hard-break'
import { Code } from '@tiptap/extension-code'
import { Italic } from '@tiptap/extension-italic'
import { BulletList, ListItem, ListKeymap, OrderedList } from '@tiptap/extension-list'
import { Paragraph } from '@tiptap/extension-paragraph'
import { Strike } from '@tiptap/extension-strike'
import { Text } from '@tiptap/extension-text'
import { safeHref, type Json, type Line, type Link, type RichText } from '@gullyline/core'
import { CARET_KEYS, press, SELECT_ALL, type EarlyInput } from '../../ui/early-keys.ts'
import type { TypingStart } from '../session/editor-state.ts'
import { withMendedLists } from './pasted-lists.ts'
import { asOneLine, parseOneLine, parsePlainText } from './paste-into-text.ts'
import { loadMarkdown } from './paste.ts'
import { fromEditorDoc, fromLineDoc, linkHref, toEditorDoc, toLineDoc } from './rich-text-doc.ts'
import { atSelectionOnScreen, placeCaret, selectionOnScreen } from './text-selection.ts'

/** A link whose target is ours: a page or an address. Pasted links that are not allowed lose their link. */
const LinkMark = Mark.create({
  name: 'link',
  inclusive: false,
  addAttributes: () => ({ to: { default: null, rendered: false } }),
  parseHTML: () => [
    {
      tag: 'a[href]',
      getAttrs: (element: HTMLElement) => {
        const href = safeHref(element.getAttribute('href') ?? '')
        return href === undefined ? false : { to: { href } }
      },
    },
  ],
  renderHTML: ({ mark, HTMLAttributes }) => {
    const to = mark.attrs.to as Link | null
    return ['a', mergeAttributes(HTMLAttributes, to ? { href: safeHref(linkHref(to)) ?? '#' } : {}), 0]
  },
})

/** A mark that is an element and nothing more, below the line or above it. */
function plainMark(name: string, tag: 'sub' | 'sup'): Mark {
  return Mark.create({
    name,
    excludes: name === 'subscript' ? 'superscript' : 'subscript',
    parseHTML: () => [{ tag }],
    renderHTML: ({ HTMLAttributes }) => [tag, HTMLAttributes, 0],
  })
}

/** Words in one of the two colours that every surface has beside its own ink. */
function colourMark(name: 'accent' | 'quiet'): Mark {
  return Mark.create({
    name,
    excludes: name === 'accent' ? 'quiet' : 'accent',
    parseHTML: () => [{ tag: `span.in-${name}` }],
    renderHTML: ({ HTMLAttributes }) => ['span', mergeAttributes(HTMLAttributes, { class: `in-${name}` }), 0],
  })
}

/** What words can have, wherever they stand. */
const LOOKS: AnyExtension[] = [
  Bold,
  Italic,
  Strike,
  plainMark('subscript', 'sub'),
  plainMark('superscript', 'sup'),
  // Ours may stand with other marks: a command in a link, or in bold.
  Code.extend({ excludes: '' }),
  colourMark('accent'),
  colourMark('quiet'),
  LinkMark,
]

export const RICH: AnyExtension[] = [
  DocumentNode,
  Paragraph,
  Text,
  ...LOOKS,
  HardBreak,
  BulletList,
  OrderedList,
  // A paragraph, then at most one list: what an item of ours holds.
  ListItem.extend({ content: 'paragraph (bulletList|orderedList)?' }),
  ListKeymap,
]
/** One list and nothing else. */
const LIST: AnyExtension[] = [DocumentNode.extend({ content: 'bulletList|orderedList' }), ...RICH.slice(1)]
/** One line: the whole document is text, so it can stand in a heading or a link. */
const OneLine = DocumentNode.extend({ content: 'text*' })
const PLAIN: AnyExtension[] = [OneLine, Text]
const LINE: AnyExtension[] = [OneLine, Text, ...LOOKS]

/** The words of a field: formatted, or one line of formatted or of plain words. */
export type Words =
  | { readonly form: 'rich' | 'list'; readonly value: RichText }
  | { readonly form: 'line'; readonly value: Line }
  | { readonly form: 'plain'; readonly value: string }

export type EdgeKey = 'Enter' | 'Backspace' | 'Tab' | 'Shift+Tab'

export interface TextEditorOptions {
  readonly element: HTMLElement
  readonly words: Words
  readonly label: string
  readonly start?: TypingStart | undefined
  readonly onChange: (value: Json) => void
  /** Keys that may mean something for blocks beside this one; true when it did. */
  readonly onEdgeKey?: (key: EdgeKey) => boolean
  /** Called for what is pasted; true when it was taken care of. */
  readonly onPaste?: (editor: Editor, event: ClipboardEvent) => boolean
}

const EXTENSIONS = { rich: RICH, list: LIST, line: LINE, plain: PLAIN } as const

/** Starts typing in an element, which must be empty and stays the text editor's until `destroy`. */
export function startTextEditor(options: TextEditorOptions): Editor {
  const { element, words, label, onChange, onEdgeKey, onPaste } = options
  const isLine = words.form === 'plain' || words.form === 'line'
  // It is there before anybody has pasted; where it can't be had, pasted text stays as it was written.
  if (!isLine) loadMarkdown().catch(() => undefined)
  const editor: Editor = new Editor({
    element: { mount: element },
    injectCSS: false,
    extensions: EXTENSIONS[words.form],
    content: docOf(words),
    editorProps: {
      attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': String(!isLine) },
      handleDOMEvents: { beforeinput: insertLetter },
      handleKeyDown: (view, event) => {
        if (event.key === 'Tab') return stepOut(editor, event, onEdgeKey)
        if (event.shiftKey || event.ctrlKey || event.metaKey || event.altKey || view.composing) return false
        const shown = selectionOnScreen(view)
        if (!shown || shown.anchor !== shown.head) return false
        const at = shown.head
        const isAtStart = at <= 1
        const isAtEnd = isLine && at === view.state.doc.content.size
        if (event.key === 'Backspace' && isAtStart) return onEdgeKey?.('Backspace') ?? false
        if (event.key === 'Enter' && isLine) return (isAtEnd && onEdgeKey?.('Enter')) || true
        return false
      },
      handlePaste: (_view, event) => onPaste?.(editor, event) ?? false,
      clipboardTextParser: isLine ? parseOneLine : parsePlainText,
      // Paragraphs that become one line have a space between them.
      transformPastedHTML: isLine ? asOneLine : withMendedLists,
      transformPasted: asWholeList,
    },
    onUpdate: () => onChange(readWords(editor, words.form)),
  })
  // At once: the next key may already be on its way, and would be lost if the focus came a frame later.
  placeCaret(editor, options.start)
  editor.view.focus()
  return editor
}

/** Tab leads to the next text and Shift Tab to the one before, as in a form; in a list they set how deep an item stands. */
function stepOut(editor: Editor, event: KeyboardEvent, onEdgeKey: TextEditorOptions['onEdgeKey']): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || editor.isActive('listItem')) return false
  return onEdgeKey?.(event.shiftKey ? 'Shift+Tab' : 'Tab') ?? false
}

/**
 * Plain letters are put into the document here and drawn from it. Left to the browser, its own editing would lay out the
 * page some 200 times for each (measured in Chromium on a page of 1,000 blocks: 19 of 26 ms from key to paint).
 * Composing, corrections and everything else stay the browser's.
 */
function insertLetter(view: EditorView, event: InputEvent): boolean {
  const { data } = event
  if (event.inputType !== 'insertText' || data === null || event.isComposing || view.composing) return false
  event.preventDefault()
  const start = atSelectionOnScreen(view)
  if (start.selectionSet) view.dispatch(start)
  typeText(view, data)
  return true
}

function typeText(view: EditorView, text: string): void {
  const { from, to } = view.state.selection
  const insert = () => view.state.tr.insertText(text)
  const isTaken = view.someProp('handleTextInput', (handle) => handle(view, from, to, text, insert))
  if (!isTaken) view.dispatch(insert().scrollIntoView())
}

/** Types what was pressed before the text editor was there. */
export function takeEarly({ view }: Editor, input: EarlyInput): void {
  if ('text' in input) {
    for (const letter of input.text) typeText(view, letter)
    return
  }
  // It ends the typing, which is not the text editor's to do.
  if (input.key === 'Escape') return press(view.dom, input.key)
  if (CARET_KEYS.has(input.key)) return moveCaret(view, input.key)
  const event = new KeyboardEvent('keydown', { key: input.key, bubbles: true, cancelable: true })
  const isTaken = view.someProp('handleKeyDown', (handle) => handle(view, event))
  const { $from, from, empty } = view.state.selection
  const isInLine = empty && $from.parentOffset > 0
  // Within a line the browser deletes the letter, and is not asked here.
  if (!isTaken && input.key === 'Backspace' && isInLine) view.dispatch(view.state.tr.delete(from - 1, from))
}

/** Moves the caret as a browser does for keys of people. */
function moveCaret(view: EditorView, key: string): void {
  const { doc, selection } = view.state
  if (key === SELECT_ALL) return view.dispatch(view.state.tr.setSelection(new AllSelection(doc)))
  const { $from, $to, empty } = selection
  const at: Readonly<Record<string, number>> = {
    Home: $from.start(),
    End: $to.end(),
    ArrowLeft: empty ? $from.pos - 1 : $from.pos,
    ArrowRight: empty ? $to.pos + 1 : $to.pos,
  }
  const to = Math.max(0, Math.min(doc.content.size, at[key]!))
  view.dispatch(view.state.tr.setSelection(TextSelection.near(doc.resolve(to), key === 'ArrowLeft' ? -1 : 1)))
}

/** A list of several items stays one where it is pasted beside words, whose line its first item would else become. */
function asWholeList(slice: Slice, { state }: EditorView): Slice {
  const [first] = slice.content.content
  const isList = first?.type.name === 'bulletList' || first?.type.name === 'orderedList'
  const { $from } = state.selection
  const isInList = $from.depth > 1
  return isList && countItems(slice) > 1 && !isInList ? new Slice(slice.content, 0, 0) : slice
}

function countItems({ content }: Slice): number {
  let items = 0
  content.descendants((node) => void (items += node.type.name === 'listItem' ? 1 : 0))
  return items
}

export function docOf(words: Words) {
  if (words.form === 'line') return toLineDoc(words.value)
  if (words.form !== 'plain') return toEditorDoc(words.value)
  return { type: 'doc', content: words.value === '' ? [] : [{ type: 'text', text: words.value }] }
}

export function readWords(editor: Editor, form: Words['form']): Json {
  if (form === 'line') return fromLineDoc(editor.getJSON()) as unknown as Json
  if (form !== 'plain') return fromEditorDoc(editor.getJSON()) as unknown as Json
  return editor.state.doc.textContent.replace(/[\u0000-\u001f\u007f]+/g, ' ')
}
