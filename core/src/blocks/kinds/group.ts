import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { fields, line, step, surface } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { alignAll, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { insetCss, insetFields, widthInside, type Inset } from '../../kit/inset.ts'
import { boxLook, boxLookFields, type BoxLook } from '../../kit/box-look.ts'
import { space } from '../../kit/token-css.ts'

interface Content {
  readonly label?: string
}
interface Values extends Inset {
  readonly gap: string
  readonly alignment: Alignment
}

/** Blocks that belong together: they move as one, and a screen reader can be told what they are. */
export const group = defineBlock<Content, BoxLook, Values>({
  kind: 'group',
  version: 1,
  title: 'Group',
  about: 'Blocks that belong together and move as one',
  synonyms: ['container', 'div', 'wrapper', 'box'],
  group: 'flow',
  purpose: 'layout',
  content: fields({ label: line('Accessible name') }),
  look: fields({ surface: surface('Background'), ...boxLookFields() }),
  arrangement: fields({
    ...insetFields(),
    gap: step('Gap', 'space', 's'),
    alignment: alignmentField(),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    { selector: '.group', declarations: { display: 'grid', 'grid-template-columns': 'minmax(0,1fr)' } },
  ],
  arrange: ({ values, look }) => ({
    '': {
      padding: insetCss(values, look),
      gap: space(values.gap),
      ...alignAll(values.alignment),
      ...boxLook(look),
    },
  }),
  childWidth: ({ width, values, look }) => widthInside(width, values, look),
  canvasRules: [outlinedEmpty('.group')],
  render: ({ content }, context) =>
    el(
      'div',
      { className: ['group'], ...(content.label ? { role: 'group', ariaLabel: content.label } : {}) },
      context.slot('blocks'),
    ),
  words: () => [],
})
