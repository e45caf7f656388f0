/** What is pasted while text is typed, as a piece of the text editor's document. */
import { DOMParser as DocumentParser, type ResolvedPos, type Slice } from '@tiptap/pm/model'
import type { EditorView } from '@tiptap/pm/view'
import { markdownToHtml } from './paste.ts'

/** Text as a piece of the editor's document: what the schema has no place for leaves its words. */
export function parsePlainText(text: string, $context: ResolvedPos, plain: boolean, view: EditorView): Slice {
  // Parsed apart from the page: nothing that the text names, such as a picture, is fetched.
  const html = plain ? undefined : markdownToHtml(text)
  const holder = new DOMParser().parseFromString(html ?? '', 'text/html').body
  if (html === undefined) for (const line of text.split(/\n{2,}/)) holder.append(paragraph(line))
  return DocumentParser.fromSchema(view.state.schema).parseSlice(holder, {
    preserveWhitespace: false,
    context: $context,
  })
}

/** Text for a field that holds one line: lines are joined by spaces. */
export function parseOneLine(text: string, $context: ResolvedPos, _plain: boolean, view: EditorView): Slice {
  const holder = document.createElement('div')
  holder.textContent = text.trim().replace(/\s*[\r\n]+\s*/g, ' ')
  return DocumentParser.fromSchema(view.state.schema).parseSlice(holder, {
    preserveWhitespace: true,
    context: $context,
  })
}

/** Elements that stand on lines of their own. */
const LINES = 'p, li, h1, h2, h3, h4, h5, h6, div, tr, td, th, dt, dd, blockquote, pre'

/** HTML for a field that holds one line: its paragraphs and lines with a space between them. Marks and links stay. */
export function asOneLine(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html')
  for (const unseen of body.querySelectorAll('style, script, title')) unseen.remove()
  for (const line of body.querySelectorAll('br')) line.replaceWith(' ')
  for (const line of body.querySelectorAll(LINES)) line.replaceWith(' ', ...line.childNodes, ' ')
  return body.innerHTML.replace(/\s+/g, ' ').trim()
}

function paragraph(words: string): HTMLElement {
  const made = document.createElement('p')
  made.textContent = words
  return made
}
