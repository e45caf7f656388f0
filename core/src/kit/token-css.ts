/** CSS values that stand for tokens of the look: custom properties that `look-css.ts` gives values to. */
import { isOwnMeasure, ownMeasureCss } from '../look/own-values.ts'
import type { Declarations } from './css-rules.ts'

export function space(step: string): string {
  if (isOwnMeasure(step)) return ownMeasureCss(step)
  return step === 'none' ? '0px' : `var(--space-${step})`
}

export function radius(step: string): string {
  return isOwnMeasure(step) ? ownMeasureCss(step) : `var(--radius-${step})`
}

/**
 * Everything that a step of type sets. `font` is a shorthand: declare a weight of its own after it, never at one
 * size alone.
 */
export function typeStyle(step: string): Declarations {
  return { font: `var(--type-${step})`, 'letter-spacing': `var(--tracking-${step})` }
}
