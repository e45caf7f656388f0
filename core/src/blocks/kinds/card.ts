import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { asked, choice, fields, level, line, link, media, surface, toggle, words } from '../../kit/fields.ts'
import { isWordless } from '../prompts.ts'
import { richTextLinks, richTextWords, type RichText } from '../../page/rich-text.ts'
import type { Json } from '../../page/json.ts'
import type { Link } from '../../page/link.ts'
import { croppedShare, filledBox, focusStyle, ratioOf, type Focused } from '../../kit/crop.ts'
import { boxLook, boxLookFields, type BoxLook } from '../../kit/box-look.ts'
import { el } from '../../kit/element.ts'
import { altOf, pictureElement } from '../../kit/picture-element.ts'
import { linked } from '../../kit/linked.ts'
import { richTextElements } from '../../kit/rich-text-elements.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly media?: Focused
  readonly alt?: string
  readonly decoration?: boolean
  readonly heading: string
  readonly level: number
  readonly words: RichText
  readonly link?: Link
  readonly action?: string
}
interface LookValues extends BoxLook {
  readonly variant?: 'upright' | 'lying' | 'over'
}
interface Values {
  readonly ratio: string
}

/**
 * A picture, a heading, text and a link as one thing. All of it can be pressed, and still it holds one link whose name
 * is the heading: the link's own box is stretched over the card, so that words can be read and selected by themselves.
 */
export const card = defineBlock<Content, LookValues, Values>({
  kind: 'card',
  version: 1,
  title: 'Card',
  about: 'A picture, a heading and some text; the whole card is one link',
  synonyms: ['teaser', 'tile', 'box', 'panel', 'linked card'],
  group: 'flow',
  purpose: 'links',
  usesSpot: ['width', 'early'],
  content: fields(
    {
      heading: asked('New card', line('Heading')),
      level: level('Heading level', 3),
      words: asked('Two or three lines on what this is.', words('Text')),
      link: link('Link'),
      action: line('Link text'),
      media: media('Picture'),
      alt: { ...line('Alternative text'), isLong: true, unless: 'decoration' },
      decoration: toggle('Decorative (no alternative text)', false),
    },
    ['heading', 'level', 'words'],
  ),
  look: fields({
    variant: choice('Variant', 'upright', {
      upright: 'Vertical',
      lying: 'Horizontal',
      over: 'Text over picture',
    }),
    surface: surface('Background'),
    ...boxLookFields(),
  }),
  arrangement: fields({
    ratio: choice('Picture ratio', '3/2', {
      '1/1': '1 : 1',
      '4/3': '4 : 3',
      '3/2': '3 : 2',
      '16/9': '16 : 9',
    }),
  }),
  rules: [
    {
      selector: '.card',
      declarations: { position: 'relative', display: 'flex', 'min-width': '0', overflow: 'hidden' },
    },
    { selector: '.card img', declarations: { width: '100%', height: '100%', 'object-fit': 'cover' } },
    {
      selector: '.card>div',
      declarations: {
        display: 'flex',
        'flex-direction': 'column',
        gap: 'var(--space-xs)',
        padding: 'var(--space-s)',
        flex: '1',
        'min-width': '0',
      },
    },
    ...[2, 3, 4, 5, 6].map((at) => ({
      selector: `.card h${at}`,
      declarations: { ...typeStyle('minor'), color: 'var(--title)', 'text-wrap': 'balance' },
    })),
    { selector: '.card p', declarations: typeStyle('body') },
    { selector: '.card p+p', declarations: { 'margin-top': '.5em' } },
    { selector: '.card a', declarations: { color: 'inherit', 'text-decoration': 'none' } },
    { selector: '.card a::after', declarations: { content: '""', position: 'absolute', inset: '0' } },
    {
      selector: '.card:has(a):hover',
      declarations: { 'text-decoration': 'none', 'box-shadow': '0 0 0 2px var(--accent)' },
    },
    { selector: '.card a:focus-visible', declarations: { outline: 'none' } },
    {
      selector: '.card:focus-within',
      declarations: { outline: '2px solid var(--link)', 'outline-offset': '2px' },
    },
    {
      selector: '.card .more',
      declarations: {
        ...typeStyle('note'),
        'font-weight': '600',
        color: 'var(--link)',
        'margin-top': 'auto',
      },
    },
    { selector: '.card .more::after', declarations: { content: '" →"' } },
  ],
  arrangedBy: ['media'],
  arrange({ values, content, look }): ArrangedRules {
    const variant = look.variant ?? 'upright'
    const shown = content.media ?? {}
    if (variant === 'over')
      return {
        '': { ...boxLook(look), 'aspect-ratio': values.ratio, 'align-items': 'end' },
        '>picture': { position: 'absolute', inset: '0' },
        '>picture img': focusStyle(shown),
        '>div': { position: 'relative', background: 'color-mix(in srgb,var(--paper) 88%,transparent)' },
      }
    const card = boxLook(look)
    if (variant === 'lying')
      return {
        '': { ...card, 'flex-direction': 'row' },
        '>picture': { flex: '0 0 38%' },
        '>picture img': focusStyle(shown),
      }
    const { box, picture } = filledBox(shown, ratioOf(values.ratio))
    return {
      '': { ...card, 'flex-direction': 'column' },
      '>picture': { 'aspect-ratio': values.ratio, ...box },
      '>picture img': picture,
    }
  },
  pictureShare({ values, content, look: { variant = 'upright' } }) {
    if (variant === 'upright') return croppedShare(content.media ?? {}, ratioOf(values.ratio))
    return variant === 'lying' ? 0.38 : 1
  },
  canvasRules: [{ selector: '.card:not(:has(picture))>div', declarations: { 'min-height': '2rem' } }],
  render({ content }, context) {
    const { media: reference, alt, decoration, action } = content
    const shown = reference && context.picture(reference.id)
    const href = context.href(content.link)
    return el(
      'article',
      { className: ['card'] },
      shown &&
        pictureElement(shown, {
          alt: altOf(shown, { alt, decoration }),
          sizes: context.spot.pictureSizes,
          early: context.spot.early,
        }),
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
          el('div', context.wordsOf('words'), richTextElements(content.words, { href: () => undefined })),
        action &&
          el('span', { className: ['more'], ariaHidden: 'true', ...context.wordsOf('action') }, action),
      ),
    )
  },
  words: ({ heading: title, words: inside, action }) => [
    title,
    ...richTextWords(inside),
    ...(action ? [action] : []),
  ],
  facts: ({
    heading: text,
    level: at,
    link: to,
    media: reference,
    alt,
    decoration = false,
    words: inside,
  }) => ({
    heading: { level: Math.max(2, at), text },
    links: [...(to ? [{ words: text, link: to }] : []), ...richTextLinks(inside)],
    ...(reference ? { pictures: [{ id: reference.id, alt, decoration }] } : {}),
  }),
  isEmpty: ({ heading: text, words: inside, media: reference }) =>
    text.trim() === '' && isWordless(inside as unknown as Json) && !reference,
})
