import type { NodeId } from '@gullyline/core'

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

/** The element of a node in a frame's document. */
export function elementOf(inner: Document, id: NodeId): HTMLElement | undefined {
  return inner.querySelector<HTMLElement>(`[data-node="${CSS.escape(id)}"]`) ?? undefined
}

/** The box of a node in the coordinates of its frame's window. */
export function boxOf(inner: Document, id: NodeId): Box | undefined {
  const element = elementOf(inner, id)
  if (!element) return undefined
  const rect = element.getBoundingClientRect()
  if (rect.width > 0 || rect.height > 0) return toBox(rect)
  // An element without a box of its own (`display: contents`) is where its children are.
  const inside = [...element.children].map((child) => child.getBoundingClientRect()).filter(hasArea)
  if (inside.length === 0) return toBox(rect)
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

/** The innermost node under a point of the frame's window. */
export function hitAt(inner: Document, { x, y }: Point): { id?: NodeId } {
  const hit = inner.elementFromPoint(x, y)
  const id = hit?.closest<HTMLElement>('[data-node]')?.dataset.node
  return id === undefined ? {} : { id }
}
