import {
  applyEdits,
  findJump,
  fixCandidates,
  jump,
  PageSweep,
  sampleWidth,
  type MeasuredPoint,
  sizeBounds,
  type WithSizes,
  settingOf,
  SWEEP_FROM,
  type Fix,
  type Gully,
  type Page,
  type Reading,
  type Registry,
  type SiteContext,
  type SweepJob,
} from '@gullyline/core'
import { untilLetGo } from '../../ui/held.ts'
import { whenIdle } from '../../ui/when-idle.ts'
import { BandReader } from './band-reader.ts'
import { UNMEASURED, type GullyState } from './gully-state.ts'
import { MeasuringTurn } from './measuring-turn.ts'
import { MeasuredHtml, type MeasuredDocument } from './measured-html.ts'
import { SliceSize } from './slice-size.ts'
import { SweepFrame } from './sweep-frame.ts'

/** A fix that was tried, with the page as it is and as it would be. */
export interface TriedFix extends Fix {
  readonly before: MeasuredDocument
  readonly after: MeasuredDocument
}

/** Nobody waits longer than this for an idle moment, in ms. */
const IDLE_WITHIN_MS = 120
/** So often the screen hears of what is found while measuring goes on. */
const TOLD_EVERY_MS = 250
/** What failed is tried again after so long, in ms, each time after twice as long, up to the second. */
const TRIED_AGAIN_MS = [2_000, 60_000] as const
const MOST_FIXES = 4
/** So many widths inside a gully are tried beside its ends. */
const TRIED_BETWEEN = 5

/** Measures a page in slices between all else that goes on, and again what an edit changed. */
export class Sweeper {
  readonly #registry: Registry
  readonly #context: SiteContext
  readonly #html: MeasuredHtml
  readonly #frame: SweepFrame
  readonly #reader = new BandReader()
  readonly #sweep: PageSweep
  readonly #onState: (state: GullyState) => void
  #page: Page | undefined
  /** Counts up with every page that is shown: what was begun for one before is dropped. */
  #run = 0
  readonly #size = new SliceSize()
  readonly #turn = new MeasuringTurn()
  #toldAt = 0
  #told = UNMEASURED
  #failures = 0
  #isDisposed = false

  constructor(registry: Registry, context: SiteContext, onState: (state: GullyState) => void) {
    const bounds = sizeBounds(context.look)
    this.#registry = registry
    this.#context = { ...context, purpose: 'measure' }
    this.#html = new MeasuredHtml(registry, this.#context)
    this.#frame = new SweepFrame(context.site.language, bounds)
    this.#sweep = new PageSweep(bounds)
    this.#onState = onState
  }

