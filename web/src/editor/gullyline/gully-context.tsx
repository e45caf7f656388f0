import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'
import { reasonToIgnore, type Gully, type Page } from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { useRenderer } from '../session/site-view.ts'
import type { GullyState, Sweeper } from './sweeper.ts'

/** What measures pages. */
export const sweeperCode = later(() => import('./sweeper.ts'))

/** Measuring waits until nobody has edited for this long. */
const PAUSE_MS = 400

export interface Gullyline extends GullyState {
  readonly sweeper: Sweeper | undefined
}

const NOTHING: GullyState = { page: undefined, gullies: [], progress: 0, isWhole: false }
const GullyContext = createContext<Gullyline>({ ...NOTHING, sweeper: undefined })

/** Measures the page that is edited, for all parts of the screen that show its gullies. */
export function GullylineProvider({ children }: { children: ReactNode }) {
  const store = useStore()
  const { registry } = store
  const { context } = useRenderer()
  const code = sweeperCode.use()
  const [state, setState] = useState<GullyState>(NOTHING)
  const [sweeper, setSweeper] = useState<Sweeper>()
  useEffect(() => {
    if (!code) return undefined
    const made = new code.Sweeper(registry, context, setState)
    let timer = window.setTimeout(() => made.show(store.state.page))
    const stop = store.subscribePage(() => {
      made.pause()
      window.clearTimeout(timer)
      timer = window.setTimeout(() => made.show(store.state.page), PAUSE_MS)
    })
    setSweeper(made)
    return () => {
      stop()
      window.clearTimeout(timer)
      made.dispose()
    }
  }, [code, registry, context, store])
  const value = useMemo(() => ({ ...state, sweeper }), [state, sweeper])
  return <GullyContext value={value}>{children}</GullyContext>
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
  const page = usePage((now) => now)
  return useMemo(() => shownGullies(gullies, page), [gullies, page])
}

function shownGullies(gullies: readonly Gully[], page: Page): readonly ShownGully[] {
  const rank = ({ severity }: Gully) => (severity === 'error' ? 0 : 1)
  return gullies
    .map((one) => ({ ...one, ignored: reasonToIgnore(page, one) }))
    .sort((a, b) => a.from - b.from || rank(a) - rank(b) || a.to - b.to)
}

/** The width in the middle of a gully. */
export function middleOf({ from, to }: Pick<Gully, 'from' | 'to'>): number {
  return Math.round((from + to) / 2)
}
