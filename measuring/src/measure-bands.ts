/** Lays out bands of a page at a width and reads them: one job of a sweep. */
import { SETTING_CSS, type MeasuredBand, type Setting, type SweepJob } from '@gullyline/core'
import { PageMeasurer, sourceOf } from './measure-page.ts'

/** Scrollbars that take room are those of one system; widths are told as on phones. What moves is measured where it stands. */
const STYLE = 'html{scrollbar-width:none}*{transition:none!important;animation:none!important}'

/** The bands of a page, from the top down: what goes from edge to edge. */
export function bandsOf(root: ParentNode): Element[] {
  return [...root.children].flatMap((child) => {
    if (child.localName === 'main') return [...child.children]
    return child.hasAttribute('data-node') ? [child] : []
  })
}

/** The node that a band is: its own, or the first one in it. */
export function nodeOfBand(band: Element): string {
  const own = band.hasAttribute('data-node') ? band : band.querySelector('[data-node]')
  return own?.getAttribute('data-node') ?? ''
}

/** The addresses of the smallest files of all pictures; see `MeasuredPicture`. */
export function picturesOf(root: ParentNode): readonly string[] {
  return [...new Set([...root.querySelectorAll('img')].map(sourceOf))]
}

/** Takes the bands that have no part in a job out of the document: even what is not displayed is styled at every width. */
export class BandMeasurer {
  readonly #document: Document
  readonly #measurer: PageMeasurer
  readonly #style: HTMLStyleElement
  readonly #bounds: readonly number[]
  #bands: ReadonlyMap<string, Element> = new Map()
  /** What stands in the places of bands that are out. */
  readonly #places = new Map<Element, Comment>()
  #setting: Setting = 'plain'
  #size = -1

  /** `bounds` are the first widths of the sizes but the narrowest. */
  constructor(document: Document, bounds: readonly number[]) {
    this.#document = document
    this.#bounds = bounds
    this.#measurer = new PageMeasurer(document)
    this.#style = document.createElement('style')
    this.#write()
  }

  /** Takes the bands of the page as it is now, by their keys. All stand in the document then, and after `bringBack`. */
  show(bands: ReadonlyMap<string, Element>): void {
    this.bringBack()
    this.#bands = bands
    this.#measurer.forget()
    this.#measurer.prepare()
  }

  /** Measures the bands of a job. The window must have its width by now. */
  measure({ width, setting, bands }: SweepJob): ReadonlyMap<string, MeasuredBand> {
    const size = this.#bounds.filter((bound) => width >= bound).length
    if (setting !== this.#setting || size !== this.#size) this.#measurer.forget()
    this.#size = size
    if (setting !== this.#setting || !this.#style.isConnected) {
      this.#setting = setting
      this.#write()
    }
    for (const [key, band] of this.#bands)
      if (bands.includes(key)) this.#putIn(band)
      else this.#takeOut(band)
    return new Map(
      bands.flatMap((key) => {
        const band = this.#bands.get(key)
        return band ? [[key, this.#measurer.measure(band)] as const] : []
      }),
    )
  }

  /** Puts all bands back where they stood. A place that is gone has its band elsewhere by now. */
  bringBack(): void {
    for (const band of [...this.#places.keys()]) this.#putIn(band)
  }

  #takeOut(band: Element): void {
    if (this.#places.has(band)) return
    const place = this.#document.createComment('')
    band.replaceWith(place)
    this.#places.set(band, place)
  }

  #putIn(band: Element): void {
    const place = this.#places.get(band)
    this.#places.delete(band)
    if (place?.isConnected) place.replaceWith(band)
  }

  #write(): void {
    this.#style.textContent = STYLE + SETTING_CSS[this.#setting]
    if (!this.#style.isConnected) this.#document.head.append(this.#style)
  }
}
