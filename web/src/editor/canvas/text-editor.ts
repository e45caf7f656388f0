/** The text editor that works in place on an element of the page: Tiptap with just what our formatted text can hold. */
import { Editor, Mark, mergeAttributes, type AnyExtension } from '@tiptap/core'
import { Slice } from '@tiptap/pm/model'
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
import { safeHref, type Json, type Link, type RichText } from '@gullyline/core'
import type { TypingStart } from '../editor-state.ts'
import { withMendedLists } from '../pasted-lists.ts'
import { asOneLine, loadMarkdown, parseOneLine, parsePlainText } from './paste.ts'
import { fromEditorDoc, linkHref, toEditorDoc } from './rich-text-doc.ts'
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

export const RICH: AnyExtension[] = [
  DocumentNode,
  Paragraph,
  Text,
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
const PLAIN: AnyExtension[] = [DocumentNode.extend({ content: 'text*' }), Text]

/** The words of a field: formatted, or one line. */
export type Words =
  | { readonly form: 'rich' | 'list'; readonly value: RichText }
  | { readonly form: 'plain'; readonly value: string }

export interface TextEditorOptions {
  readonly element: HTMLElement
  readonly words: Words
  readonly label: string
  readonly start?: TypingStart | undefined
  readonly onChange: (value: Json) => void
  /** Keys that may mean something for blocks beside this one; true when it did. */
  readonly onEdgeKey?: (key: 'Enter' | 'Backspace') => boolean
  /** Called for what is pasted; true when it was taken care of. */
  readonly onPaste?: (editor: Editor, event: ClipboardEvent) => boolean
}

const EXTENSIONS = { rich: RICH, list: LIST, plain: PLAIN } as const

/** Starts typing in an element, which must be empty and stays the text editor's until `destroy`. */
export function startTextEditor(options: TextEditorOptions): Editor {
  const { element, words, label, onChange, onEdgeKey, onPaste } = options
  // It is there before anybody has pasted; where it can't be had, pasted text stays as it was written.
  if (words.form !== 'plain') loadMarkdown().catch(() => undefined)
  const editor: Editor = new Editor({
    element: { mount: element },
    injectCSS: false,
    extensions: EXTENSIONS[words.form],
    content: docOf(words),
    editorProps: {
      attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': String(words.form !== 'plain') },
      handleDOMEvents: { beforeinput: insertLetter },
      handleKeyDown: (view, event) => {
        if (event.shiftKey || event.ctrlKey || event.metaKey || event.altKey || view.composing) return false
        const shown = selectionOnScreen(view)
        if (!shown || shown.anchor !== shown.head) return false
        const at = shown.head
        const isAtStart = at <= 1
        const isAtEnd = words.form === 'plain' && at === view.state.doc.content.size
        if (event.key === 'Backspace' && isAtStart) return onEdgeKey?.('Backspace') ?? false
        if (event.key === 'Enter' && words.form === 'plain') return (isAtEnd && onEdgeKey?.('Enter')) || true
        return false
      },
      handlePaste: (_view, event) => onPaste?.(editor, event) ?? false,
      clipboardTextParser: words.form === 'plain' ? parseOneLine : parsePlainText,
      // Paragraphs that become one line have a space between them.
      transformPastedHTML: words.form === 'plain' ? asOneLine : withMendedLists,
      transformPasted: asWholeList,
    },
    onUpdate: () => onChange(readWords(editor, words.form)),
  })
  // At once: the next key may already be on its way, and would be lost if the focus came a frame later.
  placeCaret(editor, options.start)
  editor.view.focus()
  return editor
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
  const { from, to } = view.state.selection
  const insert = () => view.state.tr.insertText(data)
  const isTaken = view.someProp('handleTextInput', (handle) => handle(view, from, to, data, insert))
  if (!isTaken) view.dispatch(insert().scrollIntoView())
  return true
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
  if (words.form !== 'plain') return toEditorDoc(words.value)
  return { type: 'doc', content: words.value === '' ? [] : [{ type: 'text', text: words.value }] }
}

export function readWords(editor: Editor, form: Words['form']): Json {
  if (form !== 'plain') return fromEditorDoc(editor.getJSON()) as unknown as Json
  return editor.state.doc.textContent.replace(/[\u0000-\u001f\u007f]+/g, ' ')
}
