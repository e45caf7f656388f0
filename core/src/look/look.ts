import type { SiteSize } from '../sizes/site-sizes.ts'
import type { RadiusStep, SpaceStep, TypeStep } from './scales.ts'

/**
 * A length that grows with the screen: `from` px at a width of 360 px and below, `to` px at 1280 px and above,
 * in a straight line between.
 */
export interface FluidLength {
  readonly from: number
  readonly to: number
}

/** One step of type. */
export interface TypeStyle {
  readonly size: FluidLength
  /** Line height as a multiple of the size. */
  readonly leading: number
  /** Letter spacing in em. */
  readonly tracking: number
  readonly weight: number
  readonly family: 'words' | 'titles'
}

/**
 * A background with all colours that may stand on it, so that contrast is a property of the surface and not of
 * luck. Colours are `#rrggbb`.
 */
export interface Surface {
  readonly title: string
  readonly background: string
  readonly ink: string
  readonly quiet: string
  readonly titleInk: string
  readonly link: string
  readonly accent: string
  readonly onAccent: string
  readonly line: string
}

/** One font file of a family, shipped with the application. `file` is a name without a path. */
export interface FontFile {
  readonly file: string
  readonly style: 'normal' | 'italic'
  /** CSS weight or range, such as "300 900". */
  readonly weight: string
}

export interface FontFamily {
  readonly name: string
  /** CSS families to fall back on, such as "Georgia, serif". */
  readonly fallback: string
  readonly files: readonly FontFile[]
  /** What text is set in until the files have come; see `fallbackFace`. Absent for fonts that were never measured. */
  readonly metrics?: FontMetrics
}

/** Measures of a font in units of its own, as its tables have them (OpenType 1.9, "hhea" and "head"). */
export interface FontMetrics {
  readonly unitsPerEm: number
  readonly ascent: number
  /** Below the baseline, so negative. */
  readonly descent: number
  readonly lineGap: number
  /** Mean width of a letter, weighed by how often letters come in English. */
  readonly letterWidth: number
  /** The installed font that is stretched to the same measures. */
  readonly like: 'serif' | 'sans'
}

/** A site's look: what the names on its pages stand for. */
export interface Look {
  readonly fonts: { readonly words: FontFamily; readonly titles: FontFamily }
  readonly space: Readonly<Record<SpaceStep, FluidLength>>
  readonly type: Readonly<Record<TypeStep, TypeStyle>>
  /** Corner radii in px. */
  readonly radius: Readonly<Record<RadiusStep, number>>
  readonly surfaces: Readonly<Record<string, Surface>>
  /** The surface of a page where none is set; a key of `surfaces`. */
  readonly pageSurface: string
  /** Widths of a section's content in px. */
  readonly widths: { readonly reading: number; readonly broad: number }
  /** The least distance of content from the screen's edge. */
  readonly gutter: FluidLength
  /** From the widest to the narrowest. */
  readonly sizes: readonly SiteSize[]
  /** Sizes that were taken out: pages keep what was set at them. `from` is where each met the next wider one. */
  readonly formerSizes?: readonly SiteSize[]
  /** Sets of surfaces that a part of the site may have instead of the site's own, by name. */
  readonly themes?: Readonly<Record<string, Theme>>
  /** True where the site's keeper lets pages have measures and colours that the look does not have. */
  readonly ownValues?: boolean
}

/** What a page theme changes: surfaces by the names the look has for them, and which of them pages begin with. */
export interface Theme {
  readonly title: string
  readonly surfaces: Readonly<Record<string, Surface>>
  readonly pageSurface?: string
}

const FLUID_FROM = 360
const FLUID_TO = 1280
const REM = 16

/**
 * A fluid length as CSS, in rem so that it follows the reader's own text size (WCAG 2.2, 1.4.4).
 * The line through (360, from) and (1280, to); clamp is CSS Values and Units 4, "Comparison Functions".
 */
export function fluidCss(length: FluidLength): string {
  const { from, to } = length
  if (from === to) return remCss(from)
  const slope = (to - from) / (FLUID_TO - FLUID_FROM)
  const intercept = from - slope * FLUID_FROM
  const low = Math.min(from, to)
  const high = Math.max(from, to)
  return `clamp(${remCss(low)},${remCss(intercept)} + ${round(slope * 100)}vw,${remCss(high)})`
}

/** The value of a fluid length in px at a screen width in px, for a text size of 16 px. */
export function fluidPx(length: FluidLength, screenWidth: number): number {
  const share = (screenWidth - FLUID_FROM) / (FLUID_TO - FLUID_FROM)
  return length.from + (length.to - length.from) * Math.min(1, Math.max(0, share))
}

/** A length in px as rem, for a text size of 16 px. */
export function remCss(px: number): string {
  return px === 0 ? '0rem' : `${round(px / REM)}rem`
}

function round(value: number): number {
  return Math.round(value * 10_000) / 10_000
}
