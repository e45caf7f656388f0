import { lineWords, richTextWords, type Json } from '@gullyline/core'

/** A value of a block in a few words, for lists. */
export function valueWords(value: Json | null): string {
  if (value === null) return 'nothing'
  if (typeof value === 'string') return value === '' ? 'nothing' : value
  if (typeof value === 'number') return String(value)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) {
    const list = value as readonly { readonly type?: string; readonly text?: string }[]
    if (list.every(({ text }) => typeof text === 'string')) return lineWords(value)
    if (list.every(({ type }) => typeof type === 'string')) return richTextWords(value).join(' ')
    return `${value.length} entries`
  }
  const { id, href, page } = value as { readonly id?: Json; readonly href?: Json; readonly page?: Json }
  if (typeof href === 'string') return href
  if (page !== undefined) return 'a page of the site'
  return id === undefined ? 'another setting' : 'a picture'
}
