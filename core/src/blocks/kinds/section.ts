import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { anchor, choice, fields, media, step, surface } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { pictureElement } from '../../kit/picture-element.ts'
import { alignAll, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { bandRules, bandWidth, childOfBand } from '../../kit/band.ts'
import { heightField, HEIGHTS, type Height, SHADES, shadeField, type Shade } from '../../kit/backdrop.ts'
import { focusStyle, type Focused } from '../../kit/crop.ts'
import { space } from '../../kit/token-css.ts'

interface Content {
  readonly anchor?: string
  readonly backdrop?: Focused
}
interface LookValues {
  readonly surface?: string
  readonly shade?: Shade
}
interface Values {
  readonly width: 'reading' | 'broad' | 'edge'
  readonly above: string
  readonly below: string
  readonly gap: string
  readonly height: Height
  readonly place: 'start' | 'center' | 'end'
  readonly alignment: Alignment
}

/** A full-width band of the page. */
export const section = defineBlock<Content, LookValues, Values>({
  kind: 'section',
  version: 1,
  title: 'Section',
  about: 'A band across the page with its own background and spacing',
  synonyms: ['band', 'container', 'block', 'strip', 'background'],
  group: 'section',
  purpose: 'layout',
  usesSpot: ['early'],
  content: fields({ anchor: anchor('Anchor'), backdrop: media('Background picture') }),
  look: fields({
    surface: surface('Background'),
    shade: shadeField(),
  }),
  arrangement: fields({
    width: choice('Width', 'broad', { reading: 'Text', broad: 'Wide', edge: 'Full' }),
    above: step('Space above', 'space', 'xl'),
    below: step('Space below', 'space', 'xl'),
    gap: step('Gap', 'space', 'm'),
    height: heightField('content'),
    place: choice('Align blocks', 'center', { start: 'Top', center: 'Middle', end: 'Bottom' }),
    alignment: alignmentField(),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    ...bandRules('section'),
    {
      selector: '.section>picture',
      declarations: { position: 'absolute', inset: '0', 'grid-column': '1/-1' },
    },
    {
      selector: '.section>picture img',
      declarations: { width: '100%', height: '100%', 'object-fit': 'cover' },
    },
    {
      selector: '.section>picture::after',
      declarations: { content: '""', position: 'absolute', inset: '0' },
    },
  ],
  arrangedBy: ['backdrop'],
  arrange({ values, content, look }): ArrangedRules {
    const minHeight = HEIGHTS[values.height]
    return {
      '': {
        ...bandWidth(values.width),
        ...alignAll(values.alignment),
        'padding-block': `${space(values.above)} ${space(values.below)}`,
        'row-gap': space(values.gap),
        ...(minHeight ? { 'min-height': minHeight, 'align-content': values.place } : {}),
      },
      ...(content.backdrop ? { '>picture::after': { background: SHADES[look.shade ?? 'side'] } } : {}),
      ...(content.backdrop ? { '>picture img': focusStyle(content.backdrop) } : {}),
    }
  },
  isBand: () => true,
  isHolder: true,
  placesAs: 'grid',
  isCalledByHeading: true,
  childWidth({ width, values, childValues, childIndex }) {
    const content =
      values.width === 'edge' ? undefined : `min(${width} - 2*var(--gutter),var(--width-${values.width}))`
    return childOfBand(width, content, childValues()[childIndex])
  },
  canvasRules: [
    {
      selector: '.section:not(:has(>:not(picture)))::after',
      declarations: { content: '""', 'grid-column': '2', 'min-height': '5rem', border: '1px dashed #888a' },
    },
  ],
  render(node, context) {
    const backdrop = node.content.backdrop && context.picture(node.content.backdrop.id)
    return el(
      'section',
      { className: ['section'], ...(node.content.anchor ? { id: node.content.anchor } : {}) },
      backdrop && pictureElement(backdrop, { alt: '', sizes: '100vw', early: context.spot.early }),
      context.slot('blocks'),
    )
  },
  words: () => [],
  facts: (content) => (content.anchor ? { anchor: content.anchor } : {}),
})
