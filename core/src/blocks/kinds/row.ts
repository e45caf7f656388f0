import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, step, toggle } from '../../kit/fields.ts'
import { justified, type Alignment } from '../../kit/alignment.ts'
import type { Declarations } from '../../kit/css-rules.ts'
import { el } from '../../kit/element.ts'
import { space } from '../../kit/token-css.ts'

interface Values {
  readonly direction: 'across' | 'down'
  readonly share: keyof typeof SHARES
  readonly gap: string
  readonly align: 'start' | 'center' | 'end' | 'stretch'
  readonly justify: Alignment | 'space-between'
  readonly wrap: boolean
}

/** How much of the row each share gives its first, its last and its other blocks. */
const SHARES = {
  equal: { first: 1, last: 1, other: 1 },
  first: { first: 2, last: 1, other: 1 },
  last: { first: 1, last: 2, other: 1 },
  own: undefined,
} as const

const SIDEWAYS = {
  inherit: 'stretch',
  start: 'stretch',
  center: 'center',
  end: 'end',
  'space-between': 'stretch',
} as const

/** Blocks side by side, or one under another where there is no room. */
export const row = defineBlock<object, object, Values>({
  kind: 'row',
  version: 1,
  title: 'Row',
  about: 'Blocks side by side',
  synonyms: ['horizontal', 'side by side', 'flex', 'inline'],
  group: 'flow',
  purpose: 'layout',
  content: fields({}),
  look: fields({}),
  arrangement: fields({
    direction: choice('Direction', 'across', { across: 'Horizontal', down: 'Vertical' }),
    share: choice('Widths', 'equal', {
      equal: 'Equal',
      first: '2 : 1',
      last: '1 : 2',
      own: 'By content',
    }),
    gap: step('Gap', 'space', 'l'),
    align: choice('Align vertically', 'stretch', {
      start: 'Top',
      center: 'Middle',
      end: 'Bottom',
      stretch: 'Stretch',
    }),
    justify: choice('Align horizontally', 'inherit', {
      inherit: 'Inherited',
      start: 'Left',
      center: 'Centre',
      end: 'Right',
      'space-between': 'Spread evenly',
    }),
    wrap: toggle('Wrap', false),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    { selector: '.row', declarations: { display: 'flex', 'min-width': '0' } },
    { selector: '.row>*', declarations: { 'min-width': '0' } },
    { selector: '.row>.button', declarations: { 'margin-inline': '0' } },
  ],
  arrange({ values }): ArrangedRules {
    const down = values.direction === 'down'
    const self: Declarations = {
      'flex-direction': down ? 'column' : 'row',
      gap: space(values.gap),
      // Blocks one below the other stand as the row says sideways: what it says of up and down would move them there.
      'align-items': down ? SIDEWAYS[values.justify] : values.align,
      'justify-content': justified(values.justify),
      'flex-wrap': values.wrap ? 'wrap' : 'nowrap',
    }
    const share = down ? undefined : SHARES[values.share]
    // A picture that is not stretched would be as wide as its file, and nothing before that has come.
    const pictures: ArrangedRules = down ? { '>.picture': { width: '100%' } } : {}
    if (!share) return { '': self, '>*': { flex: '0 1 auto' }, ...pictures }
    const uneven = share.first !== share.other || share.last !== share.other
    return {
      '': self,
      '>*': { flex: `${share.other} 1 0` },
      ...(uneven
        ? { '>:first-child': { flex: `${share.first} 1 0` }, '>:last-child': { flex: `${share.last} 1 0` } }
        : {}),
    }
  },
  childWidth({ width, values, childCount, childIndex }) {
    const share = values.direction === 'down' || values.wrap ? undefined : SHARES[values.share]
    if (!share || childCount < 2) return undefined
    const parts = share.first + share.last + share.other * (childCount - 2)
    const own = childIndex === 0 ? share.first : childIndex === childCount - 1 ? share.last : share.other
    return `(${width} - ${childCount - 1}*${space(values.gap)})*${own}/${parts}`
  },
  isEvenRow: ({ direction, share, wrap, align }) =>
    direction === 'across' && share === 'equal' && !wrap && (align === 'stretch' || align === 'start'),
  canvasRules: [outlinedEmpty('.row')],
  render: (_node, context) => el('div', { className: ['row'] }, context.slot('blocks')),
  words: () => [],
})
