import { defineBlock } from '../define-block.ts'
import { choice, fields, line, step } from '../fields.ts'
import { frameShape } from '../../render/crop.ts'
import { el } from '../../render/element.ts'
import { radius, space } from '../../render/token-css.ts'

interface Content {
  readonly label?: string
}
interface LookValues {
  readonly radius?: string
}
interface Values {
  readonly columns: '1' | '2' | '3' | '4' | '6'
  readonly gap: string
  readonly ratio: string
}

/** Pictures in a grid of equal frames, each with its own alternative text and caption. */
export const gallery = defineBlock<Content, LookValues, Values>({
  kind: 'gallery',
  version: 1,
  title: 'Gallery',
  plural: 'galleries',
  about: 'Pictures in a grid of equal frames',
  group: 'flow',
  content: fields({ label: line('What it shows, for screen readers') }),
  look: fields({ radius: step('Corners', 'radius', 'none') }),
  arrangement: fields({
    columns: choice('Side by side', '3', { 1: '1', 2: '2', 3: '3', 4: '4', 6: '6' }),
    gap: step('Between pictures', 'space', 's'),
    ratio: choice('Frame', '3/2', { '1/1': '1 : 1', '4/3': '4 : 3', '3/2': '3 : 2', '16/9': '16 : 9' }),
  }),
  slots: { pictures: { title: 'Pictures', allow: ['picture'] } },
  rules: [
    { selector: '.gallery', declarations: { display: 'grid', 'align-items': 'start' } },
    // Weaker than what a picture says of a part of it that is shown.
    {
      selector: ':where(.gallery>* img)',
      declarations: { 'aspect-ratio': 'var(--frame)', 'object-fit': 'cover' },
    },
  ],
  arrange: ({ values, look }) => ({
    '': {
      'grid-template-columns': `repeat(${values.columns},minmax(0,1fr))`,
      gap: space(values.gap),
    },
    // Stronger than the frames that pictures have of their own.
    '>:nth-child(n)': { '--frame': String(frameShape(values.ratio)) },
    ...(look.radius && look.radius !== 'none'
      ? { '>:nth-child(n) :is(picture,img)': { 'border-radius': radius(look.radius) } }
      : {}),
  }),
  childFrame: ({ ratio }) => frameShape(ratio),
  childWidth: ({ width, values }) =>
    values.columns === '1'
      ? undefined
      : `(${width} - ${Number(values.columns) - 1}*${space(values.gap)})/${values.columns}`,
  render: ({ content }, context) =>
    el(
      'div',
      { className: ['gallery'], ...(content.label ? { role: 'group', ariaLabel: content.label } : {}) },
      context.slot('pictures'),
    ),
  words: () => [],
})
