import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, percent, step, surface } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { alignAll, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { insetCss, insetFields, widthInside, type Inset } from '../../kit/inset.ts'
import { boxLook, boxLookFields, type BoxLook } from '../../kit/box-look.ts'
import { space } from '../../kit/token-css.ts'

interface Values extends Inset {
  readonly share: number
  readonly gap: string
  readonly place: 'start' | 'center' | 'end' | 'space-between'
  readonly alignment: Alignment
}

/** The width in % of a column of which nobody said how wide it is. */
export const USUAL_SHARE = 50

/** One of several columns: blocks one under another. */
export const column = defineBlock<object, BoxLook, Values>({
  kind: 'column',
  version: 1,
  title: 'Column',
  about: 'One of several columns, with blocks one below the other',
  synonyms: ['layout'],
  group: 'item',
  content: fields({}),
  look: fields({ surface: surface('Background'), ...boxLookFields() }),
  arrangement: fields({
    share: { ...percent('Width (%)', USUAL_SHARE), hidden: true },
    gap: step('Gap', 'space', 's'),
    ...insetFields(),
    place: choice('Align blocks', 'start', {
      start: 'Top',
      center: 'Middle',
      end: 'Bottom',
      'space-between': 'Spread evenly',
    }),
    alignment: alignmentField(),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    { selector: '.column', declarations: { display: 'flex', 'flex-direction': 'column', 'min-width': '0' } },
    { selector: '.column>*', declarations: { 'max-width': '100%' } },
  ],
  arrange: ({ values, look }) => ({
    '': {
      flex: `${values.share} 1 0`,
      gap: space(values.gap),
      padding: insetCss(values, look),
      ...alignAll(values.alignment),
      'justify-content': values.place,
      ...boxLook(look),
    },
  }),
  childWidth: ({ width, values, look }) => widthInside(width, values, look),
  canvasRules: [outlinedEmpty('.column')],
  render: (_node, context) => el('div', { className: ['column'] }, context.slot('blocks')),
  words: () => [],
})
