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

/**
 * Whether an address says all of where it leads: with a scheme, or as a place of this site, "/…", or of this page, "#…".
 * Others are read as relative to the page they stand on, which nobody means who types "example.org".
 */
export function isCompleteHref(href: string): boolean {
  const plain = href.trim().replace(STRIPPED, '')
  return /^(https?:\/\/[^/]|mailto:.|tel:.|\/(?!\/)|\/$|#|\?)/i.test(plain)
}
