import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { choice, fields, line, media, step, toggle } from '../fields.ts'
import {
  cropStyles,
  croppedShare,
  focusStyle,
  frameShape,
  wholeInFrame,
  type Focused,
} from '../../render/crop.ts'
import type { Declarations } from '../../render/css-rules.ts'
import { el } from '../../render/element.ts'
import { altOf, pictureElement } from '../../render/picture-element.ts'
import { radius, typeStyle } from '../../render/token-css.ts'

interface Content {
  readonly media?: Focused
  readonly alt?: string
  readonly decoration?: boolean
  readonly caption?: string
}
interface LookValues {
  readonly radius?: string
}
interface Values {
  readonly ratio: string
  readonly fit: 'cover' | 'contain'
}

/** A picture. Words stand beside it as alternative text or caption, or it is marked as decoration. */
export const picture = defineBlock<Content, LookValues, Values>({
  kind: 'picture',
  version: 1,
  title: 'Picture',
  about: 'A picture with alternative text and, if you like, a caption',
  group: 'flow',
  usesSpot: ['width', 'early'],
  content: fields({
    media: media('Picture'),
    alt: { ...line('Alternative text'), isLong: true, unless: 'decoration' },
    decoration: toggle('Only decoration', false),
    caption: { ...line('Caption'), isLong: true },
  }),
  look: fields({ radius: step('Corners', 'radius', 'none') }),
  arrangement: fields({
    ratio: choice('Frame', 'natural', {
      natural: 'Own',
      '1/1': '1 : 1',
      '4/3': '4 : 3',
      '3/2': '3 : 2',
      '16/9': '16 : 9',
      '5/2': '5 : 2',
    }),
    fit: choice('In the frame', 'cover', { cover: 'Fill', contain: 'Whole' }),
  }),
  rules: [
    { selector: '.picture', declarations: { 'min-width': '0' } },
    // The height attribute keeps the room while the picture loads; the frame alone says how high it is.
    { selector: '.picture img', declarations: { width: '100%', height: 'auto' } },
    {
      selector: '.picture figcaption',
      declarations: { ...typeStyle('note'), color: 'var(--quiet)', 'margin-top': '.6em' },
    },
  ],
  arrangedBy: ['media'],
  arrange({ values, content, look }): ArrangedRules {
    const corners: Declarations =
      look.radius && look.radius !== 'none' ? { 'border-radius': radius(look.radius) } : {}
    const frame = values.ratio === 'natural' ? undefined : frameShape(values.ratio)
    const isWhole = frame !== undefined && values.fit === 'contain'
    const framed: Declarations = frame === undefined ? {} : { '--frame': String(frame) }
    const { crop, focus } = content.media ?? {}
    if (crop) {
      const { box, picture: inside } = cropStyles(crop, focus)
      return {
        '': isWhole ? { display: 'flow-root' } : framed,
        ' picture': { ...box, ...(isWhole ? wholeInFrame(crop, frame) : {}), ...corners },
        ' img': inside,
      }
    }
    return {
      '': framed,
      ' img': {
        ...(frame === undefined ? {} : { 'aspect-ratio': 'var(--frame)', 'object-fit': values.fit }),
        // A gallery gives frames to pictures that have none of their own.
        ...(content.media ? focusStyle(content.media) : {}),
        ...corners,
      },
    }
  },
  pictureShare({ values, content: { media: shown = {} }, frame }) {
    const own = values.ratio === 'natural' ? undefined : frameShape(values.ratio)
    if (frame !== undefined || own === undefined || values.fit === 'cover')
      return croppedShare(shown, frame ?? own)
    return shown.crop
      ? (Number.parseFloat(wholeInFrame(shown.crop, own).width!) / 100) * croppedShare(shown)
      : 1
  },
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
    return caption
      ? el('figure', { className: ['picture'] }, image, el('figcaption', context.wordsOf('caption'), caption))
      : el('div', { className: ['picture'] }, image)
  },
  words: (content) => (content.caption ? [content.caption] : []),
  facts: ({ media: reference, alt, decoration = false }) =>
    reference ? { pictures: [{ id: reference.id, alt, decoration }] } : {},
  isEmpty: (content) => !content.media,
})
