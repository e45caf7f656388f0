import { defineBlock } from '../define-block.ts'
import { asked, choice, fields, line, link, toggle } from '../../kit/fields.ts'
import type { Link } from '../../page/link.ts'
import { el } from '../../kit/element.ts'
import { ALIGNED_BOX } from '../../kit/alignment.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly text: string
  readonly link?: Link
}
interface LookValues {
  readonly variant?: keyof typeof VARIANTS
}
interface Values {
  readonly fill: boolean
}

const VARIANTS = {
  solid: { background: 'var(--accent)', color: 'var(--on-accent)', 'border-color': 'var(--accent)' },
  line: { background: 'none', color: 'var(--ink)', 'border-color': 'currentColor' },
  quiet: { background: 'none', color: 'var(--link)', 'border-color': 'transparent', 'padding-inline': '0' },
} as const

/** A link that stands out: one thing to do next. */
export const button = defineBlock<Content, LookValues, Values>({
  kind: 'button',
  version: 1,
  title: 'Button',
  about: 'A link that stands out, for the next thing to do',
  synonyms: ['link', 'CTA', 'call to action', 'action'],
  group: 'flow',
  purpose: 'links',
  content: fields({ text: asked('Read more', line('Text')), link: link('Link') }, ['text']),
  look: fields({
    variant: choice('Variant', 'solid', { solid: 'Solid', line: 'Outline', quiet: 'Text only' }),
  }),
  arrangement: fields({ fill: toggle('Full width', false) }),
  rules: [
    {
      selector: '.button',
      declarations: {
        ...typeStyle('body'),
        'font-weight': '600',
        display: 'block',
        padding: '.7em 1.25em',
        border: '1px solid',
        'border-radius': 'var(--radius-s)',
        'text-align': 'center',
        ...ALIGNED_BOX,
        'text-decoration': 'none',
      },
    },
    {
      selector: '.button:hover',
      declarations: { 'text-decoration': 'underline', 'text-underline-offset': '.2em' },
    },
  ],
  arrange: ({ values, look }) => ({
    '': { ...VARIANTS[look.variant ?? 'solid'], width: values.fill ? '100%' : 'fit-content' },
  }),
  render(node, context) {
    const href = context.href(node.content.link)
    return el(
      'a',
      { className: ['button'], ...(href === undefined ? {} : { href }), ...context.wordsOf('text') },
      node.content.text,
    )
  },
  words: (content) => [content.text],
  facts: ({ text: words, link: to }) => ({ links: [{ words, link: to }] }),
  isEmpty: (content) => content.text.trim() === '',
})
