/**
 * A band is as wide as the screen and keeps its content in a middle column. The grid makes both sides at least a
 * gutter wide, so no element is needed around the content.
 */
import type { CssRule, Declarations } from './css-rules.ts'

export function bandRules(className: string): Omit<CssRule, 'size'>[] {
  return [
    {
      selector: `.${className}`,
      declarations: {
        display: 'grid',
        position: 'relative',
        'grid-template-columns': 'minmax(var(--gutter),1fr) minmax(0,var(--w)) minmax(var(--gutter),1fr)',
      },
    },
    {
      selector: `.${className}>*`,
      declarations: { 'grid-column': '2', 'min-width': '0', position: 'relative' },
    },
  ]
}

/** How wide the middle column is: a width of the look, or the whole screen. */
export function bandWidth(width: 'reading' | 'broad' | 'edge'): Declarations {
  if (width === 'edge') return { '--w': '100%', 'grid-template-columns': '0 minmax(0,1fr) 0' }
  return { '--w': `var(--width-${width})` }
}
