const FAULT = 'A language is written as a tag such as en, en-GB or de.'

/** Returns why a text is no language tag (RFC 5646, as ECMA-402 reads it), or undefined if it is one. */
export function languageFault(tag: string): string | undefined {
  try {
    return Intl.getCanonicalLocales(tag).length === 1 ? undefined : FAULT
  } catch {
    return FAULT
  }
}
