/** Things side by side in a list that is scrolled: how wide each is, and the buttons that the script adds. */
import type { SizedRule } from '../blocks/define-block.ts'
import { space } from './token-css.ts'

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

/** The buttons of behaviours/slides.ts under this selector. */
export function stepButtonRules(selector: string): SizedRule[] {
  return [
    {
      selector: `${selector} [data-step]`,
      declarations: {
        font: 'inherit',
        color: 'var(--on-accent)',
        background: 'var(--accent)',
        border: '0',
        'border-radius': 'var(--radius-s)',
        padding: '.5em .9em',
        margin: '.6em .5em 0 0',
        cursor: 'pointer',
      },
    },
    {
      selector: `${selector} [data-step]:focus-visible`,
      declarations: { outline: '2px solid var(--link)', 'outline-offset': '2px' },
    },
  ]
}
