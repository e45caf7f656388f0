/** Files of other programs as pages: HTML and Markdown, told apart by their names. */
import rehypeParse from 'rehype-parse'
import remarkGfm from 'remark-gfm'
import remarkParse from 'remark-parse'
import remarkRehype from 'remark-rehype'
import { unified } from 'unified'
import type { Registry } from '../blocks/registry.ts'
import { validatePage } from '../blocks/validate-page.ts'
import type { NewId } from '../edits/compose.ts'
import { readHtml, type ReadPage } from './read-html.ts'

/** The endings of files that can be read. */
export const READ_ENDINGS = ['html', 'htm', 'xhtml', 'md', 'markdown', 'txt'] as const

/** Longer than any page that somebody wrote, in characters. */
const LONGEST_FILE = 5_000_000

/** A line with so many quotations or lists in each other takes parsers seconds, and nobody wrote it. */
const DEEP_LINE = /^(?:[ \t]*(?:>|[-*+][ \t]|\d{1,9}[.)][ \t])){200}/m

/** A file that can't be read, with a sentence for people. */
export class UnreadableFile extends Error {}

/**
 * The page that a file stands for: one ending in .html, .htm or .xhtml as HTML, one ending in .md, .markdown or .txt as Markdown
 * (CommonMark with the tables, tasks and strikethrough of GitHub Flavored Markdown). Throws `UnreadableFile` for any other, and
 * for one that is too long.
 */
export function readFile(name: string, text: string, registry: Registry, newId: NewId): ReadPage {
  if (text.length > LONGEST_FILE)
    throw new UnreadableFile(
      `“${name}” has more than five million characters. Nothing was read; split it into pages.`,
    )
  const ending = /\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? ''
  if (!(READ_ENDINGS as readonly string[]).includes(ending))
    throw new UnreadableFile(
      `“${name}” is neither HTML nor Markdown. Choose a file that ends in .html or .md.`,
    )
  const read = ending.includes('htm')
    ? readHtmlText(text, registry, newId)
    : readMarkdown(text, registry, newId)
  // A page and its blocks hold only so much.
  if (validatePage(read.page, registry).length > 0)
    throw new UnreadableFile(
      `“${name}” has more blocks than a page holds, or more in one of them than a block does. Nothing was read; split it into pages.`,
    )
  return { ...read, title: read.title || name.replace(/\.[^.]+$/, '') }
}

/** HTML as a page. */
export function readHtmlText(html: string, registry: Registry, newId: NewId): ReadPage {
  return notTooDeep(() => readHtml(unified().use(rehypeParse).parse(html), registry, newId))
}

/** The parsers go into elements by calling themselves, and fail where elements are nested thousands deep. */
function notTooDeep<T>(read: () => T): T {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    throw tooDeep()
  }
}

function tooDeep(): UnreadableFile {
  return new UnreadableFile('What is in this file is nested too deeply to be read. Nothing was changed.')
}

/** Markdown as a page. HTML in it is kept as text. */
export function readMarkdown(markdown: string, registry: Registry, newId: NewId): ReadPage {
  if (DEEP_LINE.test(markdown)) throw tooDeep()
  const processor = unified().use(remarkParse).use(remarkGfm).use(remarkRehype, { allowDangerousHtml: true })
  return notTooDeep(() => readHtml(processor.runSync(processor.parse(markdown)), registry, newId))
}
