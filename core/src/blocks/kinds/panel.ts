import { defineBlock } from '../define-block.ts'
import { toldEmpty } from '../../kit/canvas-rules.ts'
import { asked, fields, line, step } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { space, typeStyle } from '../../kit/token-css.ts'
import type { PanelsLook } from './panels.ts'

interface Content {
  readonly label: string
}
interface Values {
  readonly gap: string
}

/** One labelled part of panels, with blocks of its own. */
export const panel = defineBlock<Content, object, Values>({
  kind: 'panel',
  version: 1,
  title: 'Item',
  plural: 'items',
  about: 'One accordion item or tab, with blocks inside',
  synonyms: ['accordion item', 'tab', 'question'],
  group: 'item',
  usesSpot: ['holder'],
  content: fields({ label: asked('New item', line('Label')) }, ['label']),
  look: fields({}),
  arrangement: fields({ gap: step('Gap', 'space', 's') }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    {
      selector: '.panel>summary',
      declarations: {
        ...typeStyle('body'),
        'font-weight': '600',
        color: 'var(--title)',
        cursor: 'pointer',
        'list-style': 'none',
        display: 'flex',
        'justify-content': 'space-between',
        gap: '1em',
        padding: '.85em 0',
        'border-bottom': '1px solid var(--line)',
      },
    },
    { selector: '.panel>summary::-webkit-details-marker', declarations: { display: 'none' } },
    {
      selector: '.panel>summary::after',
      declarations: {
        content: '""',
        flex: 'none',
        width: '.55em',
        height: '.55em',
        margin: '.35em .2em 0 0',
        border: 'solid var(--accent)',
        'border-width': '0 2px 2px 0',
        rotate: '45deg',
      },
    },
    { selector: '.panel[open]>summary::after', declarations: { rotate: '-135deg', 'margin-top': '.65em' } },
    {
      selector: '.panel>summary:focus-visible',
      declarations: { outline: '2px solid currentColor', 'outline-offset': '2px' },
    },
    {
      selector: '.panel>div',
      declarations: {
        display: 'grid',
        'grid-template-columns': 'minmax(0,1fr)',
        padding: 'var(--space-s) 0 var(--space-m)',
      },
    },
  ],
  arrange: ({ values }) => ({ '>div': { gap: space(values.gap) } }),
  canvasRules: [toldEmpty('.panel>div:empty::before', 'Nothing in this panel yet')],
  render({ content }, context) {
    const { holder } = context.spot
    const look = (holder?.kind === 'panels' ? holder.look : {}) as PanelsLook
    const isTabs = look.display === 'across' || look.display === 'down'
    const isOpen = holder?.index === 0 && (isTabs || look.firstOpen === true)
    return el(
      'details',
      {
        className: ['panel'],
        ...(holder && (isTabs || look.oneAtATime) ? { name: `panels-${holder.id}` } : {}),
        ...(isOpen ? { open: true } : {}),
      },
      el('summary', {}, el('span', context.wordsOf('label'), content.label)),
      el('div', {}, context.slot('blocks')),
    )
  },
  words: (content) => [content.label],
  isEmpty: (content, hasInside) => content.label.trim() === '' || !hasInside,
})
