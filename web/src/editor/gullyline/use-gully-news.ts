import { useEffect, useRef } from 'react'
import { RULES, type Page } from '@gullyline/core'
import { useEditor, useStore } from '../session/editor-store.ts'
import { useGullyline } from './gully-context.tsx'
import { rangeOf } from './gully-range.ts'
import { gullyName } from './gully-name.ts'
import { counted } from '../../ui/counted.ts'

/** Tells after each save which gullies the page did not have when it was saved before. */
export function useGullyNews(): void {
  const store = useStore()
  const { page, gullies, stage } = useGullyline()
  const saved = useEditor((state) => state.saved.page)
  // What was saved last with its gullies, once they were measured.
  const knownRef = useRef<{ readonly saved: Page; readonly names: ReadonlySet<string> }>(undefined)
  useEffect(() => {
    if (stage !== 'whole' || page === undefined || store.state.page !== page || page !== saved) return
    const known = knownRef.current
    if (known?.saved === saved) return
    knownRef.current = { saved, names: new Set(gullies.map(gullyName)) }
    if (!known) return
    const news = gullies.filter((one) => !known.names.has(gullyName(one)))
    if (news.length === 0) return
    const [first] = news
    const words = `${RULES.get(first!.rule)!.title}, ${rangeOf(first!)}`
    const count = counted(news.length, 'gully is', 'gullies are')
    store.dispatch({
      type: 'tell',
      words: `Saved. ${count} new since the last save: ${words}`,
      tone: 'refused',
    })
  }, [stage, page, gullies, saved, store])
}
