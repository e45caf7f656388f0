/** Corners, border and shadow: what every box with a background of its own can be given. */
import { choice, step, type FieldSchema } from './fields.ts'
import type { Declarations } from './css-rules.ts'
import { radius } from './token-css.ts'

export interface BoxLook {
  readonly surface?: string
  readonly radius?: string
  readonly border?: keyof typeof BORDERS
  readonly shadow?: keyof typeof SHADOWS
}

const BORDERS = { none: undefined, line: '1px solid var(--line)', strong: '2px solid var(--accent)' } as const
const SHADOWS = {
  none: undefined,
  low: '0 1px 2px rgb(0 0 0/.12),0 2px 8px rgb(0 0 0/.08)',
  high: '0 2px 6px rgb(0 0 0/.14),0 12px 32px rgb(0 0 0/.16)',
} as const

export function boxLookFields(): Readonly<Record<string, FieldSchema>> {
  return {
    radius: step('Corners', 'radius', 'none'),
    border: choice('Border', 'none', { none: 'None', line: 'Line', strong: 'Strong' }),
    shadow: choice('Shadow', 'none', { none: 'None', low: 'Low', high: 'High' }),
  }
}

export function boxLook({ radius: corners, border = 'none', shadow = 'none' }: BoxLook): Declarations {
  return {
    ...(corners && corners !== 'none' ? { 'border-radius': radius(corners) } : {}),
    ...(BORDERS[border] ? { border: BORDERS[border] } : {}),
    ...(SHADOWS[shadow] ? { 'box-shadow': SHADOWS[shadow] } : {}),
  }
}
