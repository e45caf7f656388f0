import { useCallback, useLayoutEffect, useState } from 'react'
import styled from 'styled-components'
import { useIsAfterFirst } from '../../ui/after-first.tsx'
import { pageSheet } from '../../ui/page-sheet.ts'
import { later } from '../../ui/later.ts'
import { useRoom } from '../../ui/use-room.ts'
import { getNode, shownSlots } from '@gullyline/core'
import { useEditor, usePage, useStore } from '../session/editor-store.ts'
import type { Zoom } from '../ruler/screens.tsx'
import { useSiteView } from '../session/site-view.ts'
import { blocksIn } from './beginning.ts'
import { useResolvedPage } from './shown-page.ts'
import { contourBackdrop } from './contours.ts'
import { boxVariables } from './at-box.ts'
import { useDrawnBox } from './box-select.ts'
import { listenToFrame, selectAt } from './frame-input.ts'
import { PageFrame } from './page-frame.tsx'
import { PageScrollbar } from './page-scrollbar.tsx'
import { PageStyle, PageView } from './page-view.tsx'
import { useClipboard } from './use-clipboard.ts'
import { gridCanvas } from './canvas-later.ts'
import { KeepInView } from './keep-in-view.tsx'
import { SelectionLayer } from './selection-layer.tsx'

/** The menu of what is selected; comes once the page is there. */
export const canvasMenu = later(() => import('../commands/selection-menu.tsx'))

const MARGIN = 28
/** Above the page: room for the name of what is selected and for the text bar, which cover nothing there. */
const DOCK_HEIGHT = 44

const Area = styled.main`
  position: relative;
  /* Not hidden: what takes the focus beyond the edge would scroll it, and all that is drawn over the page with it. */
  overflow: clip;
  ${contourBackdrop}
`

const Sheet = styled.div`
  position: absolute;
  top: ${DOCK_HEIGHT}px;
  left: var(--left);
  width: var(--width);
  bottom: 0;
  ${pageSheet}
  &[data-alone]:focus-within {
    box-shadow: 0 0 0 2px var(--accentBright);
  }
`

interface CanvasProps {
  /** The width of the page in px: the ruler's. */
  readonly width: number
  readonly onDocument: (document: Document) => void
  readonly onKeyDown: (event: KeyboardEvent) => void
  readonly onNavigate: (href: string) => void
  /** A picture of the selected block was pressed twice. */
  readonly onPicture: () => void
  /** Whether the order of grid sections is drawn over them. */
  readonly hasReadingPath: boolean
  /** Rules over those of the page; see ruler/view-as.tsx. */
  readonly viewCss: string
  /** Whether the page is made as small as it must be to have room, or has its own size and is moved sideways. */
  readonly zoom: Zoom
}

