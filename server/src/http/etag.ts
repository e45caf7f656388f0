/**
 * Whether the value of If-Match or If-None-Match names one of these tags, or any ("*"). Weak tags count where the
 * comparison is weak (RFC 9110, 8.8.3.2).
 */
export function listsTag(value: string, tags: ReadonlySet<string>, { isStrong = false } = {}): boolean {
  if (value.trim() === '*') return true
  return [...value.matchAll(/(W\/)?("[^"]*")/g)].some(
    ([, weak, tag]) => tags.has(tag!) && !(isStrong && weak),
  )
}
