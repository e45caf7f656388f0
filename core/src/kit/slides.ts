/** Things side by side in a list that is scrolled: how wide each is, and the bar to go through them. */
import type { SizedRule } from './css-rules.ts'
import { el, type Element } from './element.ts'
import { space, typeStyle } from './token-css.ts'

interface SideBySide {
  readonly shows: string
  readonly gap: string
}

/** Makes each as wide as its share of the list. */
export function sharedFlex({ shows, gap }: SideBySide): string {
  return `0 0 calc((100% - ${Number(shows) - 1}*${space(gap)})/${shows})`
}

/** The width of each, for `childWidth`. */
export function sharedWidth(width: string, { shows, gap }: SideBySide): string | undefined {
  return shows === '1' ? undefined : `(${width} - ${Number(shows) - 1}*${space(gap)})/${shows}`
}

interface StepBarOptions {
  readonly count: number
  readonly canPlay?: boolean | undefined
}

/**
 * The bar of behaviours/slides.ts: back, where one is, on, and start where the page offers it. Hidden until the script is
 * there, without which it would do nothing; the canvas shows it. Before the slides, as the ARIA Authoring Practices have
 * it, and below them on the screen.
 */
export function stepBar({ count, canPlay = false }: StepBarOptions): Element | false {
  if (count < 2) return false
  return el(
    'div',
    { className: ['step-bar'], hidden: true },
    stepButton('back', 'Back', '←'),
    el('span', { dataPlace: '' }, `1 / ${count}`),
    stepButton('next', 'Next', '→'),
    canPlay && el('button', { type: 'button', dataStep: 'play' }, 'Start'),
  )
}

function stepButton(step: 'back' | 'next', label: string, arrow: string): Element {
  return el('button', { type: 'button', dataStep: step, ariaLabel: label }, arrow)
}

/** Rules for what holds such a list and its bar. */
export function stepBarRules(selector: string): SizedRule[] {
  return [
    { selector, declarations: { display: 'flex', 'flex-direction': 'column', 'min-width': '0' } },
    {
      selector: `${selector} .step-bar`,
      declarations: {
        ...typeStyle('note'),
        display: 'flex',
        order: '1',
        'align-items': 'center',
        gap: '.75em',
        'margin-top': '1em',
        color: 'var(--quiet)',
        'font-variant-numeric': 'tabular-nums',
      },
    },
    { selector: `${selector} .step-bar[hidden]`, declarations: { display: 'none' } },
    {
      selector: `${selector} [data-step]`,
      declarations: {
        font: 'inherit',
        'min-width': '2.75rem',
        'min-height': '2.75rem',
        padding: '0 .9em',
        color: 'var(--ink)',
        background: 'none',
        border: '1px solid var(--line)',
        'border-radius': '1.5rem',
        cursor: 'pointer',
      },
    },
    { selector: `${selector} [data-step]:hover`, declarations: { 'border-color': 'currentColor' } },
    {
      selector: `${selector} [data-step]:focus-visible`,
      declarations: { outline: '2px solid currentColor', 'outline-offset': '2px' },
    },
  ]
}
