import { screenRegistry, writeHtml, writeJson, writeMarkdown, type WrittenFormat } from '@gullyline/core'
import { savedContext, savedHtml, type SavedPage } from '../pages/saved-html.ts'
import { saveText } from './save-text.ts'

const ENDINGS: Readonly<Record<WrittenFormat, readonly [ending: string, type: string]>> = {
  html: ['html', 'text/html'],
  markdown: ['md', 'text/markdown'],
  json: ['json', 'application/json'],
}

/** Has the browser save what a page says, in a format of other programs. Gives the name of the file. */
export function saveWritten(saved: SavedPage, format: WrittenFormat): string {
  const { title, description } = saved.page
  const facts = { title, description, language: saved.site.language }
  const text =
    format === 'json'
      ? `${JSON.stringify(writeJson(saved.opened.document, facts, screenRegistry, savedContext(saved)), undefined, 2)}\n`
      : format === 'html'
        ? writeHtml(savedHtml(saved), facts)
        : writeMarkdown(savedHtml(saved))
  const [ending, type] = ENDINGS[format]
  const plain = title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
  const name = `${plain || 'page'}.${ending}`
  saveText(name, type, text)
  return name
}
