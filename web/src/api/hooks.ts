import { useMemo } from 'react'
import useSWR, { mutate, useSWRConfig, type SWRResponse } from 'swr'
import type {
  BinnedPage,
  Library,
  OpenedPage,
  PageListPart,
  PageSummary,
  Parts,
  SavedPart,
  SiteInfo,
} from '@gullyline/core'
import { request } from './client.ts'
import { begunWith, withChanges, withMore, type PageIndex } from './page-index.ts'
import { inSite } from './site-address.ts'

const fetcher = <T>(path: string): Promise<T> => request<T>(path)

/** The site with its library, and the documents of its parts where they are known. */
export interface Site extends SiteInfo, Library {
  readonly parts?: Parts
}

/** What was asked for, as far as it is there. */
interface Asked<T> {
  readonly data: T | undefined
  readonly error: Error | undefined
}

export function useSiteInfo(): SWRResponse<SiteInfo, Error> {
  return useSWR<SiteInfo, Error>(inSite(''), fetcher, { revalidateOnFocus: false })
}

/** Asked for once it is wanted. */
export function useLibrary(isWanted = true): SWRResponse<Library, Error> {
  return useSWR<Library, Error>(isWanted ? inSite('/library') : null, fetcher, { revalidateOnFocus: false })
}

export function useSite(): Asked<Site> {
  const { data: info, error } = useSiteInfo()
  const { data: library, error: libraryError } = useLibrary()
  const data = useMemo(() => (info && library ? { ...info, ...library } : undefined), [info, library])
  return { data, error: error ?? libraryError }
}

interface AskedPages extends Asked<readonly PageSummary[]> {
  /** Whether all pages are there; of a large site, those that a screen begins with are there first. */
  readonly isWhole: boolean
}

/** The pages of the site, asked for once they are wanted. Whatever changed them, only what changed is read again. */
export function usePages(isWanted = true): AskedPages {
  const path = inSite('/page-list')
  const { cache } = useSWRConfig()
  const { data, error } = useSWR<PageIndex, Error>(isWanted ? path : null, () =>
    readIndex(path, cache.get(path)?.data as PageIndex | undefined),
  )
  const next = data?.next ?? null
  useSWR<PageListPart, Error>(next === null ? null : `${path}?after=${next}`, fetcher, {
    revalidateOnFocus: false,
    onSuccess: (part) =>
      // Asked for the changes as well, since an answer that tells of some may be on its way and is let go of.
      void mutate<PageIndex>(path, (index) => index && withMore(index, part)),
  })
  return { data: data?.pages, error, isWhole: data !== undefined && next === null }
}

async function readIndex(path: string, known: PageIndex | undefined): Promise<PageIndex> {
  const part = await request<PageListPart>(known ? `${path}?since=${known.mark}` : path)
  return (known ? withChanges(known, part) : begunWith(part)) ?? readIndex(path, undefined)
}

/** Asks for what changed of the pages. */
export function refreshPages(): Promise<unknown> {
  return mutate(inSite('/page-list'))
}

/** Asks for what is set for the whole site, its header and its footer. */
export function refreshSite(): Promise<unknown> {
  return mutate(inSite(''))
}

/** Asks for the pictures and the files of the site. */
export function refreshLibrary(): Promise<unknown> {
  return mutate(inSite('/library'))
}

/** The parts that were saved on the site, those in the bin last; asked for once they are wanted. */
export function useParts(isWanted = true): SWRResponse<SavedPart[], Error> {
  return useSWR<SavedPart[], Error>(isWanted ? inSite('/parts') : null, fetcher)
}

/** The documents of parts, by their ids. */
export function documentsOf(parts: readonly SavedPart[]): Parts {
  return Object.fromEntries(parts.map(({ id, document }) => [id, document]))
}

/** Asks for the parts of the site. */
export function refreshParts(): Promise<unknown> {
  return mutate(inSite('/parts'))
}

/** A page as it is on the server. Read once: while it is edited, the editor's own state is the page. */
export function usePageDocument(id: string): SWRResponse<OpenedPage, Error> {
  return useSWR<OpenedPage, Error>(inSite(`/pages/${encodeURIComponent(id)}`), fetcher, {
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
