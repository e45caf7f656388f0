import { defineBlock } from '../define-block.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import { choice, fields, line, step, toggle } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'
import { sharedWidth, sharedFlex, stepBar, stepBarRules } from '../../kit/slides.ts'
import { space } from '../../kit/token-css.ts'

interface Content {
  readonly label: string
}
interface LookValues {
  readonly canPlay?: boolean
}
interface Values {
  readonly shows: '1' | '2' | '3'
  readonly gap: string
}

/**
 * Pictures with words, seen one after another. A list that is scrolled sideways, so it needs no script; the script works
 * the bar to go on and back, and to start it, since nothing here moves by itself (WCAG 2.2, 2.2.2).
 */
export const slides = defineBlock<Content, LookValues, Values>({
  kind: 'slides',
  version: 1,
  title: 'Slides',
  plural: 'slides',
  about: 'Pictures with text, one after another',
  synonyms: ['carousel', 'slider', 'slideshow', 'gallery', 'image rotator'],
  group: 'flow',
  purpose: 'pictures',
  content: fields({ label: line('Accessible name', 'Pictures') }, ['label']),
  look: fields({ canPlay: toggle('Play button', false) }),
  arrangement: fields({
    shows: choice('Slides shown at once', '1', { 1: '1', 2: '2', 3: '3' }),
    gap: step('Gap', 'space', 's'),
  }),
  slots: { slides: { title: 'Slides', allow: ['slide'] } },
  rules: [
    ...stepBarRules('.slides'),
    {
      selector: '.slides>ul',
      declarations: {
        display: 'flex',
        margin: '0',
        padding: '0',
        'list-style': 'none',
        'overflow-x': 'auto',
        'scroll-snap-type': 'x mandatory',
        'overscroll-behavior-x': 'contain',
      },
    },
    {
      selector: '.slides>ul:focus-visible',
      declarations: { outline: '2px solid currentColor', 'outline-offset': '3px' },
    },
    { selector: '.slides>ul>li', declarations: { 'scroll-snap-align': 'start' } },
  ],
  arrange: ({ values }) => ({
    '>ul': { gap: space(values.gap) },
    '>ul>li': { flex: sharedFlex(values) },
  }),
  childWidth: ({ width, values }) => sharedWidth(width, values),
  behaviour: { name: 'slides', needs: () => true },
  canvasRules: [
    outlinedEmpty('.slides>ul'),
    // Its script shows the bar, and the canvas runs none.
    { selector: '.step-bar[hidden]', declarations: { display: 'flex!important' } },
  ],
  render: ({ content, look }, context) =>
    el(
      'section',
      {
        className: ['slides'],
        ariaLabel: content.label || 'Slides',
      },
      stepBar({ count: context.count('slides'), canPlay: look.canPlay }),
      el(
        'ul',
        { tabIndex: 0, ariaLabel: `${content.label || 'Slides'}, scrolled sideways` },
        context.slot('slides'),
      ),
    ),
  words: () => [],
})
