import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { stripedBehind } from '../../kit/canvas-rules.ts'
import { anchor, choice, fields, line, media, step, surface, toggle } from '../../kit/fields.ts'
import { heightField, HEIGHTS, type Height, SHADES, shadeField, type Shade } from '../../kit/backdrop.ts'
import { focusStyle, type Focused } from '../../kit/crop.ts'
import { bandRules, bandWidth } from '../../kit/band.ts'
import { el } from '../../kit/element.ts'
import { altOf, pictureElement } from '../../kit/picture-element.ts'
import { space } from '../../kit/token-css.ts'

interface Content {
  readonly media?: Focused
  readonly alt?: string
  readonly decoration?: boolean
  readonly anchor?: string
}
interface LookValues {
  readonly surface?: string
  readonly variant?: 'over' | 'panel' | 'beside'
  readonly shade?: Shade
}
interface Values {
  readonly height: Height
  readonly place: 'start' | 'center' | 'end'
  readonly room: string
  readonly gap: string
}

/** A large picture with words laid over it. The words are blocks, and never part of the picture. */
export const hero = defineBlock<Content, LookValues, Values>({
  kind: 'hero',
  version: 1,
  title: 'Hero',
  plural: 'heroes',
  about: 'A large picture with text over it, for the top of a page',
  synonyms: ['banner', 'header image', 'cover', 'jumbotron', 'masthead', 'header'],
  group: 'section',
  purpose: 'pictures',
  usesSpot: ['early'],
  content: fields({
    media: media('Picture'),
    alt: { ...line('Alternative text'), isLong: true, unless: 'decoration' },
    decoration: toggle('Decorative (no alternative text)', false),
    anchor: anchor('Anchor'),
  }),
  look: fields({
    surface: surface('Colours'),
    variant: choice('Variant', 'over', {
      over: 'Text over picture',
      panel: 'Text on a panel',
      beside: 'Text beside picture',
    }),
    shade: shadeField(),
  }),
  arrangement: fields({
    height: heightField('tall'),
    place: choice('Align text', 'end', { start: 'Top', center: 'Middle', end: 'Bottom' }),
    room: step('Padding', 'space', 'xl'),
    gap: step('Gap', 'space', 's'),
  }),
  slots: { blocks: { title: 'Text', allow: ['flow'] } },
  rules: [
    ...bandRules('hero'),
    { selector: '.hero>picture', declarations: { position: 'absolute', inset: '0', 'grid-column': '1/-1' } },
    { selector: '.hero>picture img', declarations: { width: '100%', height: '100%', 'object-fit': 'cover' } },
    { selector: '.hero>picture::after', declarations: { content: '""', position: 'absolute', inset: '0' } },
    {
      selector: '.hero>div',
      declarations: { display: 'flex', 'flex-direction': 'column', 'min-width': '0', 'max-width': '46rem' },
    },
  ],
  arrangedBy: ['media'],
  arrange({ values, content, look: { variant = 'over', shade } }): ArrangedRules {
    const minHeight = HEIGHTS[values.height]
    return {
      '': {
        ...bandWidth('broad'),
        'padding-block': space(values.room),
        ...(minHeight ? { 'min-height': minHeight } : {}),
        'align-items': values.place,
      },
      '>div': {
        gap: space(values.gap),
        ...(variant === 'panel'
          ? { padding: 'var(--space-m)', background: 'var(--paper)', 'border-radius': 'var(--radius-m)' }
          : {}),
        ...(variant === 'beside' ? { 'max-width': 'min(46rem,48%)' } : {}),
      },
      ...(content.media ? { '>picture img': focusStyle(content.media) } : {}),
      ...(content.media && variant === 'over'
        ? { '>picture::after': { background: SHADES[shade ?? 'side'] } }
        : {}),
      ...(variant === 'beside' ? { '>picture': { left: '50%' } } : {}),
    }
  },
  childWidth: ({ width }) => `min(${width} - 2*var(--gutter),46rem)`,
  canvasRules: [stripedBehind('.hero:not(:has(>picture))')],
  render({ content, look }, context) {
    const { media: reference, alt, decoration } = content
    const shown = reference && context.picture(reference.id)
    return el(
      'section',
      { className: ['hero'], ...(content.anchor ? { id: content.anchor } : {}) },
      shown &&
        pictureElement(shown, {
          alt: altOf(shown, { alt, decoration }),
          sizes: look.variant === 'beside' ? '50vw' : '100vw',
          early: context.spot.early,
        }),
      el('div', {}, context.slot('blocks')),
    )
  },
  words: () => [],
  facts: ({ media: reference, alt, decoration = false, anchor: name }) => ({
    ...(name ? { anchor: name } : {}),
    ...(reference ? { pictures: [{ id: reference.id, alt, decoration }] } : { missing: ['picture'] }),
  }),
})
