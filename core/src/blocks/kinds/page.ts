import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, date, fields, line } from '../../kit/fields.ts'
import { bandRules, childOfBand } from '../../kit/band.ts'
import { el, type Element } from '../../kit/element.ts'
import { CONTENT_ID } from '../../kit/ids.ts'
import { longDate } from '../../kit/long-date.ts'
import { typeStyle } from '../../kit/token-css.ts'
import { layoutOf, LAYOUTS, type LayoutName } from '../../site/layouts.ts'
import { IGNORED_FIELDS } from '../../site/ignored-gullies.ts'
import { SETTING_FIELDS } from '../../site/page-settings.ts'
import { TEMPLATE_FIELDS } from '../../site/template-rules.ts'

interface Content {
  readonly layout?: LayoutName
  readonly title?: string
  readonly author?: string
  /** As in HTML's valid date strings: 2026-11-27. */
  readonly date?: string
  readonly summary?: string
}

const layoutTitles = Object.fromEntries(Object.entries(LAYOUTS).map(([name, { title }]) => [name, title]))

/** The root of every page. Its layout says which of its slots are shown, and how. */
export const page = defineBlock<Content>({
  kind: 'page',
  version: 2,
  title: 'Page',
  about: 'Holds the sections of the page',
  group: 'root',
  content: fields({
    layout: { ...choice('Template', 'plain', layoutTitles), hidden: true },
    title: line('Article heading'),
    author: line('Author'),
    date: date('Date'),
    summary: line('Summary'),
    ...SETTING_FIELDS,
    ...TEMPLATE_FIELDS,
    ...IGNORED_FIELDS,
  }),
  look: fields({}),
  slots: {
    sections: { title: 'Sections', allow: ['section'] },
    main: { title: 'Main column', allow: ['flow'], element: '.page-main,.article' },
    side: { title: 'Side column', allow: ['flow'], element: '.page-side' },
    aside: { title: 'Aside', allow: ['section', 'flow'] },
  },
  shows: (content) => Object.keys(layoutOf({ ...content }).slots),
  hidesField: (content, field) => !layoutOf({ ...content }).fields.some(({ key }) => key === field),
  rules: [
    ...bandRules('page-columns'),
    {
      selector: '.page-columns',
      declarations: { '--w': 'var(--width-broad)', 'padding-block': 'var(--space-l) var(--space-xl)' },
    },
    {
      selector: '.page-columns>div',
      declarations: {
        display: 'grid',
        'grid-template-columns': 'minmax(0,2fr) minmax(0,1fr)',
        gap: 'var(--space-l)',
      },
    },
    {
      selector: '.page-columns>div',
      size: 'narrow',
      declarations: { 'grid-template-columns': 'minmax(0,1fr)' },
    },
    { selector: '.page-main', declarations: flowDown('m') },
    { selector: '.page-side', declarations: flowDown('m') },
    ...bandRules('article'),
    {
      selector: '.article',
      declarations: {
        '--w': 'var(--width-reading)',
        'padding-block': 'var(--space-xl) var(--space-l)',
        'row-gap': 'var(--space-m)',
      },
    },
    {
      selector: '.article h1',
      declarations: { ...typeStyle('headline'), color: 'var(--title)', 'text-wrap': 'balance' },
    },
    {
      selector: '.article .summary',
      declarations: { ...typeStyle('lead'), 'margin-top': '.6em', 'max-width': '50ch' },
    },
    {
      selector: '.article .by',
      declarations: { ...typeStyle('note'), color: 'var(--quiet)', 'margin-top': '.8em' },
    },
    { selector: '.article time::before', declarations: { content: '" · "' } },
  ],
  arrange: (): ArrangedRules => ({}),
  isBand: ({ layout }) => layout === 'article',
  childWidth: ({ width, slot, content, size, childValues, childIndex }) => {
    const broad = `min(${width} - 2*var(--gutter),var(--width-broad))`
    if (slot !== 'main' && slot !== 'side') return undefined
    if (content.layout === 'article') {
      const reading = `min(${width} - 2*var(--gutter),var(--width-reading))`
      return childOfBand(width, reading, childValues()[childIndex])
    }
    if (size >= 'narrow') return broad
    return `(${broad} - var(--space-l))*${slot === 'main' ? 2 : 1}/3`
  },
  canvasRules: [outlinedEmpty('.page-main'), outlinedEmpty('.page-side')],
  render({ content }, context) {
    const slots: Element[] = []
    if (content.layout === 'article') {
      const { title, author, date: when, summary } = content
      const head = el(
        'header',
        {},
        context.hasPlace('title') && el('h1', context.wordsOf('title'), title),
        context.hasPlace('summary') &&
          el('p', { className: ['summary'], ...context.wordsOf('summary') }, summary),
        (context.hasPlace('author') || when) &&
          el(
            'p',
            { className: ['by'] },
            context.hasPlace('author') && el('span', context.wordsOf('author'), author),
            when && el('time', { dateTime: when }, longDate(when, context.site.language)),
          ),
      )
      slots.push(
        el('article', { className: ['article'] }, head, context.slot('main')),
        context.slot('sections'),
      )
    } else {
      slots.push(context.slot('sections'))
      if (content.layout === 'side')
        slots.push(
          el(
            'div',
            { className: ['page-columns'] },
            el(
              'div',
              {},
              el('div', { className: ['page-main'] }, context.slot('main')),
              el('div', { className: ['page-side'] }, context.slot('side')),
            ),
          ),
        )
    }
    return el('main', { id: CONTENT_ID, className: ['page'] }, slots)
  },
  typedFields: ({ layout }) => (layout === 'article' ? ['title', 'summary', 'author'] : []),
  words: ({ layout, title, author, summary }) =>
    layout === 'article' ? [title, summary, author].flatMap((words) => words || []) : [],
  facts: ({ layout, title = '' }) => (layout === 'article' ? { heading: { level: 1, text: title } } : {}),
})

function flowDown(gap: string) {
  return { display: 'flex', 'flex-direction': 'column', gap: `var(--space-${gap})`, 'min-width': '0' }
}
