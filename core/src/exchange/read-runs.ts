/** Words of a foreign page as runs of formatted text. */
import type { Element, ElementContent } from 'hast'
import type { Mark, Run } from '../page/rich-text.ts'
import { isPhrasing } from './html-elements.ts'

export function run(text: string, marks: readonly Mark[], link: Run['link'] | undefined): Run {
  return { text, ...(marks.length > 0 ? { marks } : {}), ...(link ? { link } : {}) }
}

/** Runs with the white space that a browser shows (CSS Text 3, "White Space Processing"): none around them or a break. */
export function tidyRuns(runs: readonly Run[]): Run[] {
  let isAfterSpace = true
  const tidy = runs.map((one) => {
    const text = [...one.text.replace(/[ \t\r\f\u200b]+/g, ' ')].filter((sign) => {
      const isSpace = sign === ' ' || (sign === '\n' && one.text !== '\n')
      const isKept = !isSpace || !isAfterSpace
      isAfterSpace = isSpace || sign === '\n'
      return isKept
    })
    return { ...one, text: text.join('').replace(one.text === '\n' ? /$^/ : /\n/g, ' ') }
  })
  const last = tidy.findLastIndex(({ text }) => text.trim() !== '')
  return tidy
    .slice(0, last + 1)
    .map((one, i) => ({ ...one, text: i === last ? one.text.trimEnd() : one.text }))
    .filter(({ text }) => text !== '')
}

/** Bold from end to end is what headings are by themselves. */
export function withoutBold(runs: readonly Run[]): readonly Run[] {
  if (!runs.every(({ marks }) => marks?.includes('bold'))) return runs
  return runs.map(({ marks, ...rest }) => {
    const others = marks!.filter((mark) => mark !== 'bold')
    return others.length > 0 ? { ...rest, marks: others } : rest
  })
}

/** A task of a list (GitHub Flavored Markdown 0.29, 5.3). */
export function checkbox({ properties }: Element): Run[] {
  if (properties.type !== 'checkbox') return []
  return [{ text: properties.checked === true ? '☑' : '☐' }]
}

/** The content of something where paragraphs are lines: with a break between two. */
export function withBreaks(nodes: readonly ElementContent[]): ElementContent[] {
  const isBlock = (node: ElementContent): boolean => node.type === 'element' && !isPhrasing(node)
  let count = 0
  return nodes.flatMap((node): ElementContent[] => {
    if (!isBlock(node) || count++ === 0) return [node]
    return [{ type: 'element', tagName: 'br', properties: {}, children: [] }, node]
  })
}
