import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { asked, choice, fields, icon, level, line, link, surface, words } from '../../kit/fields.ts'
import { isWordless } from '../prompts.ts'
import { iconElement, type IconName } from '../../kit/icons.ts'
import { richTextLinks, richTextWords, type RichText } from '../../page/rich-text.ts'
import type { Json } from '../../page/json.ts'
import type { Link } from '../../page/link.ts'
import { boxLook, boxLookFields, type BoxLook } from '../../kit/box-look.ts'
import { el } from '../../kit/element.ts'
import { linked } from '../../kit/linked.ts'
import { richTextElements } from '../../kit/rich-text-elements.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly icon: IconName
  readonly heading: string
  readonly level: number
  readonly words: RichText
  readonly link?: Link
}
interface LookValues extends BoxLook {
  readonly variant?: 'beside' | 'above' | 'disc'
}
interface Values {
  readonly align: 'start' | 'center'
}

/** A drawn sign with a heading and a few words. */
export const feature = defineBlock<Content, LookValues, Values>({
  kind: 'feature',
  version: 1,
  title: 'Icon and text',
  plural: 'icons and texts',
  about: 'An icon with a heading and some text',
  synonyms: ['feature', 'benefit', 'icon box', 'service', 'USP'],
  group: 'flow',
  purpose: 'text',
  content: fields(
    {
      icon: icon('Icon', 'star'),
      heading: asked('New point', line('Heading')),
      level: level('Heading level', 3),
      words: asked('Say it in a line or two.', words('Text')),
      link: link('Link'),
    },
    ['icon', 'heading', 'level', 'words'],
  ),
  look: fields({
    variant: choice('Variant', 'beside', {
      beside: 'Icon at the side',
      above: 'Icon on top',
      disc: 'Icon in a circle',
    }),
    surface: surface('Background'),
    ...boxLookFields(),
  }),
  arrangement: fields({ align: choice('Alignment', 'start', { start: 'Left', center: 'Centre' }) }),
  rules: [
    { selector: '.feature', declarations: { display: 'flex', gap: '.5em 1em', 'min-width': '0' } },
    {
      selector: '.feature .icon',
      declarations: {
        flex: 'none',
        width: '1.9rem',
        height: '1.9rem',
        fill: 'none',
        stroke: 'var(--accent)',
        'stroke-width': '1.6',
        'stroke-linecap': 'round',
        'stroke-linejoin': 'round',
      },
    },
    ...[2, 3, 4, 5, 6].map((at) => ({
      selector: `.feature h${at}`,
      declarations: { ...typeStyle('minor'), color: 'var(--title)', 'margin-bottom': '.25em' },
    })),
    { selector: '.feature p', declarations: typeStyle('body') },
    { selector: '.feature p+p', declarations: { 'margin-top': '.5em' } },
    { selector: '.feature a', declarations: { color: 'var(--link)', 'text-underline-offset': '.18em' } },
  ],
  arrange({ values, look }): ArrangedRules {
    const isUpright = look.variant !== undefined && look.variant !== 'beside'
    return {
      '': {
        ...boxLook(look),
        ...(look.surface ? { padding: 'var(--space-s)' } : {}),
        ...(isUpright ? { 'flex-direction': 'column' } : {}),
        'align-items': isUpright ? values.align : 'flex-start',
        'text-align': values.align,
      },
      ...(look.variant === 'disc'
        ? {
            '>.icon': {
              padding: '.75rem',
              width: '3.4rem',
              height: '3.4rem',
              'border-radius': '50%',
              background: 'color-mix(in srgb,var(--accent) 14%,transparent)',
            },
          }
        : {}),
    }
  },
  canvasRules: [{ selector: '.feature', declarations: { 'min-height': '2rem' } }],
  render({ content }, context) {
    const href = context.href(content.link)
    return el(
      'div',
      { className: ['feature'] },
      iconElement(content.icon),
      el(
        'div',
        {},
        context.hasPlace('heading') &&
          el(
            `h${Math.max(2, content.level)}`,
            {},
            linked(href, el('span', context.wordsOf('heading'), content.heading)),
          ),
        context.hasPlace('words') &&
          el('div', context.wordsOf('words'), richTextElements(content.words, context)),
      ),
    )
  },
  words: (content) => [content.heading, ...richTextWords(content.words)],
  facts: ({ heading: text, level: at, link: to, words: inside }) => ({
    heading: { level: Math.max(2, at), text },
    links: [...(to ? [{ words: text, link: to }] : []), ...richTextLinks(inside)],
  }),
  isEmpty: ({ heading: text, words: inside }) => text.trim() === '' && isWordless(inside as unknown as Json),
})
