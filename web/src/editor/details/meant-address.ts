/** What people type for an address as the address they mean: a bare e-mail, phone number or host name. */
export function meantAddress(typed: string): string {
  const words = typed.trim()
  if (/^[^\s@:/]+@[^\s@:/]+\.[^\s@:/]+$/.test(words)) return `mailto:${words}`
  if (/^\+?[\d\s()/.-]{6,}$/.test(words)) return `tel:${words.replace(/[^\d+]/g, '')}`
  if (/^(www\.)?[a-z\d-]+(\.[a-z\d-]+)*\.[a-z]{2,}(\/\S*)?$/i.test(words)) return `https://${words}`
  return words
}
