import { el, type Element } from './element.ts'

/** An element inside a link, or by itself where the link leads nowhere. */
export function linked(href: string | undefined, inner: Element): Element {
  return href === undefined ? inner : el('a', { href }, inner)
}
