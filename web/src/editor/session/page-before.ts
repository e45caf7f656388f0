/** The page as it was: saved last, or seen by visitors. */
import { useMemo } from 'react'
import useSWR from 'swr'
import { joinSession, type OpenedPage, type Page, type PageAsLive } from '@gullyline/core'
import { request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { newId } from './new-id.ts'
import { openSession } from './session.ts'
import { useSiteView } from './site-view.ts'

/** What the page is compared with. */
export type Before = 'saved' | 'live'

/** The page with all that stands on it, as it was saved last or as visitors see it; undefined until it was read, or where neither is asked for. */
export function usePageBefore(before: Before | undefined): {
  readonly session: Page | undefined
  readonly error: Error | undefined
} {
  const { site, summary, isWhole } = useSiteView()
  const path = inSite(`/pages/${summary.id}`)
  const read = (asked: string): Promise<unknown> => request(asked)
  const saved = useSWR<unknown, Error>(before === 'saved' ? path : null, read)
  const live = useSWR<unknown, Error>(before === 'live' ? `${path}/live` : null, read)
  const { data, error } = before === 'saved' ? saved : live
  const session = useMemo(() => {
    // What only the earlier one shows comes with the rest of the library.
    if (data === undefined || !isWhole) return undefined
    if (before === 'saved') {
      const { document, around } = data as OpenedPage
      return openSession(document, site, around.parts)
    }
    return joinSession(data as PageAsLive, newId)
  }, [before, data, site, isWhole])
  return { session, error }
}
