import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { choice, fields, line, link, toggle } from '../../kit/fields.ts'
import { isPageLink, type Link } from '../../page/link.ts'
import { el } from '../../kit/element.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly of?: Link
  readonly descriptions?: boolean
  readonly nothing?: string
}
interface LookValues {
  readonly variant?: 'lines' | 'tiles'
}
interface Values {
  readonly columns: '1' | '2' | '3'
}

/** The pages under this one, or under another, always as they are now. */
export const subPages = defineBlock<Content, LookValues, Values>({
  kind: 'sub-pages',
  version: 1,
  title: 'List of sub-pages',
  plural: 'lists of sub-pages',
  about: 'Links to the sub-pages of a page, always up to date',
  synonyms: ['child pages', 'page list', 'index', 'related pages'],
  group: 'flow',
  purpose: 'lists',
  isDerived: true,
  content: fields({
    of: link('Parent page'),
    descriptions: toggle('Show descriptions', true),
    nothing: line('Text when there are none', 'There are no pages here yet.'),
  }),
  look: fields({ variant: choice('Variant', 'lines', { lines: 'List', tiles: 'Cards' }) }),
  arrangement: fields({ columns: choice('Columns', '1', { 1: '1', 2: '2', 3: '3' }) }),
  rules: [
    {
      selector: '.sub-pages ul',
      declarations: {
        ...typeStyle('body'),
        display: 'grid',
        gap: 'var(--space-xs) var(--space-m)',
        padding: '0',
        'list-style': 'none',
      },
    },
    {
      selector: '.sub-pages a',
      declarations: { color: 'var(--link)', 'font-weight': '600', 'text-underline-offset': '.18em' },
    },
    {
      selector: '.sub-pages li p',
      declarations: {
        ...typeStyle('note'),
        color: 'var(--quiet)',
        'max-width': '50ch',
        'margin-top': '.2em',
      },
    },
  ],
  arrange: ({ values, look: { variant = 'lines' } }): ArrangedRules => ({
    '>ul': { 'grid-template-columns': `repeat(${values.columns},minmax(0,1fr))` },
    '>ul>li':
      variant === 'tiles'
        ? { padding: 'var(--space-s)', border: '1px solid var(--line)', 'border-radius': 'var(--radius-m)' }
        : { 'padding-block': '.5em', 'border-bottom': '1px solid var(--line)' },
  }),
  render({ content }, { page, tree }) {
    const parent = content.of && isPageLink(content.of) ? content.of.page : page.id
    const inside = tree.inside(parent)
    return el(
      'div',
      { className: ['sub-pages'] },
      inside.length === 0
        ? el('p', {}, content.nothing ?? 'There are no pages here yet.')
        : el(
            'ul',
            {},
            inside.map(({ title, path, description }) =>
              el(
                'li',
                {},
                el('a', { href: path }, title),
                (content.descriptions ?? true) && description !== '' && el('p', {}, description),
              ),
            ),
          ),
    )
  },
  words: () => [],
})
