import styled from 'styled-components'
import {
  getKind,
  columnShareEdits,
  columnShares,
  findNode,
  findPlace,
  getNode,
  sizeAt,
  type NodeId,
} from '@gullyline/core'
import { useEditor, usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { boxOf, type Box } from './boxes.ts'
import { shownId } from './shown-ids.ts'

const Divider = styled.div`
  position: absolute;
  left: calc(var(--x) - 8px);
  top: var(--y);
  width: 16px;
  height: var(--h);
  cursor: col-resize;
  pointer-events: auto;
  touch-action: none;
  &::after {
    content: '';
    position: absolute;
    inset: 0 6px;
    border-radius: 2px;
    background: var(--accentBright);
    opacity: 0.55;
  }
  &:hover::after,
  &:focus-visible::after {
    opacity: 1;
  }
  &:focus-visible {
    outline: 2px solid var(--accentBright);
  }
  &:hover span,
  &:active span,
  &:focus-visible span {
    display: block;
  }
  span {
    display: none;
    position: absolute;
    left: 50%;
    top: 4px;
    transform: translateX(-50%);
    padding: 1px 6px;
    border-radius: 3px;
    background: #0a6c7c;
    color: #fff;
    font-size: 11px;
    white-space: nowrap;
  }
`

/** The columns that the selection is, or stands in. */
function useSelectedColumns(): NodeId | undefined {
  const { registry } = useStore()
  return useEditor(({ page, selection }) => {
    for (let at = selection; at !== undefined; at = findPlace(page, at)?.parentId) {
      const node = findNode(page, at)
      if (node && getKind(registry, node.kind).isShared === true) return at
    }
    return undefined
  })
}

interface ColumnDividersProps {
  readonly inner: Document
  /** From a box of the frame to the coordinates of the layer. */
  readonly toLayer: (box: Box) => Box
}

/**
 * A line between each two columns that can be dragged, or moved with the arrow keys: what one gets, the other gives, at
 * the size that is shown.
 */
export function ColumnDividers(props: ColumnDividersProps) {
  const id = useSelectedColumns()
  return id === undefined ? null : <DividersOf id={id} {...props} />
}

function DividersOf({ id, inner, toLayer }: ColumnDividersProps & { readonly id: NodeId }) {
  const store = useStore()
  const page = usePage((page) => page)
  const columns = getNode(page, id).slots.columns ?? []
  const { look } = useSiteView().site
  // As the page's own rules have it, by the width of its window.
  const size = sizeAt(inner.documentElement.clientWidth, look)
  const shares = columnShares(page, id, size)
  const boxes = columns
    .map((column) => boxOf(inner, shownId(store, column)))
    .map((box) => box && toLayer(box))
  const [first] = boxes
  const isAcross =
    first !== undefined && boxes.every((box) => box !== undefined && Math.abs(box.top - first.top) < 2)
  if (!isAcross || columns.length < 2) return null
  const total = boxes.reduce((sum, box) => sum + (box?.width ?? 0), 0)
  const set = (at: number, left: number): void => {
    const both = shares[at]! + shares[at + 1]!
    const own = Math.min(both - 1, Math.max(1, Math.round(left)))
    if (own === columnShares(store.state.page, id, size)[at]) return
    const next = shares.with(at, own).with(at + 1, both - own)
    store.do('Changed the widths of two columns', columnShareEdits(store.state.page, id, next, size), {
      joinKey: `${id}/shares/${size}`,
      origin: 'pointer',
    })
  }
  return boxes.slice(0, -1).map((box, at) => {
    const next = boxes[at + 1]!
    const x = (box!.left + box!.width + next.left) / 2
    return (
      <Divider
        key={at}
        role="separator"
        tabIndex={0}
        aria-orientation="vertical"
        aria-label={`Between column ${at + 1} and ${at + 2}`}
        aria-valuenow={shares[at]}
        aria-valuemin={1}
        aria-valuemax={shares[at]! + shares[at + 1]! - 1}
        style={{
          '--x': `${x}px`,
          '--y': `${box!.top}px`,
          '--h': `${Math.max(box!.height, next.height)}px`,
        }}
        onKeyDown={(event) => {
          const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
          if (step === undefined || event.altKey || event.ctrlKey) return
          event.preventDefault()
          event.stopPropagation()
          set(at, shares[at]! + step * (event.shiftKey ? 5 : 1))
        }}
        onPointerDown={(event) => {
          if (event.button !== 0) return
          event.preventDefault()
          const handle = event.currentTarget
          handle.setPointerCapture(event.pointerId)
          const [from, before] = [event.clientX, shares[at]!]
          const move = (moved: PointerEvent): void => set(at, before + ((moved.clientX - from) / total) * 100)
          handle.addEventListener('pointermove', move)
          const end = (): void => handle.removeEventListener('pointermove', move)
          handle.addEventListener('pointerup', end, { once: true })
          handle.addEventListener('pointercancel', end, { once: true })
        }}
      >
        <span>
          {shares[at]} : {shares[at + 1]}
        </span>
      </Divider>
    )
  })
}
