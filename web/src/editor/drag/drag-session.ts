import { besideEdits, describeNode, getNode } from '@gullyline/core'
import { placeStarter } from '../shelf/place-starter.ts'
import type { Point } from '../canvas/boxes.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { hold } from '../../ui/held.ts'
import { gridCanvas } from '../canvas/canvas-later.ts'
import { dragStore, type DragItem, type ShownLanding } from './drag-store.ts'
import { findLanding } from './landing-places.ts'

/** A press becomes a drag after this many px, so that a click with an unsteady hand stays a click. */
const DRAG_FROM = 5

interface DragStart {
  readonly store: EditorStore
  /** Where pointer events of this press arrive: the editor's window, or the frame's document. */
  readonly source: Document
  /** From that document's coordinates to the editor's window. */
  readonly toWindow: (point: Point) => Point
  readonly start: Point
  readonly item: () => DragItem | undefined
  /** Called when the press ended without having become a drag. */
  readonly onClick?: () => void
}

/** Tracks a press until it is released or cancelled with Escape, and moves or places what was dragged. */
export function trackPress({ store, source, toWindow, start, item, onClick }: DragStart): void {
  let dragged: DragItem | undefined
  let letGo: (() => void) | undefined
  const move = (event: PointerEvent): void => {
    const point = { x: event.clientX, y: event.clientY }
    if (!dragged) {
      if (Math.hypot(point.x - start.x, point.y - start.y) < DRAG_FROM) return
      dragged = item()
      if (!dragged) return end()
      letGo = hold()
    }
    event.preventDefault()
    const inWindow = toWindow(point)
    dragStore.set({ item: dragged, point: inWindow, shown: findLanding(dragged, inWindow) })
  }
  const release = (): void => {
    const drag = dragStore.get()
    end()
    if (drag) drop(store, drag.item, drag.shown)
    else if (!dragged) onClick?.()
  }
  const cancel = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape') return
    event.preventDefault()
    event.stopPropagation()
    end()
    store.dispatch({ type: 'tell', words: 'Dragging cancelled', tone: 'done' })
  }
  const documents = [...new Set([source, document])]
  const end = (): void => {
    letGo?.()
    letGo = undefined
    dragStore.set(undefined)
    source.removeEventListener('pointermove', move)
    source.removeEventListener('pointerup', release)
    source.removeEventListener('pointercancel', end)
    for (const one of documents) one.removeEventListener('keydown', cancel, true)
  }
  source.addEventListener('pointermove', move)
  source.addEventListener('pointerup', release)
  source.addEventListener('pointercancel', end)
  for (const one of documents) one.addEventListener('keydown', cancel, true)
}

function drop(store: EditorStore, item: DragItem, { landing, refusal, cell }: ShownLanding): void {
  if (refusal !== undefined)
    return store.dispatch({ type: 'tell', words: `Not moved. ${refusal}`, tone: 'refused' })
  if (cell) return gridCanvas.get()?.dropInCell(store, item, cell)
  if (!landing) return
  const { page } = store.state
  const { target, beside } = landing
  if (beside) return dropBeside(store, item, beside)
  if (item.type === 'starter') {
    placeStarter(store, item.starter, target, 'pointer')
    return
  }
  const label = `Moved ${describeNode(page, item.id, store.registry)}`
  const edit = {
    edit: 'move',
    nodeId: item.id,
    toParentId: target.parentId,
    toSlot: target.slot,
    toIndex: target.index,
  } as const
  if (getNode(page, target.parentId).slots[target.slot]?.indexOf(item.id) === target.index) return
  store.do(label, [edit], { select: item.id, origin: 'pointer' })
}

function dropBeside(
  store: EditorStore,
  item: DragItem,
  { id, side }: NonNullable<NonNullable<ShownLanding['landing']>['beside']>,
): void {
  const { page } = store.state
  const what = item.type === 'node' ? { moveId: item.id } : { fragment: item.starter.build(newId) }
  const edits = besideEdits(page, id, side, what, store.registry, newId)
  const select = 'moveId' in what ? what.moveId : what.fragment.rootId
  const label = `Added ${item.title.toLowerCase()} beside ${describeNode(page, id, store.registry)}`
  if (edits) store.do(label, edits, { select, origin: 'pointer' })
}
