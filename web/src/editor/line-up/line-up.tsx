import { Plus, X } from 'lucide'
import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import styled from 'styled-components'
import { pageSheet } from '../../ui/page-sheet.ts'
import { type Look } from '@gullyline/core'
import { useRoom } from '../../ui/use-room.ts'
import { Button, IconButton, mono, Tabs } from '../../ui/controls.tsx'
import { contourBackdrop } from '../canvas/contours.ts'
import { PageFrame } from '../canvas/page-frame.tsx'
import { elementsOf } from '../canvas/boxes.ts'
import { isTyped, listenToInput, typeAt } from '../canvas/frame-input.ts'
import { pressedAt, shownId } from '../canvas/shown-ids.ts'
import { useEditor, useStore, type EditorStore } from '../session/editor-store.ts'
import { TroubleMark } from '../problems/trouble-mark.tsx'
import { useShownGullies } from '../gullyline/gully-context.tsx'
import { Compare } from './compare.tsx'
import type { Before } from '../session/page-before.ts'
import { ScrollTogether } from './scroll-together.ts'
import { TAKES_FOCUS } from '../canvas/focus-canvas.ts'
import { PageScrollbar } from '../canvas/page-scrollbar.tsx'
import { PageStyle, PageView, TypedHereProvider } from '../canvas/page-view.tsx'
import { useResolvedPage, type ShownPage } from '../canvas/shown-page.ts'
import { clampWidth, rulerSizes } from '../ruler/ruler-scale.ts'
import { useSiteView } from '../session/site-view.ts'
import { counted } from '../../ui/counted.ts'
import { Icon } from '../../ui/icon.tsx'

/** Above the pages, in px: where a width is added. */
const ABOVE = 46
/** Above each page, in px: what it is called. */
const LABEL = 37

const Area = styled.main`
  position: relative;
  display: flex;
  gap: 24px;
  padding: ${ABOVE}px 24px 0;
  overflow: hidden;
  ${contourBackdrop}
`
const Column = styled.section`
  display: flex;
  flex-direction: column;
  flex: none;
  width: var(--width);
`
const Label = styled.h2`
  display: flex;
  align-items: baseline;
  gap: 8px;
  min-height: ${LABEL}px;
  font-size: 13px;
  button {
    padding: 2px 0;
    border: 0;
    background: none;
    font-weight: 650;
    text-decoration: underline;
    text-decoration-color: var(--lineStrong);
    text-underline-offset: 3px;
  }
  span {
    ${mono}
    color: var(--quiet);
    font-weight: 450;
  }
  > span:last-of-type {
    margin-right: auto;
  }
`
const Sheet = styled.div`
  flex: 1;
  ${pageSheet}
`
const GAP = 24
/** A narrow screen needs more than its share of the room to be readable: widths are weighed by this power. */
const EVENING = 0.6

/** Where a width is added to those side by side. */
const Add = styled.form`
  position: absolute;
  right: 24px;
  top: 10px;
  display: flex;
  gap: 6px;
  align-items: center;
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 12px;
  }
  input {
    width: 68px;
    height: 26px;
    padding: 0 6px;
    border: 1px solid var(--control);
    border-radius: 4px;
    background: var(--paper);
  }
`
const MOST_WIDTHS = 6
/** What is shown side by side: widths, or versions. */
const Views = styled.div`
  position: absolute;
  left: 24px;
  top: 8px;
`

interface LineUpProps {
  /** The width that the ruler shows. */
  readonly width: number
  readonly onChoose: (width: number) => void
  readonly onKeyDown: (event: KeyboardEvent) => void
}

