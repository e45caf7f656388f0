/** Plain text that is pasted: what was written as Markdown keeps its meaning. */
import { DOMParser as DocumentParser, type ResolvedPos, type Slice } from '@tiptap/pm/model'
import type { EditorView } from '@tiptap/pm/view'

let convert: ((text: string) => string) | undefined

/** Fetches what reads Markdown, which opening a page does not wait for. */
export async function loadMarkdown(): Promise<void> {
  const { HtmlRenderer, Parser } = await import('commonmark')
  const parser = new Parser()
  // Raw HTML in the text is left out, and links that run lose their target: CommonMark's own "safe" mode.
  const renderer = new HtmlRenderer({ safe: true })
  convert = (text) => renderer.render(parser.parse(text))
}

/**
 * Markdown (CommonMark 0.31.2) as HTML. Headings, rules and quotes become what the words in them are. Undefined until
 * `loadMarkdown` is through.
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

function paragraph(words: string): HTMLElement {
  const made = document.createElement('p')
  made.textContent = words
  return made
}
