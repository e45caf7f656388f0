import type { ShownId } from '@gullyline/core'

/** A rectangle in px. */
export interface Box {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

export interface Point {
  readonly x: number
  readonly y: number
}

/** The element of a shown node in a frame's document; none for an instance, which gives its place to what it shows. */
export function elementOf(inner: Document, shown: ShownId): HTMLElement | undefined {
  return inner.querySelector<HTMLElement>(`[data-node="${CSS.escape(shown)}"]`) ?? undefined
}

/** The elements of a shown node: of an instance, those of what it shows. */
export function elementsOf(inner: Document, shown: ShownId): readonly HTMLElement[] {
  const own = elementOf(inner, shown)
  if (own) return [own]
  const all = [...inner.querySelectorAll<HTMLElement>(`[data-node^="${CSS.escape(shown)}/"]`)]
  return all.filter((one) => !all.some((other) => other !== one && other.contains(one)))
}

/** The box of a shown node in the coordinates of its frame's window. */
export function boxOf(inner: Document, shown: ShownId): Box | undefined {
  const [element, ...more] = elementsOf(inner, shown)
  if (!element) return undefined
  if (more.length > 0) return around([element, ...more].map(rectOf))
  const rect = rectOf(element)
  if (rect.width > 0 || rect.height > 0) return toBox(rect)
  // An element without a box of its own (`display: contents`) is where its children are.
  return around([...element.children].map(rectOf)) ?? toBox(rect)
}

function rectOf(element: Element): DOMRect {
  return element.getBoundingClientRect()
}

/** The box around all that can be seen of some. */
function around(rects: readonly DOMRect[]): Box | undefined {
  const inside = rects.filter(hasArea)
  if (inside.length === 0) return undefined
  const [left, top] = [Math.min(...inside.map((one) => one.left)), Math.min(...inside.map((one) => one.top))]
  const [right, bottom] = [
    Math.max(...inside.map((one) => one.right)),
    Math.max(...inside.map((one) => one.bottom)),
  ]
  return { left, top, width: right - left, height: bottom - top }
}

function toBox({ left, top, width, height }: DOMRect): Box {
  return { left, top, width, height }
}

function hasArea({ width, height }: DOMRect): boolean {
  return width > 0 && height > 0
}

/** The innermost shown node under a point of the frame's window. */
export function hitAt(inner: Document, { x, y }: Point): ShownId | undefined {
  return inner.elementFromPoint(x, y)?.closest<HTMLElement>('[data-node]')?.dataset.node
}
