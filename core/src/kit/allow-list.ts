/** The one place where an address from a document is let through or not. */

const SCHEMES = new Set(['http', 'https', 'mailto', 'tel'])

// The URL Standard ("basic URL parser") strips leading and trailing C0 controls and spaces, and removes tabs and
// newlines anywhere; a browser therefore reads "java\nscript:" as a script address, and so must we.
const STRIPPED = /[\u0000-\u0020\u007f\u0085\u00a0\u2028\u2029\ufeff]/g

/**
 * The address when a page may link to it, else undefined: relative addresses, and absolute ones with a scheme of
 * the list (URL Standard, "URL scheme string").
 */
export function safeHref(href: string): string | undefined {
  const trimmed = href.trim()
  const scheme = /^([^/?#:]*):/.exec(trimmed.replace(STRIPPED, ''))?.[1]
  if (scheme !== undefined && !SCHEMES.has(scheme.toLowerCase())) return undefined
  return trimmed === '' ? undefined : trimmed
}

/** The parser of the URL Standard, which browsers and Node.js have as a global. */
declare const URL: { canParse(url: string): boolean }

/** What keeps an address from being linked to; see `hrefFault`. */
export type HrefFault = 'not-allowed' | 'incomplete' | 'not-an-address'

/**
 * Why a page can't link to an address; undefined when it can. It is `incomplete` when it does not say all of where it
 * leads, with a scheme, or as a place of this site, "/…", or of this page, "#…": others are read as relative to the page
 * they stand on, which nobody means who types "example.org". It is `not-an-address` when a browser fails to read it, such
 * as one with a space in its host (URL Standard, "URL parsing").
 */
export function hrefFault(href: string): HrefFault | undefined {
  const safe = safeHref(href)
  if (safe === undefined) return 'not-allowed'
  const plain = safe.replace(STRIPPED, '')
  // Browsers read "\\" as "/", so that "/\\" begins another host's address as "//" does.
  if (!/^(https?:\/\/[^/\\]|mailto:.|tel:.|\/(?![/\\])|#|\?)/i.test(plain)) return 'incomplete'
  return /^https?:/i.test(plain) && !URL.canParse(safe) ? 'not-an-address' : undefined
}
