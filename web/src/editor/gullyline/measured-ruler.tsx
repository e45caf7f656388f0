import { useCallback, useEffect, useRef, useState } from 'react'
import { RULES } from '@gullyline/core'
import { seenAt } from '../canvas/shown-ids.ts'
import { Ruler } from '../ruler/ruler.tsx'
import { Screens } from '../ruler/screens.tsx'
import { ViewAs, viewCss, type VisitorView } from '../ruler/view-as.tsx'
import { useStore } from '../session/editor-store.ts'
import {
  middleOf,
  useGullyline,
  useShownGullies,
  type GullyRulerProps,
  type ShownGully,
} from './gully-context.tsx'
import { GullyLine, rangeOf } from './gully-line.tsx'
import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import { useGullyNews } from './use-gully-news.ts'
import { GullyList } from './gully-list.tsx'
import { isMeasuring } from './measuring-choice.ts'
import { useValue } from '../../ui/value.ts'

const PAUSED = 'Measuring is paused: resume it in the list of gullies, at the end of the ruler'

const widthChart = later(() => import('./width-chart.tsx'))

/** The ruler with the gullies of the page. */
export function MeasuredRuler({ look, width, onChange, onStep, onView, zoom, onZoom }: GullyRulerProps) {
  const [views, setViews] = useState<ReadonlySet<VisitorView>>(new Set())
  const [isChart, setChart] = useState(false)
  const store = useStore()
  const isOn = useValue(isMeasuring)
  const { page } = useGullyline()
  const gullies = useShownGullies()
  useGullyNews()
  const lastRef = useRef<ShownGully>(undefined)
  const choose = useCallback(
    (gully: ShownGully): void => {
      lastRef.current = gully
      onChange(middleOf(gully))
      if (gully.nodeId !== undefined) store.dispatch({ type: 'select', ...seenAt(gully.nodeId) })
      const words = `${RULES.get(gully.rule)!.title}, ${rangeOf(gully)}: ${gully.why}`
      store.dispatch({ type: 'tell', words, tone: 'done' })
    },
    [store, onChange],
  )
  useEffect(() => {
    const told = gullies.filter(({ ignored }) => ignored === undefined)
    onStep((direction) => {
      const next = nextGully(told, { last: lastRef.current, width, direction })
      if (next) choose(next)
      else store.dispatch({ type: 'tell', words: isOn ? 'No gullies on this page' : PAUSED, tone: 'done' })
    })
  }, [gullies, width, choose, store, onStep, isOn])
  const isMeasured = page !== undefined
  return (
    <Ruler
      look={look}
      width={width}
      onChange={onChange}
      line={isMeasured && <GullyLine gullies={gullies} onChoose={choose} />}
    >
      <ViewAs
        views={views}
        onChange={(next) => {
          setViews(next)
          onView(viewCss(next))
        }}
      />
      <Screens width={width} onChange={onChange} zoom={zoom} onZoom={onZoom} />
      {(isMeasured || !isOn) && <GullyList onChoose={choose} onChart={() => setChart(true)} />}
      {isChart && (
        <LaterDialog code={widthChart} onClose={() => setChart(false)}>
          {({ WidthChart }) => (
            <WidthChart look={look} width={width} onChoose={onChange} onClose={() => setChart(false)} />
          )}
        </LaterDialog>
      )}
    </Ruler>
  )
}

interface From {
  /** The gully that was gone to last, where its width is still shown. */
  readonly last: ShownGully | undefined
  readonly width: number
  readonly direction: -1 | 1
}

/** The next gully from narrow to wide, or the other way, and from the end again from the beginning. */
export function nextGully(
  gullies: readonly ShownGully[],
  { last, width, direction }: From,
): ShownGully | undefined {
  const at = gullies.findIndex(
    (one) => one.rule === last?.rule && one.nodeId === last.nodeId && one.from === last.from,
  )
  if (at >= 0 && middleOf(gullies[at]!) === width) return gullies.at((at + direction) % gullies.length)
  const isAhead = (one: ShownGully): boolean =>
    direction > 0 ? middleOf(one) > width : middleOf(one) < width
  return (
    (direction > 0 ? gullies.find(isAhead) : gullies.findLast(isAhead)) ?? gullies.at(direction > 0 ? 0 : -1)
  )
}
