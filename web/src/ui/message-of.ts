/** Returns what a caught error says. JavaScript may throw any value, so whatever is no Error is written out. */
export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
