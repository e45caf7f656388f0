import useSWR, { type SWRResponse } from 'swr'
import type { BinnedPage, PageDocument, PageSummary, SiteInfo } from '@gullyline/core'
import { request } from './client.ts'
import { inSite } from './site-address.ts'

const fetcher = <T>(path: string): Promise<T> => request<T>(path)

export function useSite(): SWRResponse<SiteInfo, Error> {
  return useSWR<SiteInfo, Error>(inSite(''), fetcher, { revalidateOnFocus: false })
}

export function usePages(): SWRResponse<PageSummary[], Error> {
  return useSWR<PageSummary[], Error>(inSite('/pages'), fetcher)
}

/** A page as it is on the server. Read once: while it is edited, the editor's own state is the page. */
export function usePageDocument(id: string): SWRResponse<PageDocument, Error> {
  return useSWR<PageDocument, Error>(inSite(`/pages/${encodeURIComponent(id)}`), fetcher, {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    revalidateIfStale: true,
    dedupingInterval: 0,
  })
}

/** The pages that were removed and can be brought back. */
export function useBin(): SWRResponse<BinnedPage[], Error> {
  return useSWR<BinnedPage[], Error>(inSite('/bin'), fetcher)
}