  /** Measures this page from now on. */
  show(page: Page): void {
    const run = ++this.#run
    // One that is tried again was not changed.
    if (page !== this.#page) this.#turn.take()
    this.#page = page
    // The code that reads what is measured may not be had for a while.
    this.#measureAll(run).catch(() => {
      if (run !== this.#run) return
      this.#tell('failed')
      const [first, most] = TRIED_AGAIN_MS
      setTimeout(
        () => {
          if (run === this.#run) this.show(page)
        },
        Math.min(most, first * 2 ** this.#failures++),
      )
    })
  }

  /** Leaves the page unmeasured for now: somebody is editing it. */
  pause(): void {
    this.#run++
    this.#turn.take()
    if (this.#told.stage !== 'waiting') this.#pass({ ...this.#told, stage: 'waiting' })
  }

  /** What was measured of the whole page, from narrow to wide. */
  get points(): readonly MeasuredPoint[] {
    return this.#sweep.points
  }

  /** Fixes of a gully that were laid out and found to mend it: those that break nothing else first, the gentlest before the others. */
  async fixesOf(page: Page, gully: Gully): Promise<readonly TriedFix[]> {
    const { look, site } = this.#context
    const html = new MeasuredHtml(this.#registry, this.#context)
    const before = html.write(page)
    const asIs = new SweepFrame(site.language, sizeBounds(look))
    const tried = new SweepFrame(site.language, sizeBounds(look))
    try {
      const old = asIs.show(before)
      const unchanged = tried.show(before)
      await Promise.all([asIs.ready(), tried.ready()])
      const broken = new Map<string, ReadonlySet<string>>()
      const clean: TriedFix[] = []
      const others: TriedFix[] = []
      for (const fix of fixCandidates(page, gully, { registry: this.#registry, look })) {
        if (clean.length >= MOST_FIXES) break
        const changed = applyEdits(page, fix.edits, this.#registry)
        if (!changed.ok) continue
        const after = html.write(changed.page)
        const bands = tried.show(after)
        // What did not change is broken as before. Where the gully is, is looked at in any case.
        const here = new Set(gully.nodeId === undefined ? bands.keys() : tried.bandsWith([gully.nodeId]))
        const looked = new Map([...bands].filter(([key]) => here.has(key) || !unchanged.has(key)))
        const left = await this.#namesAt(tried, looked, gully)
        const same = left.get(nameOf(gully.rule, gully.nodeId))?.widths ?? []
        if (same.some((width) => width >= gully.from && width <= gully.to)) continue
        for (const key of asIs.bandsWith([...left.values()].map(({ node }) => node)))
          if (!broken.has(key))
            broken.set(key, new Set((await this.#namesAt(asIs, pick(old, key), gully)).keys()))
        const wasBroken = (name: string): boolean => [...broken.values()].some((names) => names.has(name))
        ;([...left.keys()].every(wasBroken) ? clean : others).push({ ...fix, before, after })
      }
      return [...clean, ...others].slice(0, MOST_FIXES)
    } finally {
      asIs.dispose()
      tried.dispose()
    }
  }

  /** What is found in these bands at the widths where a fix is tried, by rule and node; the bands that jump there among it, where the gully is such a jump. */
  async #namesAt(
    frame: SweepFrame,
    bands: ReadonlyMap<string, string>,
    gully: Gully,
  ): Promise<ReadonlyMap<string, { readonly node: string; readonly widths: readonly number[] }>> {
    const { rule, from, to } = gully
    const setting = settingOf(rule)
    const names = new Map<string, { readonly node: string; readonly widths: number[] }>()
    const add = (rule: string, node: string, width: number): void => {
      const name = nameOf(rule, node)
      const one = names.get(name) ?? { node, widths: [] }
      names.set(name, one)
      one.widths.push(width)
    }
    const readings = new Map<number, ReadonlyMap<string, Reading>>()
    for (const width of triedWidths(gully, this.#context.look)) {
      const measured = frame.measure({ width, setting, bands: [...bands.keys()] })
      const read = await this.#reader.read({ setting, bands: measured, pictures: frame.pictures })
      readings.set(width, read)
      for (const { strains } of read.values())
        for (const strain of strains.values()) add(strain.rule, strain.id, width)
    }
    for (const [key, node] of rule === jump.rule ? bands : []) {
      const [low, high] = [readings.get(from)?.get(key), readings.get(to)?.get(key)]
      if (low && high && findJump(node, to, low, high)) add(rule, node, to)
    }
    return names
  }

  dispose(): void {
    this.#isDisposed = true
    this.#run++
    this.#frame.dispose()
    this.#reader.dispose()
    this.#turn.dispose()
  }

  async #measureAll(run: number): Promise<void> {
    await this.#idle()
    if (run !== this.#run) return
    this.#sweep.show(this.#frame.show(this.#html.write(this.#page!)))
    this.#tell('measuring')
    await this.#frame.ready()
    for (let job = this.#sweep.next(this.#size.most); job; job = this.#sweep.next(this.#size.most)) {
      await this.#idle()
      if (run !== this.#run) return
      const bands = this.#measure(job)
      const readings = await this.#reader.read({
        setting: job.setting,
        bands,
        pictures: this.#frame.pictures,
      })
      if (this.#isDisposed) return
      // Readings of bands that are there no more are for nobody; the others are as good as ever.
      this.#sweep.take(job, readings)
      if (run !== this.#run) return
      if (performance.now() - this.#toldAt > TOLD_EVERY_MS) this.#tell('measuring')
    }
    this.#failures = 0
    this.#tell('whole')
  }

  /** Settles when the browser has nothing else to do, in this tab and in others, and nobody drags anything. */
  async #idle(): Promise<void> {
    await untilLetGo()
    await this.#turn.come()
    await whenIdle(IDLE_WITHIN_MS)
  }

  #measure(job: SweepJob) {
    const from = performance.now()
    const bands = this.#frame.measure(job)
    this.#size.note(job.bands.length, performance.now() - from)
    return bands
  }

  #tell(stage: Exclude<GullyState['stage'], 'waiting'>): void {
    this.#toldAt = performance.now()
    const progress = stage === 'whole' ? 1 : this.#sweep.progress
    this.#pass({ page: this.#page, gullies: this.#sweep.gullies(), progress, stage })
  }

  #pass(state: GullyState): void {
    this.#told = state
    this.#onState(state)
  }
}

/** Where a fix is tried: at the ends of a gully, where it is worst, and between. */
function triedWidths({ from, to, worst }: Gully, look: WithSizes): ReadonlySet<number> {
  const between = Array.from({ length: TRIED_BETWEEN }, (_unused, i) =>
    Math.round(from + ((to - from) * (i + 1)) / (TRIED_BETWEEN + 1)),
  )
  // At the ends and samples of all sizes as well, since what is set at a wide one is inherited.
  const samples = look.sizes.map(({ key }) => sampleWidth(key, look))
  const elsewhere = [SWEEP_FROM, ...sizeBounds(look).map((bound) => bound - 1), ...samples]
  return new Set([from, ...between, to, worst, ...elsewhere])
}

function pick(bands: ReadonlyMap<string, string>, key: string): ReadonlyMap<string, string> {
  return new Map([...bands].filter(([one]) => one === key))
}

function nameOf(rule: string, node: string | undefined): string {
  return `${rule} ${node ?? ''}`
}
