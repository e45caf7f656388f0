/**
 * Finds the widths between which something is wrong, from what is found at single widths: at some first, and then halfway
 * wherever something came or went between two of them, until the edge is known to one px.
 */
import type { Gully } from './gully.ts'
import { WIDTH_RULES, type Reading, type RuledStrain, type Setting } from './run-rules.ts'
import { jump } from './rules/jump.ts'
import { textResized, textSpacing } from './rules/text-settings.ts'

export const SWEEP_FROM = 320
export const SWEEP_TO = 1920

/** So far apart are the first widths. */
const STEP = 32
/** With a setting of the browser, where what is lost is lost over wide ranges. */
const SETTING_STEP = 160
/** So often no page changes: an end for what never settles. */
const MOST_WIDTHS = 400

export interface SweepRange {
  readonly from: number
  readonly to: number
  /** The first width of each size but the narrowest. */
  readonly bounds: readonly number[]
}

/** The widths that are measured first, narrow to wide: the ends, both sides of each bound, and a coarse step between. */
export function firstWidths({ from, to, bounds }: SweepRange, setting: Setting): readonly number[] {
  const step = setting === 'plain' ? STEP : SETTING_STEP
  const even = Array.from({ length: Math.floor((to - from) / step) + 1 }, (_unused, i) => from + i * step)
  const sides = bounds.flatMap((bound) => [bound - 1, bound]).filter((at) => at >= from && at <= to)
  return [...new Set([...even, ...sides, to])].sort((a, b) => a - b)
}

/** The readings of one band with one setting, and what is still to be measured. */
export class Sweep {
  readonly setting: Setting
  readonly #guesses: readonly number[]
  readonly #still: readonly StillRange[]
  readonly #readings = new Map<number, Reading>()
  /** All measured widths, narrow to wide. */
  #widths: number[] = []
  /** What `between` gives until another width is measured: it is asked for again with every layout of the page. */
  #between: readonly number[] | undefined

  /** Edges are looked for first where they were before an edit: an edit of a text leaves most where they are. */
  constructor(setting: Setting, before?: Sweep) {
    this.setting = setting
    this.#guesses = before?.edges ?? []
    this.#still = before?.stillRanges ?? []
  }

  take(width: number, reading: Reading): void {
    if (!this.#readings.has(width)) {
      const at = this.#widths.findIndex((other) => other > width)
      this.#widths.splice(at < 0 ? this.#widths.length : at, 0, width)
    }
    this.#readings.set(width, reading)
    this.#between = undefined
  }

  get widths(): readonly number[] {
    return this.#widths
  }

  readingAt(width: number): Reading | undefined {
    return this.#readings.get(width)
  }

