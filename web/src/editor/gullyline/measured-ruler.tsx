import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { findNode, RULES, stepsOf } from '@gullyline/core'
import { seenAt } from '../canvas/shown-ids.ts'
import { Ruler } from '../ruler/ruler.tsx'
import { clampWidth } from '../ruler/ruler-scale.ts'
import { Screens } from '../ruler/screens.tsx'
import { ViewAs, viewCss, type VisitorView } from '../ruler/view-as.tsx'
import { useStore } from '../session/editor-store.ts'
import { useGullyline, useShownGullies, type GullyRulerProps, type ShownGully } from './gully-context.tsx'
import { GullyLine } from './gully-line.tsx'
import type { Stage } from './gully-state.ts'
import { placeIn } from './gully-address.ts'
import { middleOf, rangeOf } from './gully-range.ts'
import { nextGully } from './next-gully.ts'
import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import { useGullyNews } from './use-gully-news.ts'
import { GullyList } from './gully-list.tsx'
import { isMeasuring } from './measuring-choice.ts'
import { useValue } from '../../ui/value.ts'

/** Why there is no gully to go to. */
const NONE: Readonly<Record<Stage | 'paused', string>> = {
  paused: 'Measuring is paused: resume it in the list of gullies, at the end of the ruler',
  waiting: 'No gully was found so far: the page is still to be measured',
  measuring: 'No gully was found so far: the page is being measured',
  whole: 'No gullies on this page',
  failed: 'No gully was found: the page can’t be measured now, and is tried again by itself',
}

const widthChart = later(() => import('./width-chart.tsx'))

/** The ruler with the gullies of the page. */
export function MeasuredRuler({ look, width, onChange, onStep, onView, zoom, onZoom }: GullyRulerProps) {
  const [views, setViews] = useState<ReadonlySet<VisitorView>>(new Set())
  const [isChart, setChart] = useState(false)
  const store = useStore()
  const isOn = useValue(isMeasuring)
  const { page, stage } = useGullyline()
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
  // Before the next key, which may come as soon as this is drawn.
  useLayoutEffect(() => {
    const told = gullies.filter(({ ignored }) => ignored === undefined)
    onStep((direction) => {
      const next = nextGully(told, { last: lastRef.current, width, direction })
      if (next) choose(next)
      else store.dispatch({ type: 'tell', words: NONE[isOn ? stage : 'paused'], tone: 'done' })
    })
  }, [gullies, width, choose, store, onStep, isOn, stage])
  const location = useLocation()
  const navigate = useNavigate()
  useEffect(() => {
    const asked = placeIn(location.search)
    if (!asked) return
    onChange(clampWidth(asked.width))
    const { nodeId } = asked
    // An address may be old, or anybody's.
    if (nodeId !== undefined && stepsOf(nodeId).every((id) => findNode(store.state.page, id)))
      store.dispatch({ type: 'select', ...seenAt(nodeId) })
    // Once: loaded again, the page is as it is left.
    void navigate({ search: '' }, { replace: true })
  }, [location, navigate, onChange, store])
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
