/** Sweeps the page of a frame and lays it out bare, in turns: runs in the browser. */
import { PageSweep, readBand, SETTING_CSS, type SweepJob } from '@gullyline/core'
import { BandMeasurer, bandsOf, nodeOfBand } from '@gullyline/measuring'

export interface SweepTimes {
  readonly whole: number
  readonly bare: number
  /** Of a letter more in each band in turn. */
  readonly edits: readonly number[]
  readonly layouts: number
}

/** The times of one round in ms: a whole sweep, the same layouts with nothing read, and sweeps after a letter more in a band. */
export function timeSweep(frame: HTMLIFrameElement, bounds: readonly number[]): SweepTimes {
  const inner = frame.contentDocument!
  const bands = bandsOf(inner.body)
  const measurer = new BandMeasurer(inner, bounds)
  const sweep = new PageSweep(bounds)
  const jobs: SweepJob[] = []
  const run = (keys: ReadonlyMap<string, Element>): number => {
    const from = performance.now()
    measurer.show(keys)
    sweep.show(new Map([...keys].map(([key, band]) => [key, nodeOfBand(band)])))
    for (let job = sweep.next(); job; job = sweep.next()) {
      const { setting } = job
      frame.style.width = `${job.width}px`
      const measured = measurer.measure(job)
      sweep.take(job, new Map([...measured].map(([key, band]) => [key, readBand(band, {}, setting)])))
      jobs.push(job)
    }
    return performance.now() - from
  }
  const keys = new Map(bands.map((band, i) => [`${i}`, band]))
  const whole = run(keys)
  const layouts = jobs.length
  measurer.bringBack()
  const bare = timeBare(frame, jobs.slice())
  let shown = keys
  const edits = bands.flatMap((band) => {
    const words = band.querySelector('p, h2, h3')
    if (!words) return []
    words.append(' and more')
    shown = new Map([...shown].map(([key, one]) => [one === band ? `${key} again` : key, one]))
    return [run(shown)]
  })
  return { whole, bare, edits, layouts }
}

function timeBare(frame: HTMLIFrameElement, jobs: readonly SweepJob[]): number {
  const inner = frame.contentDocument!
  const style = inner.createElement('style')
  inner.head.append(style)
  const from = performance.now()
  for (const { width, setting } of jobs) {
    if (style.textContent !== SETTING_CSS[setting]) style.textContent = SETTING_CSS[setting]
    frame.style.width = `${width}px`
    inner.documentElement.getBoundingClientRect()
  }
  const took = performance.now() - from
  style.remove()
  return took
}

Object.assign(globalThis, { timeSweep })
