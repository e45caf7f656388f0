import { hrefFault } from '@gullyline/core'

/**
 * What people type for an address as the address they mean: a bare e-mail address, phone number or host name gets its
 * scheme. What is left incomplete is no address; see `hrefFault`.
 */
export function meantAddress(typed: string): string {
  const words = typed.trim()
  if (words === '' || hrefFault(words) === undefined) return words
  if (/^[^\s@:/]+@[^\s@:/]+\.[^\s@:/]+$/.test(words)) return `mailto:${words}`
  if (/^\+?[\d\s()/.-]{6,}$/.test(words)) return `tel:${words.replace(/[^\d+]/g, '')}`
  if (words.startsWith('//')) return `https:${words}`
  // A host name has a dot before its port and path, and letters of any script (URL Standard, "host parsing").
  if (/^[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)*\.\p{L}{2,}(:\d+)?([/?#]\S*)?$/u.test(words))
    return `https://${words}`
  return words
}