/** The page as it is now, saved or not, at several widths side by side: one of each size at first. Choosing one goes back to the page at that width. */
export function LineUp({ width, onChoose, onKeyDown }: LineUpProps) {
  const store = useStore()
  const { site } = useSiteView()
  const { ref: setArea, room } = useRoom()
  const [widths, setWidths] = useState(() => rulerSizes(site.look).map(({ sample }) => sample))
  const [wanted, setWanted] = useState(String(width))
  const [together] = useState(() => new ScrollTogether())
  const { summary } = useSiteView()
  const [view, setView] = useState<'widths' | Before>('widths')
  /** The narrowest page, the longest of all. */
  const [longest, setLongest] = useState<Document>()
  const page = useResolvedPage('visitor')
  /** The screen that was worked in last: what is typed is typed there. */
  const [worked, setWorked] = useState<number>()
  const host = widths.find((one) => one === worked) ?? widths.findLast((one) => one <= width) ?? widths[0]
  // What is typed here is not typed on in the canvas, where it may be out of sight.
  useEffect(() => () => store.dispatch({ type: 'stop-typing' }), [store])
  const added = clampWidth(Number(wanted) || width)
  const add = (): void => setWidths([...new Set([...widths, added])].sort((a, b) => a - b))
  return (
    <Area ref={setArea} aria-label="Line-up" tabIndex={-1} {...{ [TAKES_FOCUS]: '' }}>
      <Views>
        <Tabs
          label="Line-up"
          value={view}
          options={[
            ['widths', 'Widths'],
            ['saved', 'With last saved'],
            ...(summary.liveSince === null ? [] : [['live', 'With live'] as const]),
          ]}
          onChange={setView}
        />
      </Views>
      {view !== 'widths' && room.width > 0 && (
        <Compare before={view} screen={width} room={room} above={ABOVE} />
      )}
      {view === 'widths' &&
        room.width > 0 &&
        widths.map((one, i) => (
          <Shown
            key={one}
            screen={one}
            title={titleOf(one, site.look)}
            page={page}
            width={shownWidth(one, widths, room.width)}
            height={room.height - LABEL}
            together={together}
            onDocument={i === 0 ? setLongest : undefined}
            isTypedHere={one === host}
            onWork={setWorked}
            onKeyDown={onKeyDown}
            onChoose={onChoose}
            onRemove={
              widths.length > 1 ? () => setWidths(widths.filter((other) => other !== one)) : undefined
            }
          />
        ))}
      {view === 'widths' && longest && (
        <PageScrollbar
          inner={longest}
          scale={shownWidth(widths[0]!, widths, room.width) / widths[0]!}
          top={ABOVE + LABEL}
        />
      )}
      {view === 'widths' && widths.length < MOST_WIDTHS && (
        <Add
          onSubmit={(event) => {
            event.preventDefault()
            add()
          }}
        >
          <label>
            Width
            <input inputMode="numeric" value={wanted} onChange={(event) => setWanted(event.target.value)} />
          </label>
          <Button type="submit">
            <Icon of={Plus} size={14} strokeWidth={1.75} /> Add width
          </Button>
        </Add>
      )}
    </Area>
  )
}

/** The size that a width belongs to. */
function titleOf(width: number, look: Look): string {
  return rulerSizes(look).find(({ to }) => width < to)?.title ?? 'wide'
}

function shownWidth(screen: number, screens: readonly number[], room: number): number {
  const weight = (one: number) => one ** EVENING
  const all = screens.reduce((sum, one) => sum + weight(one), 0)
  return Math.min(screen, Math.floor(((room - (screens.length - 1) * GAP) * weight(screen)) / all))
}

interface ShownProps {
  readonly screen: number
  readonly title: string
  readonly page: ShownPage
  readonly width: number
  readonly height: number
  readonly together: ScrollTogether
  readonly onDocument: ((inner: Document) => void) | undefined
  readonly isTypedHere: boolean
  readonly onWork: (screen: number) => void
  readonly onKeyDown: (event: KeyboardEvent) => void
  readonly onChoose: (width: number) => void
  readonly onRemove: (() => void) | undefined
}

