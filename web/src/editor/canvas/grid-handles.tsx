import { useState } from 'react'
import styled from 'styled-components'
import {
  aroundPlaces,
  describeNode,
  gridOf,
  placeBlocksEdits,
  placesAt,
  resizedTogether,
  type GridPlace,
  type GridSide,
  type NodeId,
  type Placed,
} from '@gullyline/core'
import { counted } from '../../ui/counted.ts'
import { selectedIds } from '../session/editor-state.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { GuideLine } from '../drag/drag-layer.tsx'
import { atBox, boxVariables } from './at-box.ts'
import type { Box } from './boxes.ts'
import { boxOfPlace, cellAt } from './grid-geometry.ts'
import type { CellLanding } from '../drag/cell-landing.ts'
import { drawnGuides, shownGrid } from './grid-landing.ts'
import { dragHandle } from './handle-drag.ts'
import { handle, Said } from './handle-style.ts'
import { RoomLine } from './room-line.tsx'
import { windowToFrame } from './frame-geometry.ts'

const Column = styled.div`
  ${atBox}
  background: color-mix(in srgb, var(--accentBright) 6%, transparent);
  box-shadow:
    inset 1px 0 0 color-mix(in srgb, var(--accentBright) 35%, transparent),
    inset -1px 0 0 color-mix(in srgb, var(--accentBright) 35%, transparent);
`
const Outline = styled.div`
  ${atBox}
  box-shadow: inset 0 0 0 2px var(--accentBright);
  background: color-mix(in srgb, var(--accentBright) 18%, transparent);
`
const Handle = styled.button`
  ${handle}
  left: calc(var(--x) - 12px);
  top: calc(var(--y) - 12px);
  &::after {
    width: 9px;
    height: 9px;
    border-radius: 2px;
  }
`
const SaidAtBox = styled(Said)`
  left: calc(var(--x) + 8px);
  top: calc(var(--y) + var(--h) - 28px);
`

interface HandleKind {
  readonly name: string
  readonly sides: readonly GridSide[]
  /** Where on the box it stands, as shares of its width and height. */
  readonly at: readonly [number, number]
  readonly cursor: string
}

const HANDLES: readonly HandleKind[] = [
  { name: 'top left corner', sides: ['top', 'left'], at: [0, 0], cursor: 'nwse-resize' },
  { name: 'top edge', sides: ['top'], at: [0.5, 0], cursor: 'ns-resize' },
  { name: 'top right corner', sides: ['top', 'right'], at: [1, 0], cursor: 'nesw-resize' },
  { name: 'right edge', sides: ['right'], at: [1, 0.5], cursor: 'ew-resize' },
  { name: 'bottom right corner', sides: ['bottom', 'right'], at: [1, 1], cursor: 'nwse-resize' },
  { name: 'bottom edge', sides: ['bottom'], at: [0.5, 1], cursor: 'ns-resize' },
  { name: 'bottom left corner', sides: ['bottom', 'left'], at: [0, 1], cursor: 'nesw-resize' },
  { name: 'left edge', sides: ['left'], at: [0, 0.5], cursor: 'ew-resize' },
]
const STEPS: Readonly<Record<string, { readonly across: number; readonly down: number }>> = {
  ArrowLeft: { across: -1, down: 0 },
  ArrowRight: { across: 1, down: 0 },
  ArrowUp: { across: 0, down: -1 },
  ArrowDown: { across: 0, down: 1 },
}

/** Shorter sides than this have no handle in their middle, which would cover what stands there. */
const LEAST_SIDE = 64

function hasRoom({ at: [x, y] }: HandleKind, { width, height }: Box): boolean {
  return (x !== 0.5 || height >= LEAST_SIDE) && (y !== 0.5 || width >= LEAST_SIDE)
}

interface GridHandlesProps {
  readonly id: NodeId
  readonly inner: Document
  /** From a box of the frame to the coordinates of the layer. */
  readonly toLayer: (box: Box) => Box
}

/** What is resized, as it is drawn meanwhile. */
interface Dragged extends Pick<CellLanding, 'box' | 'guides' | 'note'> {
  readonly place: GridPlace
  readonly boxes: readonly Box[]
}

