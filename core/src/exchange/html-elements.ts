/** What the elements of HTML are to a page of ours (HTML standard, "The elements of HTML"). */
import type { Element } from 'hast'
import type { Mark } from '../page/rich-text.ts'

/** What elements around words become. */
export const MARKS_OF: Readonly<Record<string, Mark>> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  cite: 'italic',
  dfn: 'italic',
  var: 'italic',
  s: 'strike',
  del: 'strike',
  strike: 'strike',
  sub: 'subscript',
  sup: 'superscript',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
}
/** Says nothing to read, and is left out without a word. */
export const SILENT = new Set([
  'head',
  'title',
  'meta',
  'link',
  'base',
  'template',
  'wbr',
  'source',
  'track',
  'param',
  'area',
  'col',
  'colgroup',
])
/** Can't be taken over; nothing of it is text. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  script: 'A script',
  style: 'A style sheet in the page',
  noscript: 'What is shown without scripts',
  iframe: 'A page in the page',
  object: 'An embedded object',
  embed: 'An embedded object',
  canvas: 'A canvas',
  svg: 'A drawing',
  math: 'A formula',
  video: 'A video',
  audio: 'A sound',
  map: 'A picture map',
  dialog: 'A dialog',
  frameset: 'A frame set',
}
/** Its words are kept, and what could be done with it is not. */
export const INERT: Readonly<Record<string, string>> = {
  form: 'A form',
  input: 'A form field',
  select: 'A form field',
  textarea: 'A form field',
  button: 'A button',
  progress: 'A progress bar',
  meter: 'A meter',
}
/** Elements that words stand in by themselves (HTML standard, "Phrasing content"). */
export const PHRASING = new Set([
  ...Object.keys(MARKS_OF),
  ...'a abbr bdi bdo br data font ins label mark q ruby rt rp rb small span time u big center blink nobr wbr acronym'.split(
    ' ',
  ),
])
/** Begins a section of ours. */
export const SECTIONING = new Set(['section', 'article', 'hr'])

/** Whether an element is words among other words, with all that is in it. */
export function isPhrasing(node: Element): boolean {
  if (node.tagName === 'img') return false
  return (
    PHRASING.has(node.tagName) &&
    node.children.every((child) => child.type !== 'element' || isPhrasing(child))
  )
}