function Shown({
  screen,
  title,
  page,
  width,
  height,
  together,
  onDocument,
  isTypedHere,
  onWork,
  onKeyDown,
  onChoose,
  onRemove,
}: ShownProps) {
  const store = useStore()
  const scale = width / screen
  const [inner, setInner] = useState<Document>()
  useEffect(() => (inner ? together.join(inner) : undefined), [inner, together])
  useEffect(() => {
    if (inner) onDocument?.(inner)
  }, [inner, onDocument])
  // The text editor must be here before the press is told to it.
  const work = useCallback(() => flushSync(() => onWork(screen)), [onWork, screen])
  useLayoutEffect(
    () => (inner ? listenToScreen(inner, store, { onWork: work, onKeyDown }) : undefined),
    [inner, store, work, onKeyDown],
  )
  const gullies = useShownGullies().filter(
    ({ from, to, ignored }) => ignored === undefined && screen >= from && screen <= to,
  )
  return (
    <Column aria-label={`${title}, ${screen} pixels`} style={{ '--width': `${width}px` }}>
      <Label>
        <button type="button" onClick={() => onChoose(screen)} title="Go back to the page at this width">
          {title}
        </button>
        <span>{screen}</span>
        {gullies.length > 0 && (
          <span title={gullies.map(({ why }) => why).join('\n')}>
            <TroubleMark
              severity={gullies.some(({ severity }) => severity === 'error') ? 'error' : 'warning'}
            />{' '}
            {counted(gullies.length, 'gully', 'gullies')}
          </span>
        )}
        {onRemove && (
          <IconButton label={`Remove ${screen}`} onPress={onRemove}>
            <Icon of={X} size={14} strokeWidth={1.75} />
          </IconButton>
        )}
      </Label>
      <Sheet>
        <PageFrame
          title={`The page at ${title}, ${screen} pixels wide`}
          width={screen}
          height={Math.ceil(height / scale)}
          scale={scale}
          head={
            <>
              <PageStyle shown={page} />
              <Marked scale={scale} />
            </>
          }
          onDocument={setInner}
        >
          <TypedHereProvider value={isTypedHere}>
            <PageView shown={page} />
          </TypedHereProvider>
          {isTypedHere && inner && <KeepInView inner={inner} />}
        </PageFrame>
      </Sheet>
    </Column>
  )
}

interface ScreenHandlers {
  /** The screen was pressed. */
  readonly onWork: () => void
  readonly onKeyDown: (event: KeyboardEvent) => void
}

/** Pointer and keys on one of the screens: a press selects, a second one types; nothing is dragged from screen to screen. */
function listenToScreen(
  inner: Document,
  store: EditorStore,
  { onWork, onKeyDown }: ScreenHandlers,
): () => void {
  const press = (event: PointerEvent): void => {
    const target = event.target as Element
    if (event.button !== 0 || (isTyped(target, store) && target.closest('[contenteditable]'))) return
    event.preventDefault()
    inner.defaultView?.focus()
    onWork()
    const shown = target.closest<HTMLElement>('[data-node]')?.dataset.node
    if (shown !== undefined && shown !== store.state.page.root)
      store.dispatch({ type: 'select', ...pressedAt(store, shown) })
  }
  const twice = (event: MouseEvent): void => {
    onWork()
    typeAt(store, event.target as Element, { x: event.clientX, y: event.clientY })
  }
  return listenToInput(inner, { press, twice, onKeyDown })
}

/** Brings what is selected by keys into view; the other screens come along. */
function KeepInView({ inner }: { inner: Document }) {
  const store = useStore()
  const selection = useEditor((state) => state.selection)
  useEffect(() => {
    if (selection === undefined) return
    const [element] = elementsOf(inner, shownId(store, selection))
    if (!element || element.matches(':hover')) return
    element.scrollIntoView({ block: 'nearest' })
  }, [store, inner, selection])
  return null
}

/** What is selected is marked at every width. */
function Marked({ scale }: { scale: number }) {
  const store = useStore()
  const selection = useEditor((state) => state.selection)
  const shown = useMemo(
    () => (selection === undefined ? undefined : CSS.escape(shownId(store, selection))),
    [store, selection],
  )
  if (shown === undefined) return null
  return (
    <style>{`[data-node="${shown}"]{outline:${Math.ceil(3 / scale)}px solid #0e8597;outline-offset:2px}`}</style>
  )
}
