import { BandMeasurer, bandsOf, nodeOfBand, picturesOf } from '@gullyline/measuring'
import type { MeasuredBand, SweepJob } from '@gullyline/core'
import type { MeasuredDocument } from './measured-html.ts'

/** As high as a screen: what is so high in shares of it is as visitors see it. */
const HEIGHT = 900

/**
 * A hidden window in which the page is laid out at any width. Out of sight and not undisplayed, since a frame that is not
 * displayed lays nothing out.
 */
export class SweepFrame {
  readonly #frame: HTMLIFrameElement
  readonly #measurer: BandMeasurer
  readonly #fonts: HTMLStyleElement
  readonly #rules: HTMLStyleElement
  #bands: ReadonlyMap<string, Element> = new Map()
  #made = 0
  /** The addresses of the pictures on the page. */
  pictures: readonly string[] = []

  constructor(language: string, bounds: readonly number[]) {
    const holder = document.createElement('div')
    holder.style.cssText =
      'position:fixed;left:0;top:0;width:0;height:0;overflow:hidden;visibility:hidden;contain:strict'
    this.#frame = document.createElement('iframe')
    this.#frame.title = 'Measuring'
    this.#frame.setAttribute('sandbox', 'allow-same-origin')
    this.#frame.setAttribute('aria-hidden', 'true')
    this.#frame.tabIndex = -1
    this.#frame.height = String(HEIGHT)
    this.#frame.style.border = '0'
    holder.append(this.#frame)
    document.body.append(holder)
    const inner = this.document
    inner.open()
    inner.write(
      '<!DOCTYPE html><html><head><meta charset="utf-8"><title>Page</title></head><body></body></html>',
    )
    inner.close()
    inner.documentElement.lang = language
    this.#fonts = inner.createElement('style')
    this.#rules = inner.createElement('style')
    inner.head.append(this.#fonts, this.#rules)
    this.#measurer = new BandMeasurer(inner, bounds)
  }

  get document(): Document {
    return this.#frame.contentDocument!
  }

  /** Takes the page as it is now. Gives the nodes of its bands by their keys; a band that did not change keeps its key. */
  show({ body, sheet }: MeasuredDocument): ReadonlyMap<string, string> {
    const inner = this.document
    write(this.#fonts, sheet.fonts)
    write(this.#rules, sheet.rules)
    const next = inner.createElement('template')
    next.innerHTML = body
    const bands = new Map<string, Element>()
    for (const band of bandsOf(next.content)) {
      const same = this.#sameBand(band, bands)
      if (same) band.replaceWith(same[1])
      bands.set(same?.[0] ?? `${nodeOfBand(band)} ${++this.#made}`, same?.[1] ?? band)
    }
    inner.body.replaceChildren(...next.content.childNodes)
    this.#bands = bands
    this.pictures = picturesOf(inner)
    this.#measurer.show(bands)
    return new Map([...bands].map(([key, band]) => [key, nodeOfBand(band)]))
  }

  /** A band of before that is the same as one of now, and that no other one of now is. */
  #sameBand(band: Element, taken: ReadonlyMap<string, Element>): readonly [string, Element] | undefined {
    const node = nodeOfBand(band)
    for (const [key, old] of this.#bands) {
      if (taken.has(key) || nodeOfBand(old) !== node) continue
      if (old.isEqualNode(band)) return [key, old]
    }
    return undefined
  }

  /** The bands of the page as it is now that these nodes are or stand in, by their keys. */
  bandsWith(nodes: Iterable<string>): readonly string[] {
    const wanted = new Set(nodes)
    const isWanted = (element: Element): boolean => wanted.has(element.getAttribute('data-node') ?? '')
    return [...this.#bands]
      .filter(([, band]) => isWanted(band) || [...band.querySelectorAll('[data-node]')].some(isWanted))
      .map(([key]) => key)
  }

  measure(job: SweepJob): ReadonlyMap<string, MeasuredBand> {
    this.#frame.style.width = `${job.width}px`
    return this.#measurer.measure(job)
  }

  /** Settles when all fonts are there that the page uses. */
  async ready(): Promise<void> {
    await this.document.fonts.ready
  }

  dispose(): void {
    this.#frame.parentElement?.remove()
  }
}

function write(style: HTMLStyleElement, css: string): void {
  if (style.textContent !== css) style.textContent = css
}
