import { Link } from 'react-router'
import useSWR from 'swr'
import styled from 'styled-components'
import type { PartPage, SavedPart } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'

const Title = styled.h3`
  font-size: 12px;
  font-weight: 600;
`
const List = styled.ul`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`
const None = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

/** The pages on which a shared section stands, also inside of other ones, or that were made from a template: each a way to go there. */
export function PartPages({ part }: { readonly part: Pick<SavedPart, 'id' | 'type' | 'reach'> }) {
  // Another list once something was saved: the reach comes with the parts, which are asked for again then.
  const { id, type, reach } = part
  const path = inSite(`/parts/${id}/pages`)
  const { data } = useSWR<PartPage[], Error>([path, reach.pages, reach.live], () => request<PartPage[]>(path))
  return (
    <>
      <Title>{type === 'template' ? 'Pages made from it' : 'Used on'}</Title>
      {data?.length === 0 && (
        <None>{type === 'template' ? 'No page was made from it yet.' : 'Not used on any page.'}</None>
      )}
      <List aria-label="Pages that show it">
        {data?.map(({ pageId, title, isLive }) => (
          <li key={pageId}>
            <Link to={`/pages/${pageId}`}>{title}</Link> {isLive && <small>Live</small>}
          </li>
        ))}
      </List>
      {type !== 'template' && data !== undefined && data.length > 0 && (
        <Link to={`/reach-map?of=${id}`}>Show in the reach map</Link>
      )}
    </>
  )
}
