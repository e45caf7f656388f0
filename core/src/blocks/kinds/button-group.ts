import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, step } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { justified, type Alignment } from '../../kit/alignment.ts'
import { space } from '../../kit/token-css.ts'

interface Values {
  readonly gap: string
  readonly justify: Alignment | 'space-between'
  readonly direction: 'across' | 'down'
}

/** Buttons side by side, in lines where there is no room. */
export const buttonGroup = defineBlock<object, object, Values>({
  kind: 'button-group',
  version: 1,
  title: 'Button group',
  about: 'Buttons side by side; they wrap where there is no space',
  synonyms: ['buttons', 'actions', 'links'],
  group: 'flow',
  purpose: 'links',
  content: fields({}),
  look: fields({}),
  arrangement: fields({
    direction: choice('Direction', 'across', { across: 'Horizontal', down: 'Vertical' }),
    gap: step('Gap', 'space', 's'),
    justify: choice('Align horizontally', 'inherit', {
      inherit: 'Inherited',
      start: 'Left',
      center: 'Centre',
      end: 'Right',
      'space-between': 'Spread',
    }),
  }),
  slots: { buttons: { title: 'Buttons', allow: ['button'] } },
  rules: [
    { selector: '.button-group', declarations: { display: 'flex', 'flex-wrap': 'wrap' } },
    { selector: '.button-group>.button', declarations: { 'margin-inline': '0' } },
  ],
  arrange: ({ values }) => ({
    '': {
      gap: space(values.gap),
      ...(values.direction === 'down'
        ? { 'flex-direction': 'column' }
        : { 'flex-direction': 'row', 'justify-content': justified(values.justify) }),
    },
  }),
  canvasRules: [outlinedEmpty('.button-group')],
  render: (_node, context) => el('div', { className: ['button-group'] }, context.slot('buttons')),
  words: () => [],
})
