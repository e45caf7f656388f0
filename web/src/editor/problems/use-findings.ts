import { useMemo } from 'react'
import { runChecks, settingsOf, themedLook, type CheckedSite, type Finding } from '@gullyline/core'
import { usePage, useStore } from '../editor-store.ts'
import { useIsAfterFirst } from '../../ui/after-first.tsx'
import { useLater } from '../../ui/use-later.ts'
import { useSiteView } from '../site-view.ts'

/** The checks wait until somebody has stopped typing for this long: nobody reads problems between two letters. */
const PAUSE_MS = 250

/** What the checks find on the page as it is, a moment after it was changed. */
export function useFindings(): readonly Finding[] {
  const { registry } = useStore()
  const { site, pages } = useSiteView()
  const page = useLater(
    usePage((page) => page),
    PAUSE_MS,
  )
  const isAfterFirst = useIsAfterFirst()
  return useMemo(() => {
    if (!isAfterFirst) return []
    const checked: CheckedSite = {
      ...settingsOf(page),
      look: themedLook(site.look, settingsOf(page).theme),
      // Places on other pages are not known here; publishing knows them.
      pages: Object.fromEntries(pages.map((one) => [one.id, undefined])),
      pictures: site.pictures,
      files: site.files,
    }
    return runChecks(page, checked, registry)
  }, [isAfterFirst, page, site, pages, registry])
}
