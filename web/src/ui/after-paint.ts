/** Where no frame is painted, as in a tab in the background, nobody sees what comes first. */
const LONGEST_FRAME_MS = 500

/** Calls `work` once the next frame has been painted, and gives what calls it off. */
export function afterPaint(work: () => void): () => void {
  const { port1, port2 } = new MessageChannel()
  // A message that is posted in a frame's callback is handled after that frame was painted.
  const asked = requestAnimationFrame(() => port2.postMessage(undefined))
  const stop = (): void => {
    cancelAnimationFrame(asked)
    clearTimeout(patience)
    port1.close()
  }
  const done = (): void => {
    stop()
    work()
  }
  port1.onmessage = done
  const patience = setTimeout(done, LONGEST_FRAME_MS)
  return stop
}
