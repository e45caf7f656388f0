import { getKind, getNode, layoutOf, type Look } from '@gullyline/core'
import type { DragItem, ShownLanding } from '../drag/drag-store.ts'
import { findLanding, type Axis } from '../drag/landing.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { boxOf, elementOf, hitAt, type Point } from './boxes.ts'
import { landingOnGrid } from './grid-landing.ts'
import { pressedAt, shownId } from './shown-ids.ts'
import { boxToWindow, windowToFrame } from './frame-geometry.ts'

/** Where a dragged thing would land on the canvas, or undefined when the point is not over it. */
export function landingOnCanvas(
  inner: Document,
  store: EditorStore,
  { item, point, look }: { readonly item: DragItem; readonly point: Point; readonly look: Look },
): ShownLanding | undefined {
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  const sheet = frame?.parentElement?.getBoundingClientRect()
  if (
    !frame ||
    !sheet ||
    point.x < sheet.left ||
    point.x > sheet.right ||
    point.y < sheet.top ||
    point.y > sheet.bottom
  )
    return undefined
  const at = windowToFrame(frame, point)
  const hit = hitAt(inner, at)
  const { page } = store.state
  const hitId = hit === undefined ? page.root : pressedAt(store, hit).id
  const cell = landingOnGrid(inner, store, { item, point: at, hitId, look })
  if (cell) {
    const mark = boxToWindow(frame, cell.box)
    const guides = cell.guides.map((guide) => boxToWindow(frame, guide))
    return { landing: undefined, mark, refusal: undefined, cell, guides }
  }
  const landing = findLanding({
    page,
    registry: store.registry,
    kind: wantedKind(item, store),
    movingId: item.type === 'node' ? item.id : undefined,
    hitId,
    hitSlot: pageSlotAt(inner, at, store),
    point: at,
    boxOf: (id) => boxOf(inner, shownId(store, id)),
    axisOf: (id) => axisOf(inner, shownId(store, id)),
  })
  return { landing, mark: landing && boxToWindow(frame, landing.mark), refusal: landing?.refusal }
}

/** On a page without sections a block lands as a new section around it, so it is the section that has to fit. */
function wantedKind(item: DragItem, store: EditorStore): string {
  const { page } = store.state
  const { slots, content } = getNode(page, page.root)
  const isEmpty = slots.sections?.length === 0 && layoutOf(content).slots.main === undefined
  return item.type === 'starter' && isEmpty ? 'section' : item.kind
}

/** The slot of the page whose own element is under a point. */
function pageSlotAt(inner: Document, { x, y }: Point, { state, registry }: EditorStore): string | undefined {
  const at = inner.elementFromPoint(x, y)
  const { slots } = getKind(registry, getNode(state.page, state.page.root).kind)
  return Object.keys(slots).find((slot) => {
    const { element } = slots[slot]!
    return element !== undefined && at?.closest(element)
  })
}

/** The direction in which a container lays out its children, as the browser has it at this width. */
function axisOf(inner: Document, id: string): Axis {
  const element = elementOf(inner, id)
  const style = element && inner.defaultView?.getComputedStyle(element)
  return style?.display === 'flex' && style.flexDirection.startsWith('row') ? 'x' : 'y'
}
