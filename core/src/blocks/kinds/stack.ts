import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, step, surface } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { alignAll, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { insetCss, insetFields, widthInside, type Inset } from '../../kit/inset.ts'
import { radius, space } from '../../kit/token-css.ts'

interface LookValues {
  readonly surface?: string
  readonly radius?: string
}
interface Values extends Inset {
  readonly gap: string
  readonly align: 'stretch' | 'start' | 'center' | 'end'
  readonly alignment: Alignment
}

/** Blocks one under another; with a background and room inside it is a panel. */
export const stack = defineBlock<object, LookValues, Values>({
  kind: 'stack',
  version: 1,
  title: 'Stack',
  about: 'Blocks one below the other',
  synonyms: ['vertical', 'container', 'box', 'panel', 'spacer'],
  group: 'flow',
  purpose: 'layout',
  content: fields({}),
  look: fields({ surface: surface('Background'), radius: step('Corners', 'radius', 'none') }),
  arrangement: fields({
    gap: step('Gap', 'space', 's'),
    align: choice('Align blocks', 'stretch', {
      stretch: 'Stretch',
      start: 'Left',
      center: 'Centre',
      end: 'Right',
    }),
    alignment: alignmentField(),
    ...insetFields(),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    { selector: '.stack', declarations: { display: 'flex', 'flex-direction': 'column', 'min-width': '0' } },
    { selector: '.stack>*', declarations: { 'max-width': '100%' } },
    { selector: '.stack>.picture', declarations: { width: '100%' } },
  ],
  arrange: ({ values, look }) => ({
    '': {
      gap: space(values.gap),
      'align-items': values.align,
      padding: insetCss(values, look),
      ...alignAll(values.alignment),
      ...(look.radius && look.radius !== 'none' ? { 'border-radius': radius(look.radius) } : {}),
    },
  }),
  childWidth: ({ width, values, look }) => widthInside(width, values, look),
  canvasRules: [outlinedEmpty('.stack')],
  render: (_node, context) => el('div', { className: ['stack'] }, context.slot('blocks')),
  words: () => [],
})
