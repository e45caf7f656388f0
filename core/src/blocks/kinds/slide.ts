import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { stripedWithout } from '../../kit/canvas-rules.ts'
import { fields, line, link, media, toggle } from '../../kit/fields.ts'
import type { Link } from '../../page/link.ts'
import { croppedShare, filledBox, ratioOf, type Focused } from '../../kit/crop.ts'
import { el } from '../../kit/element.ts'
import { linked } from '../../kit/linked.ts'
import { altOf, pictureElement } from '../../kit/picture-element.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly media?: Focused
  readonly alt?: string
  readonly decoration?: boolean
  readonly title?: string
  readonly caption?: string
  readonly link?: Link
}

const RATIO = ratioOf('16/9')

/** One picture of several, with a title and a caption. */
export const slide = defineBlock<Content>({
  kind: 'slide',
  version: 1,
  title: 'Slide',
  about: 'One picture of several, with a title and a caption',
  synonyms: ['carousel item', 'slider item'],
  group: 'item',
  usesSpot: ['width', 'early', 'holder'],
  content: fields({
    media: media('Picture'),
    alt: { ...line('Alternative text'), isLong: true, unless: 'decoration' },
    decoration: toggle('Decorative (no alternative text)', false),
    title: line('Title'),
    caption: { ...line('Caption'), isLong: true },
    link: link('Link'),
  }),
  look: fields({}),
  rules: [
    { selector: '.slide', declarations: { 'min-width': '0' } },
    {
      selector: '.slide img',
      declarations: {
        width: '100%',
        height: 'auto',
        'aspect-ratio': String(RATIO),
        'object-fit': 'cover',
        'border-radius': 'var(--radius-m)',
      },
    },
    {
      selector: '.slide strong',
      declarations: { ...typeStyle('minor'), color: 'var(--title)', display: 'block', 'margin-top': '.6em' },
    },
    { selector: '.slide a', declarations: { color: 'var(--link)' } },
    {
      selector: '.slide p',
      declarations: { ...typeStyle('note'), color: 'var(--quiet)', 'margin-top': '.25em' },
    },
  ],
  arrangedBy: ['media'],
  arrange({ content: { media: shown } }): ArrangedRules {
    const { box, picture } = filledBox(shown ?? {}, RATIO, 'var(--radius-m)')
    return { ' picture': box, ' img': picture }
  },
  pictureShare: ({ content }) => croppedShare(content.media ?? {}, RATIO),
  canvasRules: [stripedWithout('.slide:not(:has(img))')],
  render({ content }, context) {
    const { media: reference, alt, decoration, title, caption } = content
    const shown = reference && context.picture(reference.id)
    const href = context.href(content.link)
    const words = context.wordsOf('title')
    const isFirst = context.spot.holder?.index === 0
    return el(
      'li',
      { className: ['slide'] },
      shown &&
        pictureElement(shown, {
          alt: altOf(shown, { alt, decoration }),
          sizes: context.spot.pictureSizes,
          // Slides after the first are out of sight.
          early: isFirst && context.spot.early,
          isShownAtOnce: isFirst,
        }),
      context.hasPlace('title') && el('strong', {}, linked(href, el('span', words, title))),
      context.hasPlace('caption') && el('p', context.wordsOf('caption'), caption),
    )
  },
  words: ({ title, caption }) => [...(title ? [title] : []), ...(caption ? [caption] : [])],
  facts: ({ media: reference, alt, decoration = false, title, link: to }) => ({
    ...(reference ? { pictures: [{ id: reference.id, alt, decoration }] } : {}),
    ...(to && title ? { links: [{ words: title, link: to }] } : {}),
  }),
  isEmpty: (content) => !content.media,
})
