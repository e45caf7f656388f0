import { defineBlock } from '../define-block.ts'
import { asked, choice, fields, line, words } from '../../kit/fields.ts'
import { isWordless } from '../prompts.ts'
import { paragraphs, richTextLinks, richTextWords, type RichText } from '../../page/rich-text.ts'
import type { Json } from '../../page/json.ts'
import { el } from '../../kit/element.ts'
import { richTextElements } from '../../kit/rich-text-elements.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly words: RichText
  readonly who?: string
  readonly source?: string
}
interface LookValues {
  readonly variant?: keyof typeof VARIANTS
}
interface Values {
  readonly align: 'start' | 'center'
}

const VARIANTS = {
  bar: { ...typeStyle('lead'), 'border-left': '3px solid var(--accent)', 'padding-left': '1.1em' },
  large: { ...typeStyle('title'), color: 'var(--title)' },
  plain: typeStyle('lead'),
} as const

/** What somebody said, and who. */
export const quote = defineBlock<Content, LookValues, Values>({
  kind: 'quote',
  version: 1,
  title: 'Quote',
  about: 'A quotation with its author and source',
  synonyms: ['blockquote', 'citation', 'pull quote'],
  group: 'flow',
  purpose: 'text',
  content: fields(
    {
      words: asked('What somebody said.', words('Text')),
      who: line('Author'),
      source: line('Source'),
    },
    ['words'],
  ),
  look: fields({ variant: choice('Variant', 'bar', { bar: 'Bar', large: 'Large', plain: 'Plain' }) }),
  arrangement: fields({ align: choice('Alignment', 'start', { start: 'Left', center: 'Centre' }) }),
  rules: [
    { selector: '.quote', declarations: { 'max-width': '60ch' } },
    { selector: '.quote blockquote', declarations: { margin: '0', 'text-wrap': 'pretty' } },
    { selector: '.quote p+p', declarations: { 'margin-top': '.6em' } },
    {
      selector: '.quote figcaption',
      declarations: { ...typeStyle('note'), color: 'var(--quiet)', 'margin-top': '.9em' },
    },
    { selector: '.quote a', declarations: { color: 'var(--link)' } },
    { selector: '.quote cite::before', declarations: { content: '" · "', 'font-style': 'normal' } },
    { selector: '.quote cite:first-child::before', declarations: { content: 'none' } },
  ],
  arrange: ({ values, look }) => ({
    '': {
      'text-align': values.align,
      ...(values.align === 'center' ? { 'margin-inline': 'auto' } : {}),
    },
    '>blockquote': VARIANTS[look.variant ?? 'bar'],
  }),
  render({ content }, context) {
    const { who, source } = content
    return el(
      'figure',
      { className: ['quote'] },
      el('blockquote', context.wordsOf('words'), richTextElements(content.words, context)),
      (context.hasPlace('who') || context.hasPlace('source')) &&
        el(
          'figcaption',
          {},
          context.hasPlace('who') && el('span', context.wordsOf('who'), who),
          context.hasPlace('source') && el('cite', context.wordsOf('source'), source),
        ),
    )
  },
  words: ({ words: said, who, source }) => [
    ...richTextWords(said),
    ...(who ? [who] : []),
    ...(source ? [source] : []),
  ],
  facts: ({ words: said }) => ({ links: richTextLinks(said) }),
  isEmpty: (content) => isWordless(content.words as unknown as Json),
  turning: {
    field: 'words',
    // Who said it, and where, is a paragraph of its own.
    toText: ({ words: said, who, source }) => [
      ...said,
      ...paragraphs(...[[who, source].filter((one) => one?.trim()).join(', ')].filter(Boolean)),
    ],
    ofParagraph: (paragraph) =>
      richTextWords([paragraph]).join('').trim() === ''
        ? undefined
        : { words: [paragraph] as unknown as Json },
    // "> " (CommonMark 0.31.2, "Block quotes").
    ofMark: (mark) => (mark === '>' ? {} : undefined),
  },
})
