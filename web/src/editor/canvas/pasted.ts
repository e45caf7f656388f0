/** What is on the clipboard or dropped, as what it means for a page. */
import { meantAddress } from '../details/meant-address.ts'
import { rowsOfText, tableHtml } from './paste.ts'

/** More letters than this are no page that anybody reads, and would keep the browser busy for long. */
const MOST_PASTED = 1_000_000

export type Pasted =
  | { readonly type: 'nothing' }
  | { readonly type: 'too-much'; readonly words: string }
  /** Pictures as files, such as a screenshot. */
  | { readonly type: 'pictures'; readonly files: readonly File[] }
  | { readonly type: 'other-files'; readonly words: string }
  /** An address and nothing else. */
  | { readonly type: 'address'; readonly href: string; readonly text: string }
  | { readonly type: 'html'; readonly html: string }
  | { readonly type: 'text'; readonly text: string }

/**
 * Reads a clipboard. Office programs put a picture of the cells beside them, and browsers an `img` element beside a
 * copied picture: text comes before files, unless there is none.
 */
export function readPasted(data: DataTransfer): Pasted {
  const [html, text] = [data.getData('text/html'), data.getData('text/plain')]
  const files = [...data.files]
  const pictures = files.filter(({ type }) => type.startsWith('image/'))
  if (Math.max(html.length, text.length) > MOST_PASTED) return { type: 'too-much', words: tooMuch() }
  if (text.trim() === '' && pictures.length > 0) return { type: 'pictures', files: pictures }
  if (text.trim() === '' && files.length > 0) return { type: 'other-files', words: noFiles(files) }
  const href = addressIn(text)
  if (href !== undefined) return { type: 'address', href, text: text.trim() }
  const rows = html === '' ? rowsOfText(text) : undefined
  if (rows) return { type: 'html', html: tableHtml(rows) }
  if (html !== '') return { type: 'html', html }
  return text === '' ? { type: 'nothing' } : { type: 'text', text }
}

/** A web, e-mail or phone address that stands alone; undefined for other text. */
function addressIn(text: string): string | undefined {
  const trimmed = text.trim()
  if (trimmed === '' || /\s/.test(trimmed)) return undefined
  return /^(https?:\/\/|mailto:|tel:|www\.)/i.test(trimmed) ? meantAddress(trimmed) : undefined
}

function tooMuch(): string {
  return `Not pasted: this is too much at once. At most ${MOST_PASTED / 1_000_000} million characters can be pasted`
}

export function noFiles(files: readonly File[]): string {
  const names = files.map(({ name }) => `“${name}”`).join(', ')
  return `Not added: ${names}. Pictures can be put on a page; add other files under Files, and link to them`
}
