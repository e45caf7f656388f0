import { SAMPLE_WIDTHS, SIZE_KEYS, SIZE_WORDS, type Look, type SizeKey } from '@gullyline/core'

/** The screen widths that the ruler reaches, in px. 320 is the width of WCAG 2.2, 1.4.10. */
export const RULER_FROM = 320
export const RULER_TO = 1920

/** Where a width stands on the ruler, from 0 to 1. */
export function shareOf(width: number): number {
  return (width - RULER_FROM) / (RULER_TO - RULER_FROM)
}

/** The width at a share of the ruler, whole and within its ends. */
export function widthAt(share: number): number {
  return clampWidth(RULER_FROM + share * (RULER_TO - RULER_FROM))
}

export function clampWidth(width: number): number {
  return Math.round(Math.min(RULER_TO, Math.max(RULER_FROM, width)))
}

/** A named size on the ruler: the range of widths it reaches over and the width that stands for it. */
export interface RulerSize {
  readonly size: SizeKey
  readonly title: string
  readonly from: number
  readonly to: number
  readonly sample: number
}

/** The sizes from narrow to wide. */
export function rulerSizes({ bounds }: Look): readonly RulerSize[] {
  const ends = {
    narrow: [RULER_FROM, bounds.medium],
    medium: [bounds.medium, bounds.wide],
    base: [bounds.wide, RULER_TO],
  } as const
  return [...SIZE_KEYS].reverse().map((size) => ({
    size,
    title: SIZE_WORDS[size],
    from: ends[size][0],
    to: ends[size][1],
    sample: SAMPLE_WIDTHS[size],
  }))
}

/** The width that stands for the next named size in a direction; the same width at the ends. */
export function nextSample(sizes: readonly RulerSize[], width: number, direction: -1 | 1): number {
  const at = sizes.findIndex((size) => width < size.to)
  return sizes[(at < 0 ? sizes.length - 1 : at) + direction]?.sample ?? width
}
