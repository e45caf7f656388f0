import { sampleWidth, type Look, type SizeKey } from '@gullyline/core'

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
export function rulerSizes(look: Pick<Look, 'sizes' | 'formerSizes'>): readonly RulerSize[] {
  const { sizes } = look
  return sizes
    .map(({ key, name, from }, i) => ({
      size: key,
      title: name,
      from: Math.max(RULER_FROM, from),
      to: i === 0 ? RULER_TO : sizes[i - 1]!.from,
      sample: sampleWidth(key, look),
    }))
    .reverse()
}

/** The width that stands for the next named size in a direction; the same width at the ends. */
export function nextSample(sizes: readonly RulerSize[], width: number, direction: -1 | 1): number {
  const at = sizes.findIndex((size) => width < size.to)
  return sizes[(at < 0 ? sizes.length - 1 : at) + direction]?.sample ?? width
}
