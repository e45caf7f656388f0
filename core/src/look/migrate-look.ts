/** Older looks brought up to the shape of today. */
import { USUAL_SIZES } from '../sizes/site-sizes.ts'

/**
 * Returns a look that was written before sites had sizes of their own as one of today's: `bounds` said where the medium size
 * and the wide one began. What is no such look is returned as it is, for validation to judge; never throws.
 */
export function migrateLook(value: unknown): unknown {
  if (!isObject(value) || !isObject(value.bounds) || 'sizes' in value) return value
  const { bounds, ...look } = value
  const { medium, wide } = bounds
  const begins: Readonly<Record<string, unknown>> = { base: wide, medium, narrow: 0 }
  return { ...look, sizes: USUAL_SIZES.map((size) => ({ ...size, from: begins[size.key] })) }
}

function isObject(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
