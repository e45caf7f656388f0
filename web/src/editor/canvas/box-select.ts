/** Drawing a box around blocks to select them: Shift, and a drag over the page. */
import { findPlace, getNode, type NodeId, type Page } from '@gullyline/core'
import { useValue, Value } from '../../ui/value.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { boxOf, type Box, type Point } from './boxes.ts'
import { shownId } from './shown-ids.ts'
import { boxToWindow } from './frame-geometry.ts'

/** A press becomes a box after this many px. */
const BOX_FROM = 5

/** One at a time: there is one pointer. */
const drawn = new Value<Box | undefined>(undefined)

/** The box that is being drawn, in the coordinates of the editor's window. */
export function useDrawnBox(): Box | undefined {
  return useValue(drawn)
}

/** Tracks a press with Shift: a drag draws a box and selects what is in it; a press without one is a click. */
export function trackBox(inner: Document, store: EditorStore, start: Point, onClick: () => void): void {
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  if (!frame) return
  let box: Box | undefined
  const move = (event: PointerEvent): void => {
    const now = { x: event.clientX, y: event.clientY }
    if (!box && Math.hypot(now.x - start.x, now.y - start.y) < BOX_FROM) return
    event.preventDefault()
    box = between(start, now)
    drawn.set(boxToWindow(frame, box))
  }
  const cancel = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape') return
    event.preventDefault()
    event.stopPropagation()
    box = undefined
    end()
  }
  const release = (): void => {
    end()
    if (!box) return onClick()
    const { page } = store.state
    const [select, ...also] = insideOf(page, page.root, box, (id) => boxOf(inner, shownId(store, id)))
    if (select === undefined)
      return store.dispatch({
        type: 'tell',
        words: 'No block is completely inside that area',
        tone: 'refused',
      })
    store.dispatch({ type: 'select', id: select, also })
    const words = also.length === 0 ? 'One block selected' : `${also.length + 1} blocks selected`
    store.dispatch({ type: 'tell', words, tone: 'done' })
  }
  const end = (): void => {
    drawn.set(undefined)
    inner.removeEventListener('pointermove', move)
    inner.removeEventListener('pointerup', release)
    inner.removeEventListener('keydown', cancel, true)
    document.removeEventListener('keydown', cancel, true)
  }
  inner.addEventListener('pointermove', move)
  inner.addEventListener('pointerup', release)
  inner.addEventListener('keydown', cancel, true)
  document.addEventListener('keydown', cancel, true)
}

function between(a: Point, b: Point): Box {
  const [left, top] = [Math.min(a.x, b.x), Math.min(a.y, b.y)]
  return { left, top, width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y) }
}

/** The outermost blocks that stand wholly in a box: siblings all, those of the level where most of them stand. */
function insideOf(
  page: Page,
  rootId: NodeId,
  box: Box,
  boxAt: (id: NodeId) => Box | undefined,
): readonly NodeId[] {
  const found: NodeId[] = []
  const walk = (id: NodeId): void => {
    for (const child of Object.values(getNode(page, id).slots).flat()) {
      const at = boxAt(child)
      if (!at || !meets(at, box)) continue
      if (holds(box, at)) found.push(child)
      else walk(child)
    }
  }
  walk(rootId)
  const levels = new Map<string, NodeId[]>()
  for (const id of found) {
    const { parentId, slot } = findPlace(page, id)!
    const key = `${parentId} ${slot}`
    levels.set(key, [...(levels.get(key) ?? []), id])
  }
  return [...levels.values()].sort((a, b) => b.length - a.length)[0] ?? []
}

function holds(outer: Box, inner: Box): boolean {
  return (
    inner.width > 0 &&
    inner.left >= outer.left &&
    inner.top >= outer.top &&
    inner.left + inner.width <= outer.left + outer.width &&
    inner.top + inner.height <= outer.top + outer.height
  )
}

function meets(a: Box, b: Box): boolean {
  return (
    a.left < b.left + b.width &&
    b.left < a.left + a.width &&
    a.top < b.top + b.height &&
    b.top < a.top + a.height
  )
}
