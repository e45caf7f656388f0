import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { stripedWithout, toldEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, line, link, media, step, toggle } from '../../kit/fields.ts'
import type { Link } from '../../page/link.ts'
import { ALIGNED_BOX, alignBox, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { cropStyles, croppedShare, focusStyle, ratioOf, wholeInBox, type Focused } from '../../kit/crop.ts'
import { clipShape, clipTo } from '../../kit/clip-shape.ts'
import type { Declarations } from '../../kit/css-rules.ts'
import { el } from '../../kit/element.ts'
import { linked } from '../../kit/linked.ts'
import { altOf, pictureElement } from '../../kit/picture-element.ts'
import { radius, typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly media?: Focused
  readonly alt?: string
  readonly decoration?: boolean
  readonly caption?: string
  readonly link?: Link
}
interface LookValues {
  readonly radius?: string
  readonly shape?: string
}
interface Values {
  readonly ratio: string
  readonly fit: 'cover' | 'contain'
  readonly most: keyof typeof MOST
  readonly align: Alignment
}

/** The widest that a picture gets, in px. */
const MOST = { none: undefined, small: 240, medium: 420, large: 640 } as const

/** A picture. Words stand beside it as alternative text or caption, or it is marked as decoration. */
export const picture = defineBlock<Content, LookValues, Values>({
  kind: 'picture',
  version: 1,
  title: 'Picture',
  about: 'One picture, with an optional caption',
  synonyms: ['image', 'photo', 'img', 'illustration', 'figure', 'graphic'],
  group: 'flow',
  purpose: 'pictures',
  usesSpot: ['width', 'early'],
  content: fields({
    media: media('Picture'),
    alt: { ...line('Alternative text'), isLong: true, unless: 'decoration' },
    decoration: toggle('Decorative (no alternative text)', false),
    caption: { ...line('Caption'), isLong: true },
    link: link('Link'),
  }),
  look: fields({ radius: step('Corners', 'radius', 'none'), shape: clipShape }),
  arrangement: fields({
    ratio: choice('Ratio', 'natural', {
      natural: 'Original',
      '1/1': '1 : 1',
      '4/3': '4 : 3',
      '3/2': '3 : 2',
      '16/9': '16 : 9',
      '5/2': '5 : 2',
    }),
    fit: choice('Fit', 'cover', { cover: 'Fill (crop)', contain: 'Show whole' }),
    most: choice('Max width', 'none', {
      none: 'None',
      small: `${MOST.small} px`,
      medium: `${MOST.medium} px`,
      large: `${MOST.large} px`,
    }),
    align: alignmentField(),
  }),
  isPicture: true,
  rules: [
    { selector: '.picture', declarations: { 'min-width': '0' } },
    { selector: '.picture>a', declarations: { display: 'block', 'text-decoration': 'none' } },
    // The height attribute keeps the space while the picture loads; the ratio alone says how high it is.
    { selector: '.picture img', declarations: { width: '100%', height: 'auto' } },
    {
      selector: '.picture figcaption',
      declarations: { ...typeStyle('note'), color: 'var(--quiet)', 'margin-top': '.6em' },
    },
  ],
  arrangedBy: ['media'],
  arrange({ values, content, look }): ArrangedRules {
    const corners: Declarations = {
      ...(look.radius && look.radius !== 'none' ? { 'border-radius': radius(look.radius) } : {}),
      ...clipTo(look.shape),
    }
    const ratio = values.ratio === 'natural' ? undefined : ratioOf(values.ratio)
    const isWhole = ratio !== undefined && values.fit === 'contain'
    const most = MOST[values.most]
    const self: Declarations = {
      ...(most === undefined ? {} : { width: '100%', 'max-width': `${most}px`, ...ALIGNED_BOX }),
      ...alignBox(values.align),
    }
    const withRatio: Declarations = ratio === undefined ? {} : { '--ratio': String(ratio) }
    const { crop, focus } = content.media ?? {}
    if (crop) {
      const { box, picture: inside } = cropStyles(crop, focus)
      return {
        '': isWhole ? { ...self, display: 'flow-root' } : { ...withRatio, ...self },
        ' picture': { ...box, ...(isWhole ? wholeInBox(crop, ratio) : {}), ...corners },
        ' img': inside,
      }
    }
    return {
      '': { ...withRatio, ...self },
      ' img': {
        ...(ratio === undefined ? {} : { 'aspect-ratio': 'var(--ratio)', 'object-fit': values.fit }),
        // A gallery gives ratios to pictures that have none of their own.
        ...(content.media ? focusStyle(content.media) : {}),
        ...corners,
      },
    }
  },
  ownWidth: ({ width, values }) => {
    const most = MOST[values.most]
    return most === undefined ? undefined : `min(${width},${most}px)`
  },
  pictureShare({ values, content: { media: shown = {} }, ratio }) {
    const own = values.ratio === 'natural' ? undefined : ratioOf(values.ratio)
    if (ratio !== undefined || own === undefined || values.fit === 'cover')
      return croppedShare(shown, ratio ?? own)
    return shown.crop
      ? (Number.parseFloat(wholeInBox(shown.crop, own).width!) / 100) * croppedShare(shown)
      : 1
  },
  canvasRules: [
    stripedWithout('.picture:not(:has(img))'),
    { selector: '.picture:not(:has(img))', declarations: { display: 'grid', 'place-items': 'center' } },
    toldEmpty('.picture:not(:has(img))::before', 'No picture yet'),
  ],
  render(node, context) {
    const { media: reference, caption, decoration, alt } = node.content
    const shown = reference && context.picture(reference.id)
    const image =
      shown &&
      pictureElement(shown, {
        alt: altOf(shown, { alt, decoration }),
        sizes: context.spot.pictureSizes,
        early: context.spot.early,
      })
    const href = context.href(node.content.link)
    const pressed = image && linked(href, image)
    return caption
      ? el(
          'figure',
          { className: ['picture'] },
          pressed,
          el('figcaption', context.wordsOf('caption'), caption),
        )
      : el('div', { className: ['picture'] }, pressed)
  },
  words: (content) => (content.caption ? [content.caption] : []),
  facts: ({ media: reference, alt, decoration = false, link: to }) => ({
    ...(reference ? { pictures: [{ id: reference.id, alt, decoration }] } : {}),
    ...(to ? { links: [{ words: alt ?? '', link: to, isPicture: true }] } : {}),
  }),
  isEmpty: (content) => !content.media,
})
