/**
 * A band is as wide as the screen and keeps its content in a middle column. The grid makes both sides at least a
 * gutter wide, so no element is needed around the content.
 */
import type { JsonObject } from '../page/json.ts'
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

/** How wide a block of a band is: as the band's content, wider, or as the screen. Elsewhere it says nothing. */
export const BAND_WIDTHS = { content: 'Content', wide: 'Wide', full: 'Full' } as const
export type BandWidth = keyof typeof BAND_WIDTHS

const BREAKOUTS: Readonly<Record<BandWidth, Declarations>> = {
  content: {},
  wide: {
    'grid-column': '1/-1',
    'justify-self': 'center',
    // The whole screen less its gutters; in a box that is narrower, the box.
    width: 'min(100%,100vw - 2*var(--gutter),var(--width-broad))',
  },
  full: { 'grid-column': '1/-1' },
}

export function breakout(width: BandWidth): Declarations {
  return BREAKOUTS[width]
}

/** The width that a band of this width leaves a child, where its content gets `content`; see `ChildWidth`. */
export function childOfBand(
  width: string,
  content: string | undefined,
  child: JsonObject | undefined,
): string | undefined {
  if (child?.band === 'full') return undefined
  return child?.band === 'wide' ? `min(${width} - 2*var(--gutter),var(--width-broad))` : content
}
