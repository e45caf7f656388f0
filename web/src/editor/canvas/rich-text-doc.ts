/** Between our formatted text and the document of the text editor (ProseMirror's JSON). */
import type { JSONContent } from '@tiptap/core'
import {
  isFileLink,
  isPageLink,
  lineRuns,
  MARKS,
  normalizeRichText,
  toLine,
  type Line,
  type Link,
  type List,
  type ListItem,
  type RichText,
  type Run,
} from '@gullyline/core'

export function toEditorDoc(text: RichText): JSONContent {
  const blocks = text.map((block): JSONContent =>
    block.type === 'paragraph' ? paragraph(block.runs) : list(block),
  )
  return { type: 'doc', content: blocks.length > 0 ? blocks : [{ type: 'paragraph' }] }
}

/** One line as a document of inline text alone. */
export function toLineDoc(line: Line): JSONContent {
  return { type: 'doc', content: lineRuns(line).flatMap(inline) }
}

export function fromLineDoc(doc: JSONContent): Line {
  return toLine(runs(doc))
}

function paragraph(runs: readonly Run[]): JSONContent {
  return { type: 'paragraph', content: runs.flatMap(inline) }
}

function list(block: List): JSONContent {
  const content = block.items.map((item): JSONContent => ({
    type: 'listItem',
    content: [paragraph(item.runs), ...(item.list ? [list(item.list)] : [])],
  }))
  return { type: block.ordered ? 'orderedList' : 'bulletList', content }
}

function inline(run: Run): JSONContent[] {
  const marks = [
    ...(run.marks ?? []).map((type) => ({ type })),
    ...(run.link ? [{ type: 'link', attrs: { to: run.link } }] : []),
  ]
  const withMarks = marks.length > 0 ? { marks } : {}
  return run.text
    .split('\n')
    .flatMap((part, index): JSONContent[] => [
      ...(index > 0 ? [{ type: 'hardBreak' }] : []),
      ...(part === '' ? [] : [{ type: 'text', text: part, ...withMarks }]),
    ])
}

/** The text editor's document as ours. Whatever it holds that we have no word for is left out. */
export function fromEditorDoc(doc: JSONContent): RichText {
  return normalizeRichText(
    (doc.content ?? []).map((block) =>
      block.type === 'paragraph' ? { type: 'paragraph', runs: runs(block) } : readList(block),
    ),
  )
}

function readList(block: JSONContent): List {
  return { type: 'list', ordered: block.type === 'orderedList', items: (block.content ?? []).map(readItem) }
}

function readItem(item: JSONContent): ListItem {
  const inner = item.content?.find((child) => child.type === 'bulletList' || child.type === 'orderedList')
  const words = item.content?.find((child) => child.type === 'paragraph')
  return { runs: words ? runs(words) : [], ...(inner ? { list: readList(inner) } : {}) }
}

function runs(block: JSONContent): Run[] {
  return (block.content ?? []).map((one): Run => {
    if (one.type === 'hardBreak') return { text: '\n' }
    const marks = (one.marks ?? []).map((mark) => mark.type)
    const link = one.marks?.find((mark) => mark.type === 'link')?.attrs?.to as Link | undefined
    return {
      text: one.text ?? '',
      marks: MARKS.filter((mark) => marks.includes(mark)),
      ...(link ? { link } : {}),
    }
  })
}

/** A link as an address, for pasted and shown links. Links to pages and files show an id to the text editor alone. */
export function linkHref(link: Link): string {
  if (isFileLink(link)) return `#file-${link.file}`
  return isPageLink(link) ? `#page-${link.page}` : link.href
}
