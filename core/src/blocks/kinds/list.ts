import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { asked, choice, fields, list as listField, step } from '../../kit/fields.ts'
import type { Json } from '../../page/json.ts'
import { isWordless } from '../prompts.ts'
import { hasEmptyItem, richTextLinks, richTextWords, type RichText } from '../../page/rich-text.ts'
import { el } from '../../kit/element.ts'
import { richTextElements } from '../../kit/rich-text-elements.ts'
import { space, typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly words: RichText
}
interface LookValues {
  readonly variant?: 'signs' | 'ticks' | 'dashes' | 'lines'
}
interface Values {
  readonly gap: string
  readonly columns: '1' | '2' | '3'
}

/** A list that stands on its own. */
export const list = defineBlock<Content, LookValues, Values>({
  kind: 'list',
  version: 1,
  title: 'List',
  about: 'Points or steps with bullets, numbers, check marks or lines',
  synonyms: ['bullets', 'bullet points', 'checklist', 'numbered list', 'ul', 'ol', 'steps'],
  group: 'flow',
  purpose: 'lists',
  content: fields({ words: asked('First point', listField('Items')) }, ['words']),
  look: fields({
    variant: choice('Variant', 'signs', {
      signs: 'Bullets or numbers',
      ticks: 'Check marks',
      dashes: 'Dashes',
      lines: 'Lines',
    }),
  }),
  arrangement: fields({
    gap: step('Gap', 'space', 'xs'),
    columns: choice('Columns', '1', { 1: '1', 2: '2', 3: '3' }),
  }),
  rules: [
    { selector: '.list', declarations: typeStyle('body') },
    { selector: '.list ul', declarations: { 'padding-left': '1.2em' } },
    { selector: '.list ol', declarations: { 'padding-left': '1.4em' } },
    { selector: '.list li::marker', declarations: { color: 'var(--accent)' } },
    { selector: '.list li', declarations: { 'break-inside': 'avoid' } },
    { selector: '.list a', declarations: { color: 'var(--link)' } },
  ],
  arrange: ({ values, look: { variant = 'signs' } }): ArrangedRules => ({
    '>*': values.columns === '1' ? {} : { columns: values.columns, 'column-gap': 'var(--space-l)' },
    ' li': {
      'padding-block': `calc(${space(values.gap)}/2)`,
      ...(variant === 'lines' ? { 'border-bottom': '1px solid var(--line)' } : {}),
    },
    ' ul': {
      ...(variant === 'ticks' ? { 'list-style': '"✓  "' } : {}),
      ...(variant === 'dashes' ? { 'list-style': '"–  "' } : {}),
      ...(variant === 'lines' ? { 'list-style': 'none', 'padding-left': '0' } : {}),
    },
  }),
  render: ({ content }, context) =>
    el('div', { className: ['list'], ...context.wordsOf('words') }, richTextElements(content.words, context)),
  words: (content) => richTextWords(content.words),
  facts: (content) => ({
    links: richTextLinks(content.words),
    ...(hasEmptyItem(content.words) ? { empty: ['list item'] } : {}),
  }),
  isEmpty: (content) => isWordless(content.words as unknown as Json),
})
