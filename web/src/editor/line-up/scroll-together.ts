/** Several pages of different heights, scrolled by their sections: what is at the top of one is at the top of all. */

interface Spot {
  /** Which band of the page, counted from the top. */
  readonly band: number
  /** How much of it lies above the window, from 0 to 1. */
  readonly share: number
}

/** Header, sections and footer, in their order. */
function bandsOf({ body }: Document): readonly Element[] {
  return [...body.children].flatMap((child) => (child.localName === 'main' ? [...child.children] : [child]))
}

function spotOf(inner: Document): Spot {
  const bands = bandsOf(inner)
  const band = Math.max(
    0,
    bands.findLastIndex((one) => one.getBoundingClientRect().top <= 0.5),
  )
  const rect = bands[band]?.getBoundingClientRect()
  return { band, share: rect && rect.height > 0 ? Math.min(1, Math.max(0, -rect.top / rect.height)) : 0 }
}

function scrollToSpot(inner: Document, { band, share }: Spot): void {
  const rect = bandsOf(inner)[band]?.getBoundingClientRect()
  const view = inner.defaultView
  if (rect && view) view.scrollTo({ top: view.scrollY + rect.top + share * rect.height, behavior: 'instant' })
}

/** Scrolls all pages with the one that somebody scrolls. */
export class ScrollTogether {
  readonly #pages = new Map<Document, () => void>()
  /** Where each was put by us: the event of that is no wish. */
  readonly #put = new Map<Document, number>()

  /** Takes a page; returns how to leave it out again. */
  join(inner: Document): () => void {
    const view = inner.defaultView
    if (!view) return () => undefined
    const scrolled = (): void => {
      if (Math.abs((this.#put.get(inner) ?? -1) - view.scrollY) < 1) return
      this.#put.delete(inner)
      const spot = spotOf(inner)
      for (const other of this.#pages.keys()) {
        if (other === inner) continue
        scrollToSpot(other, spot)
        this.#put.set(other, other.defaultView?.scrollY ?? 0)
      }
    }
    view.addEventListener('scroll', scrolled, { passive: true })
    this.#pages.set(inner, scrolled)
    return () => {
      view.removeEventListener('scroll', scrolled)
      this.#pages.delete(inner)
      this.#put.delete(inner)
    }
  }
}
