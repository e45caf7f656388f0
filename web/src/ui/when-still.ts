/** Work that can wait, such as drawing small pictures: a piece at a time, and not while somebody types or presses. */

/** Who pauses for so long is not about to type the next letter. */
const STILL_MS = 150

const waiting = new Set<() => void>()
let lastAct = -Infinity
let isPlanned = false

for (const type of ['keydown', 'pointerdown'])
  window.addEventListener(type, () => (lastAct = performance.now()), { capture: true, passive: true })

/** Does this once nobody has acted for a moment, after what was asked for before. Returns how to call it off. */
export function whenStill(work: () => void): () => void {
  waiting.add(work)
  plan()
  return () => waiting.delete(work)
}

function plan(): void {
  if (isPlanned || waiting.size === 0) return
  isPlanned = true
  const pause = Math.max(0, lastAct + STILL_MS - performance.now())
  // Not when the browser is idle: while a page is measured, it is not for long.
  setTimeout(next, pause)
}

function next(): void {
  isPlanned = false
  const [work] = waiting
  if (work && performance.now() - lastAct >= STILL_MS) {
    waiting.delete(work)
    work()
  }
  plan()
}
