/** A picture behind words: how high it stands and what lies over it. */
import { choice, type FieldSchema } from './fields.ts'

export type Shade = 'none' | 'side' | 'even' | 'deep'

/**
 * Shares of the screen's height, but never so much that nothing else is seen on a very tall one; or all of the screen, as
 * it is while the bars of a phone's browser are there.
 */
export const HEIGHTS = {
  content: undefined,
  half: 'min(50vh,460px)',
  tall: 'min(78vh,700px)',
  full: '100svh',
} as const
export type Height = keyof typeof HEIGHTS

export function heightField(initial: Height): FieldSchema {
  return choice('Height', initial, { content: 'Content', half: 'Half', tall: 'Tall', full: 'Full screen' })
}

/** What lies over a backdrop picture, so that words on it can be read: the surface's own colour, more or less of it. */
export const SHADES: Readonly<Record<Shade, string>> = {
  none: 'none',
  // As wide as words get, and over all of a narrow screen, where they reach from side to side.
  side: 'linear-gradient(90deg,color-mix(in srgb,var(--paper) 84%,transparent),color-mix(in srgb,var(--paper) 70%,transparent) 40rem,color-mix(in srgb,var(--paper) 8%,transparent) max(100%,72rem))',
  even: 'linear-gradient(color-mix(in srgb,var(--paper) 55%,transparent),color-mix(in srgb,var(--paper) 55%,transparent))',
  deep: 'linear-gradient(color-mix(in srgb,var(--paper) 78%,transparent),color-mix(in srgb,var(--paper) 78%,transparent))',
}

export function shadeField(): FieldSchema {
  return choice('Overlay', 'side', {
    none: 'None',
    side: 'From the side',
    even: 'Light',
    deep: 'Strong',
  })
}
