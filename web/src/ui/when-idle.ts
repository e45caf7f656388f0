/** Settles when the browser has nothing else to do, or after so many ms. */
export function whenIdle(withinMs: number): Promise<void> {
  return new Promise((resolve) => {
    if ('requestIdleCallback' in window) {
      requestIdleCallback(() => resolve(), { timeout: withinMs })
      return
    }
    // Safari has none: once a frame, after what was pressed and painted.
    requestAnimationFrame(() => setTimeout(resolve))
    setTimeout(resolve, withinMs)
  })
}
