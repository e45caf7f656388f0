import { sizesOnScreen, stylesheetOnScreen, type FixedScreen } from '@gullyline/core'

/** Chromium uses the faces that documents declare, and none that a shadow tree does (from memory). */
const FONT_FACE = /@font-face\{[^}]*\}/g

/** Nothing of what stands around comes in. */
const ALONE = ':host{all:initial}'

/** What could run, or ask for something, in a document of its own. */
const FOREIGN = 'script,iframe,object,embed,base,link,meta'

export interface Boxed {
  readonly page: HTMLElement
  readonly css: string
  /** The `@font-face` rules of the stylesheet, which are not in `css`. */
  readonly fonts: string
}

/**
 * Takes a whole document apart for a shadow tree on a screen of this size: its element, without anything that could run
 * there, and its stylesheet.
 */
export function boxed(html: string, screen: FixedScreen): Boxed {
  const { documentElement: page } = new DOMParser().parseFromString(html, 'text/html')
  for (const element of page.querySelectorAll(FOREIGN)) element.remove()
  const styles = [...page.querySelectorAll('style')]
  const all = styles.map((style) => style.textContent).join('')
  for (const style of styles) style.remove()
  for (const element of page.querySelectorAll('*')) {
    for (const name of element.getAttributeNames()) if (name.startsWith('on')) element.removeAttribute(name)
    const sizes = element.getAttribute('sizes')
    if (sizes !== null) element.setAttribute('sizes', sizesOnScreen(sizes, screen))
  }
  return {
    page,
    css: ALONE + stylesheetOnScreen(all.replace(FONT_FACE, ''), screen),
    fonts: (all.match(FONT_FACE) ?? []).join(''),
  }
}
