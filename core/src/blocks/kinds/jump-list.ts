import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { toldEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, line } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly label: string
  readonly depth?: '2' | '3'
}
interface Values {
  readonly direction: 'down' | 'across'
}

/** Links to the headings of the page, made from the headings as they are. */
export const jumpList = defineBlock<Content, object, Values>({
  kind: 'jump-list',
  version: 1,
  title: 'Table of contents',
  about: 'Links to the headings of this page, always up to date',
  synonyms: ['TOC', 'contents', 'jump links', 'anchors', 'on this page', 'outline'],
  group: 'flow',
  purpose: 'lists',
  usesSpot: ['outline'],
  isDerived: true,
  content: fields(
    {
      label: line('Label', 'On this page'),
      depth: choice('Deepest heading level', '2', { 2: '2', 3: '3' }),
    },
    ['label'],
  ),
  look: fields({}),
  arrangement: fields({ direction: choice('Direction', 'down', { down: 'Vertical', across: 'Horizontal' }) }),
  rules: [
    {
      selector: '.jump-list p',
      declarations: {
        ...typeStyle('note'),
        'font-weight': '600',
        color: 'var(--quiet)',
        'margin-bottom': '.4em',
      },
    },
    {
      selector: '.jump-list ul',
      declarations: {
        ...typeStyle('body'),
        display: 'flex',
        gap: '.35em 1.5em',
        padding: '0',
        'list-style': 'none',
      },
    },
    { selector: '.jump-list a', declarations: { color: 'var(--link)', 'text-underline-offset': '.18em' } },
    { selector: '.jump-list .deeper', declarations: { 'padding-left': '1.2em' } },
  ],
  arrange: ({ values }): ArrangedRules => ({
    '>ul': values.direction === 'down' ? { 'flex-direction': 'column' } : { 'flex-wrap': 'wrap' },
  }),
  canvasRules: [toldEmpty('.jump-list:not(:has(ul))::after', 'Headings of this page will stand here')],
  render({ content }, context) {
    const deepest = Number(content.depth ?? '2')
    const entries = (context.spot.outline ?? []).filter(({ level }) => level > 1 && level <= deepest)
    return el(
      'nav',
      { className: ['jump-list'], ariaLabel: content.label || 'On this page' },
      el('p', context.wordsOf('label'), content.label),
      entries.length > 0 &&
        el(
          'ul',
          {},
          entries.map(({ level, text, anchor }) =>
            el('li', level > 2 ? { className: ['deeper'] } : {}, el('a', { href: `#${anchor}` }, text)),
          ),
        ),
    )
  },
  words: () => [],
})
