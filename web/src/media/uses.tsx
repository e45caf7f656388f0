import { Link } from 'react-router'
import useSWR from 'swr'
import styled from 'styled-components'
import type { MediaUse } from '@gullyline/core'
import { request } from '../api/client.ts'
import { WORDS } from '../library/part-sorts.ts'

const List = styled.ul`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
`
const None = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

/** The pages that use something of the library; undefined until they are known. */
export function useUses(path: string): readonly MediaUse[] | undefined {
  return useSWR<MediaUse[], Error>(path, (asked: string) => request<MediaUse[]>(asked)).data
}

/** Where something of the library is used, each page a way to go there. */
export function Uses({ uses }: { uses: readonly MediaUse[] | undefined }) {
  if (!uses) return null
  if (uses.length === 0) return <None>Not used on any page.</None>
  return (
    <List>
      {uses.map((use) => (
        <li key={keyOf(use)}>
          <Place use={use} />
          {use.count > 1 ? ` (${use.count} times)` : ''}
        </li>
      ))}
    </List>
  )
}

function keyOf(use: MediaUse): string {
  if ('pageId' in use) return use.pageId
  return 'part' in use ? `part ${use.part}` : use.onEveryPage
}

function Place({ use }: { readonly use: MediaUse }) {
  if ('pageId' in use) return <Link to={`/pages/${use.pageId}`}>{use.title}</Link>
  if ('onEveryPage' in use) return `The ${use.onEveryPage} of every page`
  return `The ${WORDS[use.type].one} “${use.part}”`
}

/** Where something that is used stands, as the end of a sentence: "on 4 pages". */
export function placesOf(uses: readonly MediaUse[]): string {
  if (uses.some((use) => 'onEveryPage' in use)) return 'on every page'
  const pages = uses.filter((use) => 'pageId' in use).length
  if (pages === 0) return 'in the library'
  return pages === 1 ? 'on one page' : `on ${pages} pages`
}
