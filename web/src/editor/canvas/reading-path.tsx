import { useState } from 'react'
import styled from 'styled-components'
import {
  describeNode,
  gridReports,
  siblingMoveEdit,
  sizeAt,
  stepMoveEdit,
  type GridReport,
  type NodeId,
} from '@gullyline/core'
import { mono } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { boxOf, type Box, type Point } from './boxes.ts'
import { boxToWindow, useFrameLayout } from './frame-geometry.ts'
import { dragHandle } from './handle-drag.ts'
import { Said } from './handle-style.ts'
import { shownId } from './shown-ids.ts'

const Clip = styled.div`
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
`
const Line = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  polyline {
    fill: none;
    stroke: var(--accentBright);
    stroke-width: 2;
    stroke-dasharray: 6 5;
  }
`
const Stop = styled.button`
  ${mono}
  position: absolute;
  left: calc(var(--x) - 13px);
  top: calc(var(--y) - 13px);
  min-width: 26px;
  height: 26px;
  padding: 0 5px;
  border: 2px solid #fff;
  border-radius: 13px;
  background: #0a6c7c;
  color: #fff;
  font-weight: 700;
  pointer-events: auto;
  user-select: none;
  touch-action: none;
  box-shadow: 0 2px 6px rgb(0 0 0 / 30%);
  &[data-onto] {
    outline: 3px solid var(--accentBright);
    outline-offset: 2px;
  }
  &[data-differs] {
    background: var(--clay);
  }
`

const SaidBelow = styled(Said)`
  left: calc(var(--x) + 18px);
  top: calc(var(--y) + 10px);
`
/** A number that is dragged goes to the place of one that is no farther than this, in px. */
const REACH = 40

/** The order in which the blocks of grid sections are read aloud and tabbed through, over the canvas. A number is moved by the arrow keys, or dragged to another. */
export function ReadingPath({ inner, area }: { inner: Document; area: HTMLElement }) {
  useFrameLayout(inner)
  const store = useStore()
  const page = usePage((now) => now)
  const { look } = useSiteView().site
  const size = sizeAt(inner.documentElement.clientWidth, look)
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  if (!frame) return null
  const origin = area.getBoundingClientRect()
  const startOf = (id: NodeId): Box | undefined => {
    const box = boxOf(inner, shownId(store, id))
    if (!box || (box.width === 0 && box.height === 0)) return undefined
    const inWindow = boxToWindow(frame, box)
    return { ...inWindow, left: inWindow.left - origin.left, top: inWindow.top - origin.top }
  }
  return (
    <Clip role="group" aria-label="Reading path">
      {gridReports(page, store.registry, look).map((report) => (
        <PathOfGrid key={report.nodeId} report={report} order={report.sizes[size]!.order} startOf={startOf} />
      ))}
    </Clip>
  )
}

interface PathOfGridProps {
  readonly report: GridReport
  /** The order in which eyes read it. */
  readonly order: readonly NodeId[]
  readonly startOf: (id: NodeId) => Box | undefined
}

interface DraggedStop {
  readonly id: NodeId
  /** How far it was dragged, in px. */
  readonly by: Point
  /** The one whose place it would take. */
  readonly onto: NodeId | undefined
}

function PathOfGrid({ report: { written }, order, startOf }: PathOfGridProps) {
  const store = useStore()
  const [dragged, setDragged] = useState<DraggedStop>()
  const stops = written.flatMap((id) => {
    const box = order.includes(id) ? startOf(id) : undefined
    return box ? [{ id, x: box.left + 16, y: box.top + 16 }] : []
  })
  const nameOf = (id: NodeId): string => describeNode(store.state.page, id, store.registry)
  const step = (id: NodeId, direction: 'up' | 'down'): void => {
    const edit = stepMoveEdit(store.state.page, id, direction)
    if (edit)
      store.do(`Moved ${nameOf(id)} ${direction === 'up' ? 'earlier' : 'later'} in the reading order`, [edit])
  }
  const press = (
    event: React.PointerEvent<HTMLButtonElement>,
    { id, x, y }: (typeof stops)[number],
  ): void => {
    if (event.button !== 0) return
    // Keys go on from what was pressed.
    event.currentTarget.focus()
    const { clientX, clientY } = event
    let last: DraggedStop | undefined
    dragHandle(event, {
      move: (moved) => {
        const by = { x: moved.clientX - clientX, y: moved.clientY - clientY }
        const far = (one: Point): number => Math.hypot(one.x - x - by.x, one.y - y - by.y)
        const others = stops.filter((one) => one.id !== id && far(one) <= REACH)
        const onto = others.sort((a, b) => far(a) - far(b))[0]?.id
        last = { id, by, onto }
        setDragged(last)
      },
      end: (isDone) => {
        setDragged(undefined)
        const onto = isDone ? last?.onto : undefined
        const edit = onto === undefined ? undefined : siblingMoveEdit(store.state.page, id, onto)
        if (!edit) return
        const place = stops.findIndex((one) => one.id === onto) + 1
        store.do(`Moved ${nameOf(id)} to ${place} in the reading order`, [edit], { origin: 'pointer' })
      },
    })
  }
  const held = stops.find(({ id }) => id === dragged?.id)
  return (
    <>
      <Line aria-hidden="true">
        <polyline points={stops.map(({ x, y }) => `${x},${y}`).join(' ')} />
      </Line>
      {stops.map((stop, i) => {
        const { id } = stop
        const differs = order[i] !== id
        const by = dragged?.id === id ? dragged.by : { x: 0, y: 0 }
        const name = nameOf(id)
        const how = 'Arrow keys move it, and so does dragging it to another number'
        return (
          <Stop
            key={id}
            type="button"
            data-differs={differs ? '' : undefined}
            data-onto={dragged?.onto === id ? '' : undefined}
            style={{ '--x': `${stop.x + by.x}px`, '--y': `${stop.y + by.y}px` }}
            title={
              differs ? `${name}: read aloud at another place than it is seen. ${how}` : `${name}. ${how}`
            }
            aria-label={`${i + 1}, ${name}${differs ? ', seen at another place' : ''}`}
            onPointerDown={(event) => press(event, stop)}
            onClick={() => store.dispatch({ type: 'select', id })}
            onKeyDown={(event) => {
              const direction = { ArrowUp: 'up', ArrowLeft: 'up', ArrowDown: 'down', ArrowRight: 'down' }[
                event.key
              ]
              if (direction !== 'up' && direction !== 'down') return
              event.preventDefault()
              event.stopPropagation()
              step(id, direction)
            }}
          >
            {i + 1}
          </Stop>
        )
      })}
      {dragged && held && (
        <SaidBelow
          role="status"
          style={{ '--x': `${held.x + dragged.by.x}px`, '--y': `${held.y + dragged.by.y}px` }}
        >
          {dragged.onto === undefined
            ? 'Drag to another number'
            : `Read aloud in place of ${nameOf(dragged.onto)}`}
        </SaidBelow>
      )}
    </>
  )
}