/** The columns of the grid section that the selected blocks stand in, and what they are resized by, as one: at the size that is shown. */
export function GridHandles({ id, inner, toLayer }: GridHandlesProps) {
  const store = useStore()
  const { registry, mayChange } = store
  const { look } = useSiteView().site
  const gridId = usePage((page) => gridOf(page, id, registry))
  const page = usePage((now) => now)
  const [dragged, setDragged] = useState<Dragged>()
  const grid = gridId === undefined ? undefined : shownGrid(inner, store, gridId, look)
  if (!grid || !mayChange) return null
  const { size, lines, cells } = grid
  const { columns, placed } = placesAt(page, grid.gridId, { registry, size })
  const own = placed.find((one) => one.id === id)
  if (!own) return null
  const ids = new Set(selectedIds(store.state))
  const isChosen = (one: Placed): boolean => ids.has(one.id)
  const chosen = placed.filter(isChosen)
  const others = placed.filter((one) => !isChosen(one))
  const area = cells.getBoundingClientRect()
  const box = toLayer(boxOfPlace(lines, aroundPlaces(chosen)))
  const what = chosen.length === 1 ? describeNode(page, id, registry) : `${chosen.length} blocks`
  const resizedBy = (sides: readonly GridSide[], by: { across: number; down: number }): readonly Placed[] =>
    resizedTogether(placed, ids, { sides, ...by }, columns)
  const set = (next: readonly Placed[]): void => {
    const edits = placeBlocksEdits(placed, next, size)
    if (edits.length === 0) return
    const place = aroundPlaces(next.filter(isChosen))
    const words = `Resized ${what} to ${counted(place.columns, 'column')} and ${counted(place.rows, 'row')}`
    store.do(words, edits, { origin: 'pointer' })
  }
  const press = (event: React.PointerEvent<HTMLButtonElement>, sides: readonly GridSide[]): void => {
    if (event.button !== 0) return
    const frame = inner.defaultView?.frameElement as HTMLIFrameElement
    const cell = ({ clientX, clientY }: PointerEvent) =>
      cellAt(lines, windowToFrame(frame, { x: clientX, y: clientY }))
    const from = cell(event.nativeEvent)
    let last = placed
    dragHandle(event, {
      move: (moved) => {
        const to = cell(moved)
        const by = { across: Math.round(to.column - from.column), down: Math.round(to.row - from.row) }
        last = resizedBy(sides, by)
        const places = last.filter(isChosen)
        const place = aroundPlaces(places)
        const boxes = places.map((one) => boxOfPlace(lines, one))
        setDragged({ place, boxes, ...drawnGuides(grid, place, { others, columns }) })
      },
      end: (isDone) => {
        setDragged(undefined)
        if (isDone) set(last)
      },
    })
  }
  return (
    <>
      {lines.columns.map(({ start, size: width }) => (
        <Column
          key={start}
          style={boxVariables(toLayer({ left: start, top: area.top, width, height: area.height }))}
        />
      ))}
      {dragged && (
        <>
          {dragged.boxes.map((one, i) => (
            <Outline key={i} style={boxVariables(toLayer(one))} />
          ))}
          {dragged.guides.map((guide, i) => (
            <GuideLine key={i} style={boxVariables(toLayer(guide))} />
          ))}
          <SaidAtBox role="status" style={boxVariables(toLayer(dragged.box))}>
            {dragged.note ??
              `${dragged.place.columns} of ${columns} columns, ${counted(dragged.place.rows, 'row')}`}
          </SaidAtBox>
        </>
      )}
      <RoomLine
        key={id}
        inner={inner}
        lines={lines}
        own={own}
        placed={placed}
        size={size}
        at={{
          ...toLayer({ left: area.left, top: area.top, width: area.width, height: 0 }),
          top: toLayer(boxOfPlace(lines, own)).top,
        }}
      />
      {HANDLES.filter((one) => hasRoom(one, box)).map(({ name, sides, at: [x, y], cursor }) => (
        <Handle
          key={name}
          type="button"
          aria-label={chosen.length === 1 ? `Resize at the ${name}` : `Resize ${what} at the ${name}`}
          style={{
            '--x': `${box.left + x * box.width}px`,
            '--y': `${box.top + y * box.height}px`,
            cursor,
          }}
          onPointerDown={(event) => press(event, sides)}
          onKeyDown={(event) => {
            const by = STEPS[event.key]
            if (!by || event.altKey || event.ctrlKey) return
            event.preventDefault()
            event.stopPropagation()
            set(resizedBy(sides, by))
          }}
        />
      ))}
    </>
  )
}
