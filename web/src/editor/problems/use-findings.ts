import { useMemo } from 'react'
import type { Finding } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'
import { later } from '../../ui/later.ts'
import { useLater } from '../../ui/use-later.ts'
import { useSiteView } from '../session/site-view.ts'

/** What finds problems. */
export const findings = later(() => import('./run-findings.ts'))

/** The checks wait until somebody has stopped typing for this long: nobody reads problems between two letters. */
const PAUSE_MS = 250

/** What the checks find on the page as it is, a moment after it was changed. */
export function useFindings(): readonly Finding[] {
  const { registry } = useStore()
  const { site, pages, isWhole } = useSiteView()
  const page = useLater(
    usePage((page) => page),
    PAUSE_MS,
  )
  const code = findings.use()
  return useMemo(
    // What is not there yet must not be said to be missing.
    () => (isWhole && code?.findingsOn(page, { site, pages }, registry)) || NONE,
    [code, page, site, pages, isWhole, registry],
  )
}

const NONE: readonly Finding[] = []
