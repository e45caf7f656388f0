import type { Line } from '../page/line.ts'
import type { List, Mark, RichText, Run } from '../page/rich-text.ts'
import type { RenderContext } from './render-context.ts'
import { el, text, type ElementContent } from './element.ts'

const MARK_TAGS: Readonly<Record<Exclude<Mark, 'accent' | 'quiet'>, string>> = {
  bold: 'strong',
  italic: 'em',
  strike: 's',
  subscript: 'sub',
  superscript: 'sup',
  code: 'code',
}

/** Formatted text as elements: p, ul, ol. */
export function richTextElements(value: RichText, context: Pick<RenderContext, 'href'>): ElementContent[] {
  return value.map((block) =>
    block.type === 'paragraph' ? el('p', {}, runElements(block.runs, context)) : listElement(block, context),
  )
}

function listElement(list: List, context: Pick<RenderContext, 'href'>): ElementContent {
  const items = list.items.map((item) =>
    el('li', {}, runElements(item.runs, context), item.list && listElement(item.list, context)),
  )
  return el(list.ordered ? 'ol' : 'ul', {}, items)
}

/** A line as what stands inside its element. */
export function lineElements(line: Line, context: Pick<RenderContext, 'href'>): ElementContent[] {
  if (typeof line === 'string') return line === '' ? [] : [text(line)]
  return runElements(line, context)
}

/** Words with marks and links. A link that leads nowhere leaves its words. */
function runElements(runs: readonly Run[], context: Pick<RenderContext, 'href'>): ElementContent[] {
  const elements: ElementContent[] = []
  for (const run of runs) {
    let inner = withBreaks(run.text)
    // The first mark is the outermost.
    for (const mark of run.marks?.toReversed() ?? NO_MARKS) inner = [markElement(mark, inner)]
    const href = run.link && context.href(run.link)
    if (href === undefined) elements.push(...inner)
    else elements.push(el('a', { href }, inner))
  }
  return elements
}

const NO_MARKS: readonly Mark[] = []

function markElement(mark: Mark, inner: readonly ElementContent[]): ElementContent {
  if (mark === 'accent' || mark === 'quiet') return el('span', { className: [`in-${mark}`] }, inner)
  return el(MARK_TAGS[mark], {}, inner)
}

function withBreaks(value: string): ElementContent[] {
  if (!value.includes('\n')) return value === '' ? [] : [text(value)]
  return value.split('\n').flatMap((part, index): ElementContent[] => {
    const words = part === '' ? [] : [text(part)]
    return index === 0 ? words : [el('br', {}), ...words]
  })
}
