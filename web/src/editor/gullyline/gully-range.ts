import type { Gully } from '@gullyline/core'

/** A range of widths in words. */
export function rangeOf({ from, to }: Pick<Gully, 'from' | 'to'>): string {
  return from === to ? `${from} px` : `${from}–${to} px`
}

/** The width in the middle of a gully. */
export function middleOf({ from, to }: Pick<Gully, 'from' | 'to'>): number {
  return Math.round((from + to) / 2)
}
