import { defineBlock } from '../define-block.ts'
import { isWordless } from '../prompts.ts'
import { asked, choice, fields, stepOr, words, type Inherits } from '../../kit/fields.ts'
import {
  hasEmptyItem,
  richTextLinks,
  richTextWords,
  type Paragraph,
  type RichText,
} from '../../page/rich-text.ts'
import type { Json } from '../../page/json.ts'
import { ALIGNED_BOX, alignBox, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { el } from '../../kit/element.ts'
import { richTextElements } from '../../kit/rich-text-elements.ts'
import { typeAt, typeLook, typeLookFields, type TypeLook } from '../../kit/type-look.ts'

interface Content {
  readonly words: RichText
}
interface LookValues extends TypeLook {
  readonly variant?: keyof typeof VARIANTS
}
interface Values {
  readonly step: string
  readonly align: Alignment
}

interface Usual extends TypeLook {
  readonly step: string
}

const VARIANTS = {
  plain: { step: 'body' },
  lead: { step: 'lead' },
  note: { step: 'note', colour: 'quiet' },
  label: { step: 'note', weight: 'strong', colour: 'accent' },
} as const satisfies Readonly<Record<string, Usual>>

function byVariant(key: keyof Usual): Inherits {
  const gives = Object.entries<Usual>(VARIANTS).flatMap(([variant, usual]) => {
    const value = usual[key]
    return value === undefined ? [] : [[variant, value] as const]
  })
  return { key: 'variant', gives: Object.fromEntries(gives) }
}

/** Formatted text: paragraphs and lists. */
export const text = defineBlock<Content, LookValues, Values>({
  kind: 'text',
  version: 1,
  title: 'Text',
  about: 'Paragraphs and lists, with bold, italic and links',
  synonyms: ['paragraph', 'body', 'rich text', 'copy', 'words'],
  group: 'flow',
  purpose: 'text',
  content: fields({ words: asked('Write here.', words('Text')) }, ['words']),
  look: fields({
    variant: choice('Variant', 'plain', {
      plain: 'Plain',
      lead: 'Lead',
      note: 'Small print',
      label: 'Label',
    }),
    ...typeLookFields({ weight: byVariant('weight'), colour: byVariant('colour') }),
  }),
  arrangement: fields({
    step: stepOr('Text size', 'type', ['variant', 'Default'], byVariant('step')),
    align: alignmentField(),
  }),
  rules: [
    { selector: '.text', declarations: { ...ALIGNED_BOX, 'max-width': '50ch' } },
    { selector: '.text>*+*', declarations: { 'margin-top': '.75em' } },
    { selector: '.text ul', declarations: { 'padding-left': '1.2em' } },
    { selector: '.text ol', declarations: { 'padding-left': '1.2em' } },
    { selector: '.text li+li', declarations: { 'margin-top': '.35em' } },
    { selector: '.text li::marker', declarations: { color: 'var(--quiet)' } },
    { selector: '.text sub,.text sup', declarations: { 'line-height': '0' } },
    {
      selector: '.text code',
      declarations: { 'font-family': 'ui-monospace,monospace', 'font-size': '.92em' },
    },
    {
      selector: '.text a',
      declarations: {
        color: 'var(--link)',
        'text-underline-offset': '.18em',
        'text-decoration-thickness': '1px',
      },
    },
  ],
  arrange({ values, look }) {
    const { variant = 'plain' } = look
    const usual: Usual = VARIANTS[variant]
    return {
      '': {
        ...typeAt(values.step === 'variant' ? usual.step : values.step, usual.step),
        ...typeLook(look, usual),
        ...(variant === 'label' ? { 'letter-spacing': '.12em', 'text-transform': 'uppercase' } : {}),
        ...alignBox(values.align),
      },
    }
  },
  render: (node, context) =>
    el(
      'div',
      { className: ['text'], ...context.wordsOf('words') },
      richTextElements(node.content.words, context),
    ),
  words: (content) => richTextWords(content.words),
  facts: (content) => ({
    // Read when it is asked for: an outline looks at every text for the sake of its headings.
    get links() {
      return richTextLinks(content.words)
    },
    ...(hasEmptyItem(content.words) ? { empty: ['list item'] } : {}),
  }),
  isEmpty: (content) => isWordless(content.words as unknown as Json),
  turning: {
    field: 'words',
    isText: true,
    toText: (content) => content.words,
    joined: (content, more) => withText(content.words, more) as unknown as Json,
  },
})

/** Two texts as one: the first paragraph of the second goes on in the last one of the first. */
function withText(first: RichText, second: RichText): RichText {
  const [last, next] = [first.at(-1), second[0]]
  if (last?.type !== 'paragraph' || next?.type !== 'paragraph') return [...first, ...second]
  const both: Paragraph = { type: 'paragraph', runs: [...last.runs, ...next.runs] }
  return [...first.slice(0, -1), both, ...second.slice(1)]
}
