/** One figure: how long ours takes as a multiple of what the reference takes, both measured in the same run. */
export interface Figure {
  readonly figure: string
  readonly ratio: number
  readonly limit: number
  /** What was measured against what, with the medians. */
  readonly about: string
}

const ROUNDS = 21
/** Long enough for several collections of garbage, which come in lumps; short enough to take turns often. */
const ROUND_MS = 120

/** Median time of one call in ms. The two take turns, so that what else the machine does falls on both. */
export function compare(ours: () => void, reference: () => void): { ours: number; reference: number } {
  const callsOfOurs = callsFor(ours)
  const callsOfReference = callsFor(reference)
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.ours.push(timeOf(ours, callsOfOurs))
    times.reference.push(timeOf(reference, callsOfReference))
  }
  return { ours: median(times.ours), reference: median(times.reference) }
}

function callsFor(work: () => void): number {
  let calls = 0
  // Until the compiler has seen enough of it, and to learn how long it takes.
  for (const until = performance.now() + 5 * ROUND_MS; performance.now() < until; calls++) work()
  return Math.max(1, Math.round(calls / 5))
}

function timeOf(work: () => void, calls: number): number {
  const start = performance.now()
  for (let i = 0; i < calls; i++) work()
  return (performance.now() - start) / calls
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)]!
}

export function figureOf(
  figure: string,
  limit: number,
  what: string,
  { ours, reference }: { ours: number; reference: number },
  unit = 'ms',
): Figure {
  const about = `${what}: ${short(ours)} against ${short(reference)} ${unit}`
  return { figure, ratio: ours / reference, limit, about }
}

function short(value: number): string {
  return value >= 100 ? value.toFixed(0) : value.toPrecision(3)
}