/** The page itself, at the ruler's width, scaled down when there is less room. */
export function Canvas({
  width,
  onDocument,
  onKeyDown,
  onNavigate,
  onPicture,
  hasReadingPath,
  viewCss,
  zoom,
}: CanvasProps) {
  const store = useStore()
  const { site } = useSiteView()
  const grid = gridCanvas.use()
  const menu = canvasMenu.use()
  const { ref: setArea, element: area, room } = useRoom()
  const [inner, setInner] = useState<Document>()

  const isThere = useCallback(
    (document: Document) => {
      setInner(document)
      onDocument(document)
    },
    [onDocument],
  )
  // Before the frame is given the focus, a frame after it is there: a key that nobody hears is lost.
  useLayoutEffect(
    () => (inner ? listenToFrame(inner, store, { onKeyDown, onNavigate, onPicture }) : undefined),
    [inner, store, onKeyDown, onNavigate, onPicture],
  )
  useClipboard(store, inner)
  const selectUnder = useCallback((target: Element) => selectAt(store, target), [store])
  // With a block selected, its outline shows where the keys go.
  const isAlone = useEditor((state) => state.selection === undefined)
  const fit = room.width === 0 ? 1 : Math.min(1, (room.width - 2 * MARGIN) / width)
  const scale = zoom === 'whole' ? 1 : fit
  const drawnWidth = Math.round(width * scale)
  /** So many px of the page lie beyond the room. */
  const beyond = Math.max(0, drawnWidth + 2 * MARGIN - room.width)
  const [wanted, setWanted] = useState(0)
  const panned = Math.min(wanted, beyond)
  const left = beyond > 0 ? MARGIN - panned : Math.round((room.width - drawnWidth) / 2)
  /** Moves the page sideways where a block, which reaches from one px of it to another, is out of sight. */
  const panTo = useCallback(
    (from: number, to: number): void =>
      setWanted((now) => {
        const seen = Math.min(now, beyond) - MARGIN
        return beyond === 0 || (from >= seen && to <= seen + room.width) ? now : Math.max(0, from)
      }),
    [beyond, room.width],
  )
  // What fills the window comes first. A block that is selected meanwhile may be any of the page.
  const isAfterFirst = useIsAfterFirst()
  const [isWhole, setWhole] = useState(false)
  if (!isWhole && (isAfterFirst || !isAlone)) setWhole(true)
  const shown = useResolvedPage('editor', isWhole ? Infinity : blocksIn(window.innerHeight))
  return (
    <Area ref={setArea} aria-label="Canvas">
      <Sheet
        data-alone={isAlone ? '' : undefined}
        style={{ '--left': `${left}px`, '--width': `${drawnWidth}px` }}
      >
        <PageFrame
          title={`The page, ${width} pixels wide`}
          width={width}
          height={Math.max(0, Math.ceil((room.height - DOCK_HEIGHT) / scale))}
          scale={scale}
          head={
            <>
              <PageStyle shown={shown} />
              {viewCss !== '' && <style>{viewCss}</style>}
            </>
          }
          isFocusHome
          onDocument={isThere}
        >
          <PageView shown={shown} />
        </PageFrame>
      </Sheet>
      {inner && <PageScrollbar inner={inner} scale={scale} top={DOCK_HEIGHT} />}
      {inner && area && <SelectionLayer inner={inner} area={area} />}
      {inner && area && hasReadingPath && grid && <grid.ReadingPath inner={inner} area={area} />}
      {inner && grid && <grid.CanvasDrops inner={inner} />}
      {inner && <KeepInView inner={inner} width={width} panTo={panTo} />}
      {inner && menu && <menu.CanvasMenu inner={inner} onPoint={selectUnder} />}
      {beyond > 0 && (
        <Pan
          type="range"
          aria-label="Pan sideways"
          min={0}
          max={beyond}
          value={panned}
          onChange={(event) => setWanted(Number(event.target.value))}
        />
      )}
      <DrawnBox />
      <EmptyPageHint siteName={site.name} />
    </Area>
  )
}

const Pan = styled.input`
  position: absolute;
  left: 50%;
  bottom: 10px;
  z-index: 5;
  width: 240px;
  margin-left: -120px;
  accent-color: var(--accent);
`

const BoxMark = styled.div`
  position: fixed;
  left: var(--x);
  top: var(--y);
  z-index: 4;
  width: var(--w);
  height: var(--h);
  border: 1.5px dashed var(--accentBright);
  background: color-mix(in srgb, var(--accentBright) 12%, transparent);
  pointer-events: none;
`

function DrawnBox() {
  const box = useDrawnBox()
  if (!box) return null
  return <BoxMark style={boxVariables(box)} />
}

const Hint = styled.p`
  position: absolute;
  left: 50%;
  top: 45%;
  transform: translateX(-50%);
  padding: 10px 16px;
  border-radius: 5px;
  background: var(--paper);
  color: var(--plain);
  box-shadow: 0 4px 18px rgb(25 33 30 / 20%);
  pointer-events: none;
`

function EmptyPageHint({ siteName }: { siteName: string }) {
  const { registry } = useStore()
  const empty = usePage((page) => {
    const root = getNode(page, page.root)
    return shownSlots(root, registry).every((slot) => (root.slots[slot] ?? []).length === 0)
  })
  return empty ? (
    <Hint>
      Nothing between {siteName}’s header and footer yet: press <b>Add to page</b>.
    </Hint>
  ) : null
}
