import { useEffect, useState } from 'react'
import { useStore } from '../session/editor-store.ts'
import { usePageBefore } from '../session/page-before.ts'
import { useRenderer, useSiteView } from '../session/site-view.ts'
import { gullyCode } from './gully-later.ts'
import { gullyName } from './gully-name.ts'

/** Which gullies visitors have on the page that is live, by their names; undefined until it was measured. None for a page that is not live. */
export function useLiveGullies(): ReadonlySet<string> | undefined {
  const { registry } = useStore()
  const { context } = useRenderer()
  const { summary } = useSiteView()
  const code = gullyCode.use()
  const isLive = summary.liveSince !== null
  const { session } = usePageBefore(isLive ? 'live' : undefined)
  const [names, setNames] = useState<ReadonlySet<string>>()
  useEffect(() => {
    if (!code || !session) return undefined
    const sweeper = new code.Sweeper(registry, context, ({ isWhole, gullies }) => {
      if (isWhole) setNames(new Set(gullies.map(gullyName)))
    })
    sweeper.show(session)
    return () => sweeper.dispose()
  }, [code, session, registry, context])
  return isLive ? names : NONE
}

const NONE: ReadonlySet<string> = new Set()
