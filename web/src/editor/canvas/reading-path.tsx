import styled from 'styled-components'
import {
  describeNode,
  gridReports,
  sizeAt,
  stepMoveEdit,
  type GridReport,
  type NodeId,
} from '@gullyline/core'
import { mono } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { boxOf, type Box } from './boxes.ts'
import { boxToWindow, useFrameLayout } from './frame-geometry.ts'
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
  box-shadow: 0 2px 6px rgb(0 0 0 / 30%);
  &[data-differs] {
    background: var(--clay);
  }
`

/** The order in which the blocks of grid sections are read aloud and tabbed through, over the canvas. A number can be moved by the arrow keys. */
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

function PathOfGrid({ report: { written }, order, startOf }: PathOfGridProps) {
  const store = useStore()
  const stops = written.flatMap((id) => {
    const box = order.includes(id) ? startOf(id) : undefined
    return box ? [{ id, x: box.left + 16, y: box.top + 16 }] : []
  })
  const move = (id: NodeId, direction: 'up' | 'down'): void => {
    const edit = stepMoveEdit(store.state.page, id, direction)
    const what = describeNode(store.state.page, id, store.registry)
    if (edit)
      store.do(`Moved ${what} ${direction === 'up' ? 'earlier' : 'later'} in the reading order`, [edit])
  }
  return (
    <>
      <Line aria-hidden="true">
        <polyline points={stops.map(({ x, y }) => `${x},${y}`).join(' ')} />
      </Line>
      {stops.map(({ id, x, y }, i) => {
        const differs = order[i] !== id
        const name = describeNode(store.state.page, id, store.registry)
        return (
          <Stop
            key={id}
            type="button"
            data-differs={differs ? '' : undefined}
            style={{ '--x': `${x}px`, '--y': `${y}px` }}
            title={
              differs
                ? `${name}: read aloud at another place than it is seen. Arrow keys move it`
                : `${name}. Arrow keys move it`
            }
            aria-label={`${i + 1}, ${name}${differs ? ', seen at another place' : ''}`}
            onClick={() => store.dispatch({ type: 'select', id })}
            onKeyDown={(event) => {
              const direction = { ArrowUp: 'up', ArrowLeft: 'up', ArrowDown: 'down', ArrowRight: 'down' }[
                event.key
              ]
              if (direction !== 'up' && direction !== 'down') return
              event.preventDefault()
              event.stopPropagation()
              move(id, direction)
            }}
          >
            {i + 1}
          </Stop>
        )
      })}
    </>
  )
}
