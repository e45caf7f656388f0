/**
 * The gullies of a page that is edited. Bands lie one below the other, and none changes how another is laid out: so after an
 * edit only the bands that it changed are measured again.
 */
import { findJump } from './rules/jump.ts'
import type { Gully } from './gully.ts'
import type { Reading, Setting } from './run-rules.ts'
import { firstWidths, lostBySetting, Sweep, SWEEP_FROM, SWEEP_TO, type SweepRange } from './sweep.ts'

/** One layout of the page: these bands of it at this width. */
export interface SweepJob {
  readonly width: number
  readonly setting: Setting
  readonly bands: readonly string[]
}

/** The page at one width. */
export interface MeasuredPoint {
  readonly width: number
  /** In px. */
  readonly height: number
  readonly lines: number
  /** The addresses of the pictures that are loaded. */
  readonly loaded: readonly string[]
}

const SETTINGS: readonly Setting[] = ['plain', 'resized', 'spaced']
/** Text of twice its size is asked for where a page has its whole width: half of this is 320 px (WCAG 2.2, 1.4.10). */
const RESIZED_FROM = 640
/** Every one of so many of the first widths comes first where not even these were known of a band before. */
const SOON = 4

type Sweeps = Readonly<Record<Setting, Sweep>>
interface SweptBand {
  readonly node: string
  readonly sweeps: Sweeps
}

/** One way through first widths. */
interface Round {
  /** Those at which bands may be missing. */
  readonly widths: Set<number>
  /** Whether these are the widths between two others at which an edited band might be as still as it was. */
  readonly isAgain: boolean
}

/** Which widths are still to be measured, of which bands, and what is known by now. */
export class PageSweep {
  readonly #ranges: Readonly<Record<Setting, SweepRange>>
  readonly #first: Readonly<Record<Setting, readonly number[]>>
  #bands: ReadonlyMap<string, SweptBand> = new Map()
  #rounds: Readonly<Record<Setting, readonly Round[]>> = ofSettings(() => [])
  /** The width of the last layout. */
  #at = 0

  constructor(bounds: readonly number[], ends = { from: SWEEP_FROM, to: SWEEP_TO }) {
    const plain = { ...ends, bounds }
    const resized = { ...plain, from: Math.min(ends.to, Math.max(ends.from, RESIZED_FROM)) }
    this.#ranges = { plain, resized, spaced: plain }
    this.#first = ofSettings((setting) => firstWidths(this.#ranges[setting], setting))
  }

