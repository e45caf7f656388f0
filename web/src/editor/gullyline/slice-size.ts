/** So long a slice may take, in ms: half a frame, since the browser has its own part of it. */
export const SLICE_MS = 8
/**
 * What any layout of the page takes, however few bands it has, can't be sliced: on a slow machine that alone is longer than a
 * slice. So a slice may take so many times what a single band does, if that is longer.
 */
export const LONGER_THAN_ONE = 1.5
const MOST = 64
/** How much the newest time says of how long the next will take, from 0 to 1. */
const NEWEST = 0.3

/** How many bands are laid out at once: as many as a slice has time for. */
export class SliceSize {
  /** Always a power of two. */
  #most = MOST
  /** What slices of so many bands took, in ms, by powers of two. */
  readonly #took = new Map<number, number>()

  get most(): number {
    return this.#most
  }

  /** Takes what a slice of so many bands took, in ms. */
  note(bands: number, took: number): void {
    const size = 2 ** Math.ceil(Math.log2(bands))
    const before = this.#took.get(size) ?? took
    this.#took.set(size, before + NEWEST * (took - before))
    this.#most = this.#next(size)
  }

  #next(size: number): number {
    const limit = Math.max(SLICE_MS, LONGER_THAN_ONE * (this.#took.get(1) ?? 0))
    const fits = (one: number): boolean => this.#took.get(one)! <= limit
    const known = [...this.#took.keys()].sort((a, b) => a - b)
    const smallest = known[0]!
    // Not known to be quick enough, by the next smaller one.
    if (smallest > 1 && !fits(smallest)) return smallest / 2
    const largest = known.findLast(fits) ?? 1
    const isNewest = largest === size
    return isNewest && this.#took.get(largest)! < limit / 4 ? Math.min(MOST, 2 * largest) : largest
  }
}
