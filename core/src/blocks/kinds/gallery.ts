import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, line, step } from '../../kit/fields.ts'
import { ratioOf } from '../../kit/crop.ts'
import { el } from '../../kit/element.ts'
import { radius, space } from '../../kit/token-css.ts'

interface Content {
  readonly label?: string
}
interface LookValues {
  readonly radius?: string
}
interface Values {
  readonly columns: '1' | '2' | '3' | '4' | '5' | '6'
  readonly room: string
  readonly gap: string
  readonly ratio: string
}

/** Pictures in a grid, all of one ratio, each with its own alternative text and caption. */
export const gallery = defineBlock<Content, LookValues, Values>({
  kind: 'gallery',
  version: 1,
  title: 'Gallery',
  plural: 'galleries',
  about: 'Pictures in an even grid',
  synonyms: ['images', 'photos', 'image grid', 'photo grid', 'thumbnails', 'pictures'],
  group: 'flow',
  purpose: 'pictures',
  content: fields({ label: line('Accessible name') }),
  look: fields({ radius: step('Corners', 'radius', 'none') }),
  arrangement: fields({
    columns: choice('Columns', '3', { 1: '1', 2: '2', 3: '3', 4: '4', 5: '5', 6: '6' }),
    gap: step('Gap', 'space', 's'),
    room: step('Item padding', 'space', 'none'),
    ratio: choice('Ratio', '3/2', { '1/1': '1 : 1', '4/3': '4 : 3', '3/2': '3 : 2', '16/9': '16 : 9' }),
  }),
  slots: { pictures: { title: 'Pictures', allow: ['picture'] } },
  rules: [
    { selector: '.gallery', declarations: { display: 'grid', 'align-items': 'start' } },
    // Weaker than what a picture says of a part of it that is shown.
    {
      selector: ':where(.gallery>* img)',
      declarations: { 'aspect-ratio': 'var(--ratio)', 'object-fit': 'cover' },
    },
  ],
  arrange: ({ values, look }) => ({
    '': {
      'grid-template-columns': `repeat(${values.columns},minmax(0,1fr))`,
      gap: space(values.gap),
    },
    // Stronger than the ratios of the pictures themselves.
    '>:nth-child(n)': {
      '--ratio': String(ratioOf(values.ratio)),
      ...(values.room === 'none' ? {} : { padding: space(values.room) }),
    },
    ...(look.radius && look.radius !== 'none'
      ? { '>:nth-child(n) :is(picture,img)': { 'border-radius': radius(look.radius) } }
      : {}),
  }),
  childRatio: ({ ratio }) => ratioOf(ratio),
  childWidth({ width, values }) {
    const count = Number(values.columns)
    const shared = count === 1 ? width : `(${width} - ${count - 1}*${space(values.gap)})/${count}`
    if (values.room === 'none') return count === 1 ? undefined : shared
    return `(${shared} - 2*${space(values.room)})`
  },
  canvasRules: [outlinedEmpty('.gallery')],
  render: ({ content }, context) =>
    el(
      'div',
      { className: ['gallery'], ...(content.label ? { role: 'group', ariaLabel: content.label } : {}) },
      context.slot('pictures'),
    ),
  words: () => [],
})
