import { useState } from 'react'
import styled from 'styled-components'
import {
  closeUp,
  describeNode,
  emptyRowsAbove,
  makeRoom,
  placeBlocksEdits,
  type Placed,
  type SizeKey,
} from '@gullyline/core'
import { useStore } from '../session/editor-store.ts'
import { windowToFrame } from './frame-geometry.ts'
import { cellAt, type GridLines } from './grid-geometry.ts'
import { dragHandle } from './handle-drag.ts'
import { handle, Said } from './handle-style.ts'
import { counted } from '../../ui/counted.ts'

const Line = styled.div`
  position: absolute;
  left: var(--left);
  top: var(--top);
  width: var(--width);
  border-top: 1.5px dashed var(--accentBright);
  pointer-events: none;
`
const Grip = styled.button`
  ${handle}
  left: -12px;
  top: -12px;
  cursor: ns-resize;
  &::after {
    width: 16px;
    height: 7px;
    border-width: 2px 0;
  }
`
const SaidBelow = styled(Said)`
  left: 16px;
  top: 4px;
`

interface RoomLineProps {
  readonly inner: Document
  readonly lines: GridLines
  readonly own: Placed
  readonly placed: readonly Placed[]
  readonly size: SizeKey
  /** In the coordinates of the layer, in px. */
  readonly at: { readonly left: number; readonly top: number; readonly width: number }
}

/** The line above a block of a grid section: pulled down it opens rows for all below, pushed up it closes empty ones. */
export function RoomLine({ inner, lines, own, placed, size, at }: RoomLineProps) {
  const store = useStore()
  const [pulled, setPulled] = useState<{ readonly rows: number; readonly px: number }>()
  const least = -emptyRowsAbove(placed, own.row)
  const what = describeNode(store.state.page, own.id, store.registry)
  const pull = (rows: number): void => {
    const next = rows > 0 ? makeRoom(placed, own.row, rows) : closeUp(placed, own.row, -rows)
    const edits = placeBlocksEdits(placed, next, size)
    if (edits.length === 0) return
    const count = counted(Math.abs(rows), 'row')
    store.do(rows > 0 ? `Opened ${count} above ${what}` : `Closed ${count} above ${what}`, edits, {
      origin: 'pointer',
    })
  }
  const press = (event: React.PointerEvent<HTMLButtonElement>): void => {
    if (event.button !== 0) return
    const frame = inner.defaultView?.frameElement as HTMLIFrameElement
    const rowAt = ({ clientX, clientY }: PointerEvent): number =>
      cellAt(lines, windowToFrame(frame, { x: clientX, y: clientY })).row
    const from = rowAt(event.nativeEvent)
    const { clientY } = event
    let rows = 0
    dragHandle(event, {
      move: (moved) => {
        rows = Math.max(least, Math.round(rowAt(moved) - from))
        setPulled({ rows, px: moved.clientY - clientY })
      },
      end: (isDone) => {
        setPulled(undefined)
        if (isDone && rows !== 0) pull(rows)
      },
    })
  }
  return (
    <Line
      style={{
        '--left': `${at.left}px`,
        '--top': `${at.top + (pulled?.px ?? 0)}px`,
        '--width': `${at.width}px`,
      }}
    >
      <Grip
        type="button"
        aria-label={`Make room above ${what}`}
        title="Drag down to open rows, up to close empty ones"
        onPointerDown={press}
        onKeyDown={(event) => {
          const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
          if (by === 0 || event.altKey || event.ctrlKey) return
          event.preventDefault()
          event.stopPropagation()
          pull(Math.max(least, by))
        }}
      />
      {pulled && (
        <SaidBelow role="status">
          {pulled.rows > 0
            ? `Opens ${counted(pulled.rows, 'row')} for all below`
            : pulled.rows < 0
              ? `Closes ${pulled.rows === -1 ? '1 row' : `${-pulled.rows} rows`}`
              : 'Drag down to make room'}
        </SaidBelow>
      )}
    </Line>
  )
}
