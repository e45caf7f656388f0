const DAY_MS = 86_400_000

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const dayOfYear = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

/** A moment as people say it, by default as of now: the time today, the day this year, else the date. */
export function when(iso: string, now: Date = new Date()): string {
  const at = new Date(iso)
  if (now.getTime() - at.getTime() < DAY_MS && now.getDate() === at.getDate()) return clock.format(at)
  return at.getFullYear() === now.getFullYear() ? day.format(at) : dayOfYear.format(at)
}

/** The day of today, as ISO 8601 has it. */
export function today(): string {
  return new Date().toISOString().slice(0, 10)
}
