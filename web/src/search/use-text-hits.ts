import { useDeferredValue } from 'react'
import useSWR from 'swr'
import type { TextHit } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { TYPING_PAUSE_MS, useLater } from '../ui/use-later.ts'
import type { SearchItem } from './search-items.ts'

const SHORTEST = 2

/** Pages whose saved text has what is searched for; the ones before until the next are known. */
export function useTextHits(search: string): readonly SearchItem[] {
  const wanted = useLater(useDeferredValue(search.trim()), TYPING_PAUSE_MS)
  const { data } = useSWR<readonly TextHit[], Error>(
    wanted.length >= SHORTEST ? inSite(`/search?q=${encodeURIComponent(wanted)}`) : null,
    (path: string) => request<readonly TextHit[]>(path),
    { keepPreviousData: true, revalidateOnFocus: false },
  )
  if (wanted.length < SHORTEST || search.trim() === '') return []
  return (data ?? []).map(({ pageId, title, path, before, match, after }) => ({
    id: `text:${pageId}`,
    title,
    address: path,
    about: before + match + after,
    path: `/pages/${pageId}`,
  }))
}
