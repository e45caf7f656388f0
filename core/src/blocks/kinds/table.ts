import { defineBlock } from '../define-block.ts'
import { choice, fields, line, table as tableField } from '../../kit/fields.ts'
import { el, type Element } from '../../kit/element.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly rows: readonly (readonly string[])[]
  readonly caption?: string
  readonly heads?: 'row' | 'column' | 'both' | 'none'
}
interface LookValues {
  readonly variant?: 'lines' | 'stripes' | 'plain'
}
interface Values {
  readonly align: 'start' | 'center' | 'end'
}

const START = [
  ['', ''],
  ['', ''],
]

/** Words in rows and columns, with a caption and headings for a row or column, or both. */
export const table = defineBlock<Content, LookValues, Values>({
  kind: 'table',
  version: 1,
  title: 'Table',
  about: 'Text in rows and columns, with headings and a caption',
  synonyms: ['grid', 'spreadsheet', 'data', 'prices', 'opening hours'],
  group: 'flow',
  purpose: 'lists',
  content: fields(
    {
      rows: tableField('Rows', START),
      caption: { ...line('Caption'), isLong: true },
      heads: choice('Header cells', 'row', {
        row: 'First row',
        column: 'First column',
        both: 'Both',
        none: 'None',
      }),
    },
    ['rows'],
  ),
  look: fields({
    variant: choice('Variant', 'lines', { lines: 'Lines', stripes: 'Stripes', plain: 'Plain' }),
  }),
  arrangement: fields({
    align: choice('Align cell text', 'start', { start: 'Left', center: 'Centre', end: 'Right' }),
  }),
  rules: [
    {
      selector: '.table',
      // Columns are as wide as their longest word, and the table is scrolled where they do not fit.
      declarations: {
        ...typeStyle('body'),
        'overflow-x': 'auto',
        'max-width': '100%',
        'overflow-wrap': 'break-word',
      },
    },
    { selector: '.table:focus-visible', declarations: { outline: '2px solid currentColor' } },
    { selector: '.table table', declarations: { 'border-collapse': 'collapse', width: '100%' } },
    {
      selector: '.table caption',
      declarations: {
        ...typeStyle('note'),
        color: 'var(--quiet)',
        'text-align': 'start',
        'padding-bottom': '.6em',
      },
    },
    { selector: '.table td', declarations: { padding: '.6em 1em .6em 0', 'vertical-align': 'top' } },
    {
      selector: '.table th',
      declarations: {
        padding: '.6em 1em .6em 0',
        'vertical-align': 'top',
        'font-weight': '600',
        color: 'var(--title)',
      },
    },
  ],
  arrange: ({ values, look: { variant = 'lines' } }) => ({
    ' tr>*': {
      'text-align': values.align,
      ...(variant === 'lines' ? { 'border-bottom': '1px solid var(--line)' } : {}),
      ...(variant === 'stripes' ? { 'padding-inline': '.9em' } : {}),
    },
    ...(variant === 'stripes'
      ? { ' tbody tr:nth-child(odd)': { background: 'color-mix(in srgb,var(--line) 35%,transparent)' } }
      : {}),
  }),
  render({ content }, context) {
    const { caption, heads = 'row' } = content
    const width = Math.max(...content.rows.map((row) => row.length))
    const hasHead = heads === 'row' || heads === 'both'
    const cell = (row: number, column: number): Element => {
      const words = content.rows[row]?.[column] ?? ''
      const marks = context.wordsOf(`rows.${row}.${column}`)
      if (hasHead && row === 0) return el('th', { scope: 'col', ...marks }, words)
      if (column === 0 && (heads === 'column' || heads === 'both'))
        return el('th', { scope: 'row', ...marks }, words)
      return el('td', marks, words)
    }
    const rows = content.rows.map((_row, at) =>
      el(
        'tr',
        {},
        Array.from({ length: width }, (_one, column) => cell(at, column)),
      ),
    )
    // A wide table is scrolled by itself, by keyboard too, and never makes the page wider than the screen (WCAG 2.2, 1.4.10).
    return el(
      'section',
      { className: ['table'], tabIndex: 0, ariaLabel: caption || 'Table' },
      el(
        'table',
        {},
        context.hasPlace('caption') && el('caption', context.wordsOf('caption'), caption),
        hasHead && el('thead', {}, rows[0]),
        el('tbody', {}, hasHead ? rows.slice(1) : rows),
      ),
    )
  },
  words: ({ rows, caption }) => [...(caption ? [caption] : []), ...rows.flat()],
  facts: ({ rows, heads = 'row' }) => {
    const first = [
      // Where both are headings, the corner between them may be empty.
      ...(heads === 'row' ? rows[0]! : heads === 'both' ? rows[0]!.slice(1) : []),
      ...(heads === 'column' || heads === 'both'
        ? rows.slice(heads === 'both' ? 1 : 0).map((row) => row[0] ?? '')
        : []),
    ]
    return first.some((words) => words.trim() === '') ? { empty: ['table heading'] } : {}
  },
  // Headings alone say nothing.
  isEmpty: ({ rows, heads = 'row' }) =>
    rows
      .slice(heads === 'row' || heads === 'both' ? 1 : 0)
      .flatMap((row) => row.slice(heads === 'column' || heads === 'both' ? 1 : 0))
      .every((words) => words.trim() === ''),
})
