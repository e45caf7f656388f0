import { useEffect, useState } from 'react'
import { useStore } from '../session/editor-store.ts'
import { usePageBefore } from '../session/page-before.ts'
import { useRenderer, useSiteView } from '../session/site-view.ts'
import { gullyCode } from './gully-later.ts'
import { gullyName } from './gully-name.ts'

interface LiveGullies {
  /** Their names; undefined until the page was measured. None for a page that is not live. */
  readonly known: ReadonlySet<string> | undefined
  readonly hasFailed: boolean
}

/** Measures the page that is live, and returns which gullies visitors have there. */
export function useLiveGullies(): LiveGullies {
  const { registry } = useStore()
  const { context } = useRenderer()
  const { summary } = useSiteView()
  const code = gullyCode.use()
  const isLive = summary.liveSince !== null
  const { session, error } = usePageBefore(isLive ? 'live' : undefined)
  const [measured, setMeasured] = useState<LiveGullies>(UNKNOWN)
  useEffect(() => {
    if (!code || !session) return undefined
    const sweeper = new code.Sweeper(registry, context, ({ stage, gullies }) => {
      if (stage === 'whole') setMeasured({ known: new Set(gullies.map(gullyName)), hasFailed: false })
      if (stage === 'failed') setMeasured(FAILED)
    })
    sweeper.show(session)
    return () => sweeper.dispose()
  }, [code, session, registry, context])
  if (!isLive) return NOT_LIVE
  return error ? FAILED : measured
}

const UNKNOWN: LiveGullies = { known: undefined, hasFailed: false }
const FAILED: LiveGullies = { known: undefined, hasFailed: true }
const NOT_LIVE: LiveGullies = { known: new Set(), hasFailed: false }