  /** The edges that are known, each by the width before it. */
  get edges(): readonly number[] {
    return this.#widths.filter((width, i) => {
      const next = this.#widths[i + 1]
      return next === width + 1 && !isAlike(this.#readings.get(width)!, this.#readings.get(next)!)
    })
  }

  /** The ranges of measured widths in which nothing of the band changes its size: what is as wide as it gets. */
  get stillRanges(): readonly StillRange[] {
    const ranges: StillRange[] = []
    let from = this.#widths[0]
    for (const [i, width] of this.#widths.entries()) {
      const next = this.#widths[i + 1]
      if (next !== undefined && isStill(this.#readings.get(width)!, this.#readings.get(next)!)) continue
      if (from !== undefined && width > from) ranges.push({ from, to: width })
      from = next
    }
    return ranges
  }

  /** Whether a width may be done without, since nothing changed its size around it before the edit. */
  isStillAround(width: number): boolean {
    return this.#rangeAround(width) !== undefined
  }

  /** Takes for a width inside such a range what its ends have. Returns false, and takes nothing, where the ends differ now. */
  carry(width: number): boolean {
    const range = this.#rangeAround(width)
    const [low, high] = range ? [this.#readings.get(range.from), this.#readings.get(range.to)] : []
    if (!low || !high || !isStill(low, high)) return false
    this.take(width, low)
    return true
  }

  #rangeAround(width: number): StillRange | undefined {
    return this.#still.find(({ from, to }) => width > from && width < to)
  }

  /** The next widths to measure between two that differ, in the middle or where an edge is guessed; none when all edges are known. */
  between(): readonly number[] {
    return (this.#between ??= this.#findBetween())
  }

  #findBetween(): readonly number[] {
    if (this.#widths.length >= MOST_WIDTHS) return []
    return this.#widths.slice(1).flatMap((to, i) => {
      const from = this.#widths[i]!
      if (to - from < 2 || isAlike(this.#readings.get(from)!, this.#readings.get(to)!)) return []
      return [this.#guessBetween(from, to) ?? from + Math.floor((to - from) / 2)]
    })
  }

  /** A side of a guessed edge that was not measured yet. */
  #guessBetween(from: number, to: number): number | undefined {
    return this.#guesses.flatMap((edge) => [edge, edge + 1]).find((width) => width > from && width < to)
  }

  /** The ranges of widths in which each thing is wrong, as far as they are known. */
  gullies(): readonly Gully[] {
    const found: Gully[] = []
    const open = new Map<string, { from: number; to: number; worst: RuledStrain; at: number }>()
    const close = (key: string): void => {
      const { from, to, worst, at } = open.get(key)!
      open.delete(key)
      found.push(gullyOf(worst, { from, to, worst: at }))
    }
    for (const width of this.#widths) {
      const { strains } = this.#readings.get(width)!
      for (const key of [...open.keys()]) if (!strains.has(key)) close(key)
      for (const [key, strain] of strains) {
        const known = open.get(key)
        const isWorse = !known || strain.amount > known.worst.amount
        open.set(key, {
          from: known?.from ?? width,
          to: width,
          worst: isWorse ? strain : known.worst,
          at: isWorse ? width : known.at,
        })
      }
    }
    for (const key of [...open.keys()]) close(key)
    return found
  }
}

/** From one measured width to another. */
interface StillRange {
  readonly from: number
  readonly to: number
}

function isStill(a: Reading, b: Reading): boolean {
  return (
    isAlike(a, b) &&
    a.extent === b.extent &&
    a.height === b.height &&
    a.order === b.order &&
    a.loaded.join() === b.loaded.join()
  )
}

function isAlike(a: Reading, b: Reading): boolean {
  if (a.shape !== b.shape || a.strains.size !== b.strains.size) return false
  for (const key of a.strains.keys()) if (!b.strains.has(key)) return false
  return true
}

/** What is said of every rule. */
export const RULES = new Map([...WIDTH_RULES, textResized, textSpacing, jump].map((one) => [one.rule, one]))

function gullyOf({ rule, id, why }: RuledStrain, range: Pick<Gully, 'from' | 'to' | 'worst'>): Gully {
  const { source, severity } = RULES.get(rule)!
  return { rule, nodeId: id, ...range, why, source, severity }
}

/** What of a page is lost as it is, and not by a setting. */
const LOSSES: readonly string[] = [
  'sideways',
  'fixed-width',
  'outside',
  'cut-text',
  'covered-text',
  'broken-word',
]

/** What a setting of the browser loses, without what is lost already. */
export function lostBySetting(gullies: readonly Gully[], plain: readonly Gully[]): readonly Gully[] {
  return gullies.flatMap((one) =>
    plain.filter(({ nodeId, rule }) => nodeId === one.nodeId && LOSSES.includes(rule)).reduce(without, [one]),
  )
}

/** What is left of gullies beside a range of widths. */
function without(gullies: readonly Gully[], { from, to }: Gully): readonly Gully[] {
  return gullies.flatMap((one) => {
    if (one.to < from || one.from > to) return [one]
    const parts = [
      { from: one.from, to: from - 1 },
      { from: to + 1, to: one.to },
    ].filter((part) => part.from <= part.to)
    return parts.map((part) => ({
      ...one,
      ...part,
      worst: Math.min(part.to, Math.max(part.from, one.worst)),
    }))
  })
}
