/** How boxes of a measured page lie to each other. */
import type { Box, MeasuredBand, MeasuredElement } from './measured-page.ts'

/** Browsers place boxes on fractions of a px; less than this is no distance. */
export const NOTHING = 0.5

export function rightOf({ x, width }: Pick<Box, 'x' | 'width'>): number {
  return x + width
}

export function bottomOf({ y, height }: Pick<Box, 'y' | 'height'>): number {
  return y + height
}

/** Whether a box lies wholly above another, and not in a column right of it. */
export function isAbove(a: Box, b: Box): boolean {
  return bottomOf(a) <= b.y + NOTHING && a.x < rightOf(b) - NOTHING
}

/** Whether a box lies wholly left of another that is in the same row. */
export function isLeftOf(a: Box, b: Box): boolean {
  return rightOf(a) <= b.x + NOTHING && bottomOf(a) > b.y + NOTHING && a.y < bottomOf(b) - NOTHING
}

/** What two boxes share; undefined where they share nothing. */
export function shared(a: Box, b: Box): Box | undefined {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  const width = Math.min(rightOf(a), rightOf(b)) - x
  const height = Math.min(bottomOf(a), bottomOf(b)) - y
  return width > 0 && height > 0 ? { x, y, width, height } : undefined
}

/** An element and all that it is in, from itself up to the band. */
export function* upwards({ elements }: MeasuredBand, index: number): Generator<MeasuredElement> {
  for (let at = index; at >= 0; at = elements[at]!.parent) yield elements[at]!
}

export function parentOf(
  { elements }: MeasuredBand,
  { parent }: MeasuredElement,
): MeasuredElement | undefined {
  return elements[parent]
}

/** What of a box can be seen, or be reached by scrolling inside the page, of one that stands in an element. */
export function seenOf(band: MeasuredBand, index: number, box: Box): Box | undefined {
  let seen: Box | undefined = box
  for (const around of upwards(band, band.elements[index]!.parent)) {
    if (!seen) return undefined
    const { clips, isScrolled, box: edge } = around
    const isCutX = clips === 'x' || clips === 'both' || isScrolled
    const isCutY = clips === 'y' || clips === 'both'
    if (!isCutX && !isCutY) continue
    seen = shared(seen, {
      x: isCutX ? edge.x : seen.x,
      width: isCutX ? edge.width : seen.width,
      y: isCutY ? edge.y : seen.y,
      height: isCutY ? edge.height : seen.height,
    })
  }
  return seen
}

/** Whether an element, or something it is in, is scrolled sideways by itself. */
export function isInScrolled(band: MeasuredBand, index: number): boolean {
  for (const { isScrolled } of upwards(band, band.elements[index]!.parent)) if (isScrolled) return true
  return false
}

/** Whether an element is painted over another one, of which neither holds the other (CSS 2.2, appendix E). */
export function paintsOver(band: MeasuredBand, over: number, under: number): boolean {
  const chain = (index: number): number[] => {
    const found = []
    for (let at = index; at >= 0; at = band.elements[at]!.parent) found.push(at)
    return found.reverse()
  }
  const [a, b] = [chain(over), chain(under)]
  const fork = a.findIndex((one, i) => one !== b[i])
  // One that is in the other is painted over it.
  if (fork < 0 || b[fork] === undefined) return fork >= 0
  const rank = levelOf(band, a.slice(fork)) - levelOf(band, b.slice(fork))
  return rank === 0 ? a[fork]! > b[fork] : rank > 0
}

/** Below what is in the flow, in the flow, over it, or at a layer of its own. */
function levelOf({ elements }: MeasuredBand, chain: readonly number[]): number {
  for (const at of chain) {
    const { layer, isLifted } = elements[at]!
    if (layer !== undefined && layer !== 0) return layer < 0 ? layer - 1 : layer + 1
    if (isLifted) return 1
  }
  return 0
}

/** Whether one element is in another. */
export function isInside(band: MeasuredBand, index: number, around: number): boolean {
  for (let at = index; at >= 0; at = band.elements[at]!.parent) if (at === around) return true
  return false
}
