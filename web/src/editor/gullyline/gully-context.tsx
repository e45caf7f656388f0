import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'
import {
  ignoredGullies,
  reasonToIgnore,
  type Gully,
  type IgnoredGully,
  type Look,
  type NodeId,
} from '@gullyline/core'
import { useValue, Value } from '../../ui/value.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { useRenderer } from '../session/site-view.ts'
import { isMeasuring } from './measuring-choice.ts'
import type { Zoom } from '../ruler/screens.tsx'
import { UNMEASURED, type GullyState } from './gully-state.ts'
import type { Sweeper } from './sweeper.ts'

/** Measuring waits until nobody has edited for this long. */
const PAUSE_MS = 400

export interface Gullyline extends GullyState {
  readonly sweeper: Sweeper | undefined
}

const NOTHING: Gullyline = { ...UNMEASURED, sweeper: undefined }
const GullyContext = createContext<Gullyline>(NOTHING)

interface GullylineProviderProps {
  /** What measures it, once that is there. */
  readonly code: { readonly Sweeper: typeof Sweeper } | undefined
  readonly children: ReactNode
}

/** Measures the page that is edited, for all parts of the screen that show its gullies. */
export function GullylineProvider({ code, children }: GullylineProviderProps) {
  const store = useStore()
  const { registry } = store
  const { context } = useRenderer()
  const [value] = useState(() => new Value<Gullyline>(NOTHING))
  const isOn = useValue(isMeasuring)
  useEffect(() => {
    if (!code || !isOn) return undefined
    const made = new code.Sweeper(registry, context, (state) => value.set({ ...state, sweeper: made }))
    let timer = window.setTimeout(() => made.show(store.state.page))
    const stop = store.subscribePage(() => {
      made.pause()
      window.clearTimeout(timer)
      timer = window.setTimeout(() => made.show(store.state.page), PAUSE_MS)
    })
    return () => {
      stop()
      window.clearTimeout(timer)
      made.dispose()
      value.set(NOTHING)
    }
  }, [code, isOn, registry, context, store, value])
  return <GullyContext value={useValue(value)}>{children}</GullyContext>
}

export function useGullyline(): Gullyline {
  return useContext(GullyContext)
}

/** A gully with the reason why it is left, where it is. */
export interface ShownGully extends Gully {
  readonly ignored: string | undefined
}

/** The gullies of the page from narrow to wide, errors first where they begin alike. */
export function useShownGullies(): readonly ShownGully[] {
  const { gullies } = useGullyline()
  // Nothing else of the page, which changes with every letter.
  const ignored = usePage(ignoredGullies)
  const root = usePage((page) => page.root)
  return useMemo(() => shownGullies(gullies, ignored, root), [gullies, ignored, root])
}

function shownGullies(
  gullies: readonly Gully[],
  ignored: readonly IgnoredGully[],
  root: NodeId,
): readonly ShownGully[] {
  const rank = ({ severity }: Gully) => (severity === 'error' ? 0 : 1)
  return gullies
    .map((one) => ({ ...one, ignored: reasonToIgnore(ignored, root, one) }))
    .sort((a, b) => a.from - b.from || rank(a) - rank(b) || a.to - b.to)
}

/** Goes to the next gully, or to the one before. */
export type StepGully = (direction: -1 | 1) => void

export interface GullyRulerProps {
  readonly look: Look
  readonly width: number
  readonly onChange: (width: number) => void
  /** Takes the step, for the keys that ask for it. */
  readonly onStep: (step: StepGully) => void
  readonly zoom: Zoom
  readonly onZoom: (zoom: Zoom) => void
  /** Takes rules over those of the page, for visitors who have set their browser in some way. */
  readonly onView: (css: string) => void
}