  /**
   * Takes the bands of the page as it is now: the node that each is, by its key. Those with a key that was there before stay
   * as they were measured.
   */
  show(nodes: ReadonlyMap<string, string>): void {
    const before = this.#bands
    const gone = new Map([...before].flatMap(([key, band]) => (nodes.has(key) ? [] : [[band.node, band]])))
    this.#bands = new Map(
      [...nodes].map(([key, node]) => [
        key,
        before.get(key) ?? { node, sweeps: newSweeps(gone.get(node)?.sweeps) },
      ]),
    )
    const isKnown = ([key, node]: readonly [string, string]): boolean =>
      this.#isCoarselyKnown(before.get(key) ?? gone.get(node))
    const hasUnknown = ![...nodes].every(isKnown)
    this.#rounds = ofSettings((setting) =>
      roundsThrough(this.#first[setting], hasUnknown && setting === 'plain'),
    )
  }

  /**
   * The next layout to measure, of so many bands at most; undefined when all is known. The widths that are wanted are gone
   * through on the shortest way: where a page comes to another of its sizes, all of its styles are found anew.
   */
  next(most = Infinity): SweepJob | undefined {
    for (const setting of SETTINGS) {
      const job = this.#firstJob(setting) ?? this.#edgeJob(setting)
      if (!job) continue
      this.#at = job.width
      return job.bands.length <= most ? job : { ...job, bands: job.bands.slice(0, most) }
    }
    return undefined
  }

  take({ width, setting }: SweepJob, readings: ReadonlyMap<string, Reading>): void {
    for (const [key, reading] of readings) this.#bands.get(key)?.sweeps[setting].take(width, reading)
  }

  /** How much of the first widths was measured, from 0 to 1. */
  get progress(): number {
    let done = 0
    let all = 0
    for (const { sweeps } of this.#bands.values())
      for (const setting of SETTINGS) {
        all += this.#first[setting].length
        done += Math.min(sweeps[setting].widths.length, this.#first[setting].length)
      }
    return all === 0 ? 1 : done / all
  }

  /** What is known to be wrong, band by band. */
  gullies(): readonly Gully[] {
    return [...this.#bands.values()].flatMap(({ node, sweeps: { plain, resized, spaced } }) => {
      const found = plain.gullies()
      return [
        ...found,
        ...this.#jumps(node, plain),
        ...lostBySetting([...resized.gullies(), ...spaced.gullies()], found),
      ]
    })
  }

  /** What was measured of the whole page, from narrow to wide, at each width at which all of its bands were. */
  get points(): readonly MeasuredPoint[] {
    const bands = [...this.#bands.values()].map(({ sweeps }) => sweeps.plain)
    return (bands[0]?.widths ?? []).flatMap((width) => {
      const readings = bands.flatMap((band) => band.readingAt(width) ?? [])
      if (readings.length < bands.length) return []
      const sum = (of: (reading: Reading) => number) => readings.reduce((all, one) => all + of(one), 0)
      return [
        {
          width,
          height: Math.round(sum(({ height }) => height)),
          lines: sum(({ lines }) => lines),
          loaded: [...new Set(readings.flatMap(({ loaded }) => loaded))],
        },
      ]
    })
  }

  #jumps(id: string, sweep: Sweep): readonly Gully[] {
    return this.#ranges.plain.bounds.flatMap((bound) => {
      const [below, above] = [sweep.readingAt(bound - 1), sweep.readingAt(bound)]
      return (below && above && findJump(id, bound, below, above)) ?? []
    })
  }

  #isCoarselyKnown(band: SweptBand | undefined): boolean {
    return band !== undefined && band.sweeps.plain.widths.length >= this.#first.plain.length / SOON
  }

  #firstJob(setting: Setting): SweepJob | undefined {
    for (const { widths, isAgain } of this.#rounds[setting])
      while (widths.size > 0) {
        const width = nextOnWay([...widths], this.#at)
        const bands = this.#missingAt(width, setting, isAgain)
        if (bands.length > 0) return { width, setting, bands }
        widths.delete(width)
      }
    return undefined
  }

  #missingAt(width: number, setting: Setting, isAgain: boolean): readonly string[] {
    return [...this.#bands].flatMap(([key, { sweeps }]) => {
      const sweep = sweeps[setting]
      if (sweep.readingAt(width)) return []
      return (isAgain ? sweep.carry(width) : sweep.isStillAround(width)) ? [] : [key]
    })
  }

  /** The next width between others at which something is looked for, with all bands that look there. */
  #edgeJob(setting: Setting): SweepJob | undefined {
    const wanted = new Map<string, readonly number[]>()
    for (const [key, { sweeps }] of this.#bands) wanted.set(key, sweeps[setting].between())
    const widths = [...new Set([...wanted.values()].flat())]
    if (widths.length === 0) return undefined
    const width = nextOnWay(widths, this.#at)
    return {
      width,
      setting,
      bands: [...wanted].filter(([, widths]) => widths.includes(width)).map(([key]) => key),
    }
  }
}

/** Sweeps of a band that was measured before it was edited, or of a new one. */
function newSweeps(before?: Sweeps): Sweeps {
  return ofSettings((setting) => new Sweep(setting, before?.[setting]))
}

/** With `hasSoon`, some of the widths come first, so that something is known soon. */
function roundsThrough(widths: readonly number[], hasSoon: boolean): readonly Round[] {
  const round = (isAgain: boolean, of = widths): Round => ({ widths: new Set(of), isAgain })
  const soon = widths.filter((_width, i) => i % SOON === 0)
  return [...(hasSoon ? [round(false, soon)] : []), round(false), round(true)]
}

/** The next of at least one width on the shortest way through all: to the nearer end first. */
function nextOnWay(widths: readonly number[], at: number): number {
  const [from, to] = [Math.min(...widths), Math.max(...widths)]
  const isUp = at < from || (at <= to && to - at < at - from)
  return isUp
    ? Math.min(...widths.filter((width) => width >= at))
    : Math.max(...widths.filter((width) => width <= at))
}

function ofSettings<T>(of: (setting: Setting) => T): Readonly<Record<Setting, T>> {
  return { plain: of('plain'), resized: of('resized'), spaced: of('spaced') }
}
