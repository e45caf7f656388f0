import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, line, step } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { sharedWidth, sharedFlex, stepBar, stepBarRules } from '../../kit/slides.ts'
import { radius, space } from '../../kit/token-css.ts'

interface Content {
  readonly label: string
}
interface LookValues {
  readonly display?: 'grid' | 'slides'
  readonly radius?: string
}
interface Values {
  readonly shows: '1' | '2' | '3' | '4' | '5' | '6'
  readonly gap: string
  readonly room: string
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
  look: fields({
    display: choice('Shown as', 'grid', { grid: 'Grid', slides: 'Slides' }),
    radius: step('Item corners', 'radius', 'm'),
  }),
  arrangement: fields({
    shows: choice('Columns', '3', { 1: '1', 2: '2', 3: '3', 4: '4', 5: '5', 6: '6' }),
    gap: step('Gap', 'space', 'm'),
    room: step('Item padding', 'space', 'm'),
  }),
  slots: { voices: { title: 'Testimonials', allow: ['voice'] } },
  rules: [
    ...stepBarRules('.voices'),
    { selector: '.voices>ul', declarations: { margin: '0', padding: '0', 'list-style': 'none' } },
    {
      selector: '.voices>ul:focus-visible',
      declarations: { outline: '2px solid currentColor', 'outline-offset': '3px' },
    },
  ],
  arrange({ values, look }): ArrangedRules {
    const items = {
      ...(values.room === 'm' ? {} : { padding: space(values.room) }),
      ...(look.radius && look.radius !== 'm' ? { 'border-radius': radius(look.radius) } : {}),
    }
    if (look.display !== 'slides')
      return {
        '>ul': {
          display: 'grid',
          'grid-template-columns': `repeat(${values.shows},minmax(0,1fr))`,
          gap: space(values.gap),
        },
        '>ul>li': items,
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
        ...items,
      },
    }
  },
  childWidth: ({ width, values }) => sharedWidth(width, values),
  behaviour: { name: 'slides', needs: ({ look }) => look.display === 'slides' },
  canvasRules: [outlinedEmpty('.voices>ul')],
  render({ content, look }, context) {
    const label = content.label || 'What people say'
    const isSlides = look.display === 'slides'
    return el(
      'section',
      { className: ['voices'], ariaLabel: label },
      isSlides && stepBar({ count: context.count('voices') }),
      el(
        'ul',
        isSlides ? { tabIndex: 0, ariaLabel: `${label}, scrolled sideways` } : {},
        context.slot('voices'),
      ),
    )
  },
  words: () => [],
})
