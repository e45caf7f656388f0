/** Plain text that is pasted: what was written as Markdown keeps its meaning, and so do rows of a spreadsheet. */
import { DOMParser as DocumentParser, type ResolvedPos, type Slice } from '@tiptap/pm/model'
import type { EditorView } from '@tiptap/pm/view'

let convert: ((text: string) => string) | undefined

/** Fetches what reads Markdown, which opening a page does not wait for. */
export async function loadMarkdown(): Promise<void> {
  const { default: MarkdownIt } = await import('markdown-it')
  // Raw HTML is let through, since what comes out is read as HTML that was pasted is: nothing that runs gets further.
  const markdown = new MarkdownIt({ html: true, linkify: false, typographer: false })
  convert = (text) => withTasks(markdown.render(text))
}

/** GitHub Flavored Markdown 0.29, 5.3: "Task list items". */
function withTasks(html: string): string {
  return html.replace(/<li>(\s*<p>)?\[([ xX])\] /g, (_all, start: string | undefined, mark: string) => {
    return `<li>${start ?? ''}${mark === ' ' ? '☐' : '☑'} `
  })
}

/**
 * Markdown (CommonMark 0.31.2, with the tables, strikethrough and tasks of GitHub Flavored Markdown) as HTML. Undefined
 * until `loadMarkdown` is through.
 */
export function markdownToHtml(text: string): string | undefined {
  return convert?.(text)
}

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

/** HTML for a field that holds one line: its paragraphs and lines with a space between them. */
export function asOneLine(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html')
  for (const line of body.querySelectorAll('br')) line.replaceWith(' ')
  for (const line of body.querySelectorAll(LINES)) line.append(' ')
  for (const unseen of body.querySelectorAll('style, script, title')) unseen.remove()
  const holder = document.createElement('span')
  holder.textContent = body.textContent.replace(/\s+/g, ' ').trim()
  return holder.innerHTML
}

/** Rows of a spreadsheet, as programs copy them as text: cells with tabs between them. Undefined for other text. */
export function rowsOfText(text: string): readonly (readonly string[])[] | undefined {
  const lines = text.replace(/(\r?\n)+$/, '').split(/\r?\n/)
  const rows = lines.map((line) => line.split('\t').map((cell) => cell.trim()))
  const width = rows[0]!.length
  return width > 1 && rows.every((row) => row.length === width) ? rows : undefined
}

/** The rows as an HTML table. */
export function tableHtml(rows: readonly (readonly string[])[]): string {
  const table = document.createElement('table')
  for (const row of rows) {
    const line = table.insertRow()
    for (const cell of row) line.insertCell().textContent = cell
  }
  return table.outerHTML
}

function paragraph(words: string): HTMLElement {
  const made = document.createElement('p')
  made.textContent = words
  return made
}
