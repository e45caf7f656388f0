import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, step } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { space } from '../../kit/token-css.ts'

interface Values {
  readonly direction: 'across' | 'down' | 'down-last-first'
  readonly gap: string
  readonly align: 'start' | 'center' | 'end' | 'stretch'
}

/** The most columns there may be side by side. */
export const MOST_COLUMNS = 6

const DIRECTIONS = { across: 'row', down: 'column', 'down-last-first': 'column-reverse' } as const

/** One to six columns, as wide as their shares say. Each column holds blocks. */
export const columns = defineBlock<object, object, Values>({
  kind: 'columns',
  version: 1,
  title: 'Columns',
  plural: 'columns',
  about: 'One to six columns that fill the width',
  synonyms: ['grid', 'layout', 'two columns', 'three columns', 'side by side'],
  group: 'flow',
  purpose: 'layout',
  content: fields({}),
  look: fields({}),
  arrangement: fields({
    direction: choice('Direction', 'across', {
      across: 'Horizontal',
      down: 'Vertical',
      'down-last-first': 'Vertical, reversed',
    }),
    gap: step('Gap', 'space', 'l'),
    align: choice('Align vertically', 'stretch', {
      start: 'Top',
      center: 'Middle',
      end: 'Bottom',
      stretch: 'Stretch',
    }),
  }),
  isShared: true,
  slots: { columns: { title: 'Columns', allow: ['column'], max: MOST_COLUMNS } },
  rules: [
    { selector: '.columns', declarations: { display: 'flex', 'flex-wrap': 'wrap', 'min-width': '0' } },
    // Before a column is so narrow that words break letter by letter, it goes below the one before it.
    { selector: '.columns>.column', declarations: { 'min-width': 'min(100%,7.5rem)' } },
  ],
  arrange({ values }): ArrangedRules {
    return {
      '': {
        'flex-direction': DIRECTIONS[values.direction],
        gap: space(values.gap),
        'align-items': values.direction === 'across' ? values.align : 'stretch',
      },
      ...(values.direction === 'across' ? {} : { '>.column': { flex: '0 1 auto', width: '100%' } }),
    }
  },
  childWidth({ width, values, childCount, childIndex, childValues }) {
    if (values.direction !== 'across' || childCount < 2) return undefined
    const shares = childValues().map(({ share }) => Number(share))
    const sum = shares.reduce((all, share) => all + share, 0)
    return `(${width} - ${childCount - 1}*${space(values.gap)})*${shares[childIndex]}/${sum}`
  },
  canvasRules: [outlinedEmpty('.columns')],
  render: (_node, context) => el('div', { className: ['columns'] }, context.slot('columns')),
  words: () => [],
})
