/**
 * Sweeps the page of a frame, for programs that start a browser. All of it runs where the page is: what is measured at a
 * width has nowhere to go, and a frame that is out of sight is laid out without being painted.
 */
import { PageSweep, readBand, type Gully, type Pixels, type PixelsOf } from '@gullyline/core'
import { BandMeasurer, bandsOf, nodeOfBand, picturesOf } from './measure-bands.ts'
import { readPixels } from './read-pixels.ts'

export interface FrameSweepOptions {
  /** The first widths of the sizes but the narrowest, in px. */
  readonly bounds: readonly number[]
  readonly ends?: { readonly from: number; readonly to: number } | undefined
}

export class FrameSweep {
  readonly #frame: HTMLIFrameElement
  readonly #measurer: BandMeasurer
  readonly #sweep: PageSweep
  readonly #pixels: PixelsOf

  private constructor(frame: HTMLIFrameElement, { bounds, ends }: FrameSweepOptions, pixels: PixelsOf) {
    const page = frame.contentDocument!
    const bands = new Map(bandsOf(page.body).map((band, i) => [String(i), band]))
    this.#frame = frame
    this.#pixels = pixels
    this.#measurer = new BandMeasurer(page, bounds)
    this.#measurer.show(bands)
    this.#sweep = new PageSweep(bounds, ends)
    this.#sweep.show(new Map([...bands].map(([key, band]) => [key, nodeOfBand(band)])))
  }

  /** Of a frame whose page is loaded. Settles when its fonts and the pixels of its pictures are there. */
  static async of(frame: HTMLIFrameElement, options: FrameSweepOptions): Promise<FrameSweep> {
    const page = frame.contentDocument!
    // Fonts are asked for by what is laid out.
    page.body.getBoundingClientRect()
    await page.fonts.ready
    const read = await Promise.all(
      picturesOf(page).map(async (source): Promise<[string, Pixels | undefined]> => [
        source,
        await readPixels(new URL(source, page.baseURI).href),
      ]),
    )
    return new FrameSweep(frame, options, Object.fromEntries(read))
  }

  /** Goes on for about so many ms. Whether all is known by then. */
  goOn(ms: number): boolean {
    const until = performance.now() + ms
    for (let job = this.#sweep.next(); job; job = this.#sweep.next()) {
      const { setting, width } = job
      this.#frame.style.width = `${width}px`
      const measured = this.#measurer.measure(job)
      this.#sweep.take(
        job,
        new Map([...measured].map(([key, band]) => [key, readBand(band, this.#pixels, setting)])),
      )
      if (performance.now() >= until) return false
    }
    return true
  }

  /** What is known to be wrong, in the order of the page's bands. */
  gullies(): readonly Gully[] {
    return this.#sweep.gullies()
  }
}
