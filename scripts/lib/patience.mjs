/** How long a test waits for what must be quick: a limit is of an idle machine, and one that is busy or slow gets more. */
import { createHash } from 'node:crypto'
import { performance } from 'node:perf_hooks'

/** What `work` takes on the idle machine that the limits were set on, in ms. */
const IDLE_MS = 35
const ROUNDS = 3

/**
 * `limit` in ms where what took `took` ms was quick enough; where it was not, the limit made longer by as much as a fixed
 * piece of work now takes longer than on an idle machine.
 */
export function patienceOf(limit, took) {
  if (took < limit) return limit
  const rounds = []
  for (let i = 0; i < ROUNDS; i++) rounds.push(timeOf(work))
  return limit * Math.max(1, Math.max(...rounds) / IDLE_MS)
}

function timeOf(act) {
  const start = performance.now()
  act()
  return performance.now() - start
}

/** Objects made, written, read and hashed: the kinds of work that requests are made of. */
function work() {
  const made = Array.from({ length: 20_000 }, (_one, i) => ({ id: `n${i}`, words: [`${i}`, i % 7] }))
  const text = JSON.stringify(made)
  const read = JSON.parse(text)
  createHash('sha256')
    .update(text + read.length)
    .digest('hex')
}
