import type { Severity } from '../checks/define-check.ts'
import type { ShownId } from '../resolve/expand.ts'
import type { MeasuredBand, PixelsOf } from './measured-page.ts'
import { cutShort } from '../page/cut-short.ts'

/** What one rule finds at one width. */
export interface Strain {
  readonly id: ShownId
  /** How bad it is, in a measure of the rule's own: of one node, the largest stands for all. */
  readonly amount: number
  /** Why, in words for the person who can mend it. */
  readonly why: string
}

export interface MeasuredBandAt {
  readonly band: MeasuredBand
  readonly pixels: PixelsOf
}

/** Something that can go wrong with a page at some widths and not at others. One file each. */
export interface GullyRule {
  /** Stable, for programs. */
  readonly rule: string
  /** What it is called in lists. */
  readonly title: string
  readonly severity: Severity
  /** The standard that asks for it, or "common practice, no source". */
  readonly source: string
  readonly find: (at: MeasuredBandAt) => readonly Strain[]
}

/** A length as it is told: whole px. */
export function told(px: number): string {
  return `${Math.max(1, Math.round(px))} px`
}

/** A text as it is told. */
export function quoted(words: string): string {
  return words.length > 40 ? `“${cutShort(words, 38).trimEnd()}…”` : `“${words}”`
}
