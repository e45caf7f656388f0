let count = 0

/** A sentence that nothing else has typed in this run. */
export function sentence(): string {
  return `Heron ${++count} waits.`
}
