import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, toggle } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { typeStyle } from '../../kit/token-css.ts'

export interface PanelsLook {
  readonly display?: 'fold' | 'across' | 'down'
  readonly firstOpen?: boolean
  readonly oneAtATime?: boolean
}

/**
 * Labelled parts of which one looks at some at a time: folded one under another, or behind tabs. Without a script each
 * is a `details` element, so everything can be read everywhere; the script makes tabs of them.
 */
export const panels = defineBlock<object, PanelsLook>({
  kind: 'panels',
  version: 1,
  title: 'Accordion and tabs',
  plural: 'accordions',
  about: 'Items that open and close, or tabs',
  synonyms: ['accordion', 'FAQ', 'questions', 'tabs', 'toggle', 'collapse', 'expand', 'details'],
  group: 'flow',
  purpose: 'lists',
  content: fields({}),
  look: fields({
    display: choice('Shown as', 'fold', {
      fold: 'Accordion',
      across: 'Horizontal tabs',
      down: 'Vertical tabs',
    }),
    firstOpen: toggle('First item open', false),
    oneAtATime: toggle('One open at a time', false),
  }),
  slots: { panels: { title: 'Items', allow: ['panel'] } },
  rules: [
    { selector: '.panels', declarations: { display: 'block', 'min-width': '0' } },
    { selector: '.panels-tabs', declarations: { display: 'flex', 'flex-wrap': 'wrap', gap: '0 1.6em' } },
    { selector: '.panels-tabs>.panel', declarations: { display: 'contents' } },
    {
      selector: '.panels-tabs>.panel>summary',
      declarations: { border: '0', 'border-bottom': '3px solid transparent', padding: '.55em 0' },
    },
    { selector: '.panels-tabs>.panel>summary::after', declarations: { content: 'none' } },
    {
      selector: '.panels-tabs>.panel[open]>summary',
      declarations: { 'border-color': 'var(--accent)', color: 'var(--title)' },
    },
    {
      // The box around what a details element holds is a pseudo-element (CSS Pseudo 4); browsers without it lay out the div.
      selector: '.panels-tabs>.panel::details-content',
      declarations: { order: '1', flex: '0 0 100%' },
    },
    {
      selector: '.panels-tabs>.panel>div',
      declarations: { order: '1', flex: '0 0 100%', 'padding-top': 'var(--space-s)' },
    },
    // What the script makes of it.
    {
      selector: '.panels-tabs>[role=tablist]',
      declarations: {
        display: 'flex',
        'flex-wrap': 'wrap',
        gap: '0 1.6em',
        flex: '0 0 100%',
        'border-bottom': '1px solid var(--line)',
      },
    },
    {
      selector: '.panels-tabs>[aria-orientation]',
      declarations: { 'flex-direction': 'column', 'align-items': 'start', border: '0' },
    },
    {
      selector: '.panels-tabs [role=tab]',
      declarations: {
        ...typeStyle('body'),
        'font-weight': '600',
        color: 'var(--ink)',
        background: 'none',
        border: '0',
        'border-bottom': '3px solid transparent',
        padding: '.55em 0',
        cursor: 'pointer',
      },
    },
    {
      selector: '.panels-tabs [aria-selected=true]',
      declarations: { 'border-color': 'var(--accent)', color: 'var(--title)' },
    },
    {
      selector: '.panels-tabs [role=tab]:focus-visible',
      declarations: { outline: '2px solid currentColor', 'outline-offset': '2px' },
    },
    {
      selector: '.panels-tabs>[role=tabpanel]',
      declarations: {
        flex: '0 0 100%',
        display: 'grid',
        gap: 'var(--space-s)',
        'padding-top': 'var(--space-s)',
      },
    },
    { selector: '.panels-tabs>[hidden]', declarations: { display: 'none' } },
  ],
  arrange({ look }): ArrangedRules {
    // Tabs down: the labels in one column, the open panel beside them; on a narrow screen it stands under its label.
    if (look.display !== 'down') return {}
    return {
      '': {
        display: 'grid',
        'grid-template-columns': 'minmax(9rem,1fr) 3fr',
        gap: '0 2em',
        'align-items': 'start',
      },
      '>.panel>summary': { 'grid-column': '1' },
      '>.panel::details-content': { 'grid-column': '2', 'grid-row': '1/span 20', order: '0' },
      '>.panel>div': { 'grid-column': '2', 'grid-row': '1/span 20', order: '0' },
    }
  },
  behaviour: { name: 'tabs', needs: ({ look }) => look.display === 'across' || look.display === 'down' },
  canvasRules: [outlinedEmpty('.panels')],
  render: ({ look }, context) =>
    el(
      'div',
      { className: ['panels', ...(look.display && look.display !== 'fold' ? ['panels-tabs'] : [])] },
      context.slot('panels'),
    ),
  words: () => [],
})
