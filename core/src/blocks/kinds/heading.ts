import type { Json } from '../../page/json.ts'
import { lineLinks, lineRuns, lineWords, toLine, trimLine, type Line } from '../../page/line.ts'
import { defineBlock } from '../define-block.ts'
import { asked, anchor, fields, formattedLine, level, stepOr } from '../../kit/fields.ts'
import { alignText, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { el } from '../../kit/element.ts'
import { lineElements } from '../../kit/rich-text-elements.ts'
import { typeAt, typeLook, typeLookFields, type TypeLook } from '../../kit/type-look.ts'

interface Content {
  readonly text: Line
  readonly level: number
  readonly anchor?: string
}
interface Values {
  readonly step: string
  readonly align: Alignment
}

/** The size a heading takes when nobody chose one, by level. */
const STEP_OF_LEVEL: Readonly<Record<number, string>> = {
  1: 'display',
  2: 'headline',
  3: 'title',
  4: 'minor',
  5: 'lead',
  6: 'body',
}

/** A heading. Its level is meaning, its size is look: neither changes the other once a size is chosen. */
export const heading = defineBlock<Content, TypeLook, Values>({
  kind: 'heading',
  version: 1,
  title: 'Heading',
  about: 'A title for what follows, of any level and size',
  synonyms: ['title', 'headline', 'header', 'h1', 'h2', 'h3'],
  group: 'flow',
  purpose: 'text',
  usesSpot: ['anchor'],
  content: fields(
    {
      text: asked('New heading', formattedLine('Text')),
      level: level('Heading level', 2),
      anchor: anchor('Anchor'),
    },
    ['text', 'level'],
  ),
  look: fields(typeLookFields()),
  arrangement: fields({
    step: stepOr('Text size', 'type', ['level', 'Default'], { key: 'level', gives: STEP_OF_LEVEL }),
    align: alignmentField(),
  }),
  rules: [{ selector: '.heading', declarations: { color: 'var(--title)', 'text-wrap': 'balance' } }],
  arrangedBy: ['level'],
  arrange({ values, content, look }) {
    const usual = STEP_OF_LEVEL[content.level]!
    const type = typeAt(values.step === 'level' ? usual : values.step, usual)
    return { '': { ...type, ...typeLook(look), ...alignText(values.align) } }
  },
  render({ content }, context) {
    // The page's own heading is where the page begins; nobody jumps to it.
    const id = content.anchor ?? (content.level > 1 ? context.spot.anchor : undefined)
    return el(
      `h${content.level}`,
      { className: ['heading'], ...(id ? { id } : {}), ...context.wordsOf('text') },
      lineElements(content.text, context),
    )
  },
  words: (content) => [lineWords(content.text)],
  facts: ({ level: at, text: words, anchor: name }) => ({
    heading: { level: at, text: lineWords(words) },
    links: lineLinks(words),
    anchored: true,
    ...(name ? { anchor: name } : {}),
  }),
  isEmpty: (content) => lineWords(content.text).trim() === '',
  turning: {
    field: 'text',
    isLine: true,
    toText: (content) => [{ type: 'paragraph', runs: lineRuns(content.text) }],
    ofParagraph({ runs }, atLevel) {
      const said = trimLine(toLine(runs))
      return lineWords(said) === '' ? undefined : { text: said as unknown as Json, level: atLevel }
    },
    // "## " (CommonMark 0.31.2, "ATX headings").
    ofMark: (mark) => (/^#{1,6}$/.test(mark) ? { level: mark.length } : undefined),
    joined(content, [first, ...more]) {
      if (more.length > 0 || first?.type === 'list') return undefined
      return trimLine(
        toLine([...lineRuns(content.text), { text: ' ' }, ...(first?.runs ?? [])]),
      ) as unknown as Json
    },
  },
})
