/** A date such as 2026-11-27 as people read it, the same on every machine; what is no date stays as it is. */
export function longDate(date: string, language: string): string {
  const at = new Date(`${date}T00:00:00Z`)
  if (Number.isNaN(at.getTime())) return date
  return new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(at)
}
