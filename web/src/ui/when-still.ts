/** Work that can wait, such as drawing small pictures: a few pieces at a time, and not while somebody types or presses. */

/** Who pauses for so long is not about to type the next letter. */
const STILL_MS = 150

/** A frame, in ms. Pieces are done together as long as they take less: somebody may begin to type meanwhile. */
const TOGETHER_MS = 16
const MOST_TOGETHER = 8

const waiting = new Set<() => void>()
let lastAct = -Infinity
let isPlanned = false
/** How many pieces are done before the browser draws: each time it does is work of its own. */
let together = 1

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
  if (performance.now() - lastAct < STILL_MS) {
    plan()
    return
  }
  const began = performance.now()
  for (const work of [...waiting].slice(0, together)) {
    waiting.delete(work)
    work()
  }
  isPlanned = true
  // Pieces may leave what they do to React, which comes before this.
  setTimeout(() => {
    const took = performance.now() - began
    if (took > TOGETHER_MS) together = Math.max(1, together / 2)
    else if (took < TOGETHER_MS / 2) together = Math.min(MOST_TOGETHER, together * 2)
    isPlanned = false
    plan()
  })
}
