import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { choice, fields, line, step } from '../fields.ts'
import { el } from '../../render/element.ts'
import { sharedWidth, sharedFlex, stepButtonRules } from '../../render/slides.ts'
import { space } from '../../render/token-css.ts'

interface Content {
  readonly label: string
}
interface LookValues {
  readonly display?: 'grid' | 'slides'
}
interface Values {
  readonly shows: '1' | '2' | '3'
  readonly gap: string
}

/** What several people said, in a grid or one after another. */
export const voices = defineBlock<Content, LookValues, Values>({
  kind: 'voices',
  version: 1,
  title: 'Testimonials',
  plural: 'testimonials',
  about: 'What several people said, as a grid or as slides',
  synonyms: ['reviews', 'quotes', 'customers', 'references', 'social proof'],
  group: 'flow',
  purpose: 'text',
  content: fields({ label: line('Accessible name', 'What people say') }, ['label']),
  look: fields({ display: choice('Shown as', 'grid', { grid: 'Grid', slides: 'Slides' }) }),
  arrangement: fields({
    shows: choice('Columns', '3', { 1: '1', 2: '2', 3: '3' }),
    gap: step('Gap', 'space', 'm'),
  }),
  slots: { voices: { title: 'Testimonials', allow: ['voice'] } },
  rules: [
    { selector: '.voices', declarations: { 'min-width': '0' } },
    { selector: '.voices>ul', declarations: { margin: '0', padding: '0', 'list-style': 'none' } },
    {
      selector: '.voices>ul:focus-visible',
      declarations: { outline: '2px solid currentColor', 'outline-offset': '3px' },
    },
    ...stepButtonRules('.voices'),
  ],
  arrange({ values, look }): ArrangedRules {
    if (look.display !== 'slides')
      return {
        '>ul': {
          display: 'grid',
          'grid-template-columns': `repeat(${values.shows},minmax(0,1fr))`,
          gap: space(values.gap),
        },
      }
    return {
      '>ul': {
        display: 'flex',
        gap: space(values.gap),
        'overflow-x': 'auto',
        'scroll-snap-type': 'x mandatory',
      },
      '>ul>li': {
        flex: sharedFlex(values),
        'scroll-snap-align': 'start',
      },
    }
  },
  childWidth: ({ width, values }) => sharedWidth(width, values),
  behaviour: { name: 'slides', needs: ({ look }) => look.display === 'slides' },
  render({ content, look }, context) {
    const label = content.label || 'What people say'
    const isSlides = look.display === 'slides'
    return el(
      'section',
      { className: ['voices'], ariaLabel: label },
      el(
        'ul',
        isSlides ? { tabIndex: 0, ariaLabel: `${label}, scrolled sideways` } : {},
        context.slot('voices'),
      ),
    )
  },
  words: () => [],
})
