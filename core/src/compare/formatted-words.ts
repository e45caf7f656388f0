/** Text with its formatting told in words, for two texts that differ in nothing else. */
import { isFileLink, isPageLink, type Link } from '../page/link.ts'
import type { List, ListItem, Mark, RichText, Run } from '../page/rich-text.ts'

const MARK_WORDS: Readonly<Record<Mark, string>> = {
  bold: 'bold',
  italic: 'italic',
  strike: 'struck through',
  subscript: 'subscript',
  superscript: 'superscript',
  code: 'code',
  accent: 'accent colour',
  quiet: 'muted colour',
}

/** Returns a line for each paragraph and list item, with what its words have after them: “dusk (bold)”. */
export function formattedText(text: RichText): string {
  const lines = text.flatMap((block) =>
    block.type === 'paragraph' ? [formattedRuns(block.runs) || 'An empty line'] : listLines(block, ''),
  )
  return lines.join('\n') || 'No text'
}

export function formattedRuns(runs: readonly Run[]): string {
  return runs.map(runWithMarks).join('')
}

function listLines({ ordered, items }: List, indent: string): string[] {
  return items.flatMap((item: ListItem, i) => [
    `${indent}${ordered ? `${i + 1}.` : '•'} ${formattedRuns(item.runs)}`,
    ...(item.list ? listLines(item.list, `${indent}  `) : []),
  ])
}

function runWithMarks({ text, marks = [], link }: Run): string {
  const told = [...marks.map((mark) => MARK_WORDS[mark]), ...(link ? [`link to ${target(link)}`] : [])]
  return told.length === 0 ? text : `${text} (${told.join(', ')})`
}

function target(link: Link): string {
  if (isPageLink(link)) return `page ${link.page}${link.anchor === undefined ? '' : ` at ${link.anchor}`}`
  return isFileLink(link) ? `file ${link.file}` : link.href
}
