import styled from 'styled-components'
import { RULES } from '@gullyline/core'
import { TroubleMark } from '../problems/trouble-mark.tsx'
import { useShownGullies } from './gully-context.tsx'
import { rangeOf } from './gully-line.tsx'

const List = styled.ul`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 14px minmax(0, 1fr);
    gap: 6px;
    align-items: baseline;
  }
`
const MOST = 5

/** What visitors will see broken at some widths, before the page goes live. */
export function GullyNote() {
  const gullies = useShownGullies().filter(({ ignored }) => ignored === undefined)
  if (gullies.length === 0) return null
  const more = gullies.length - MOST
  return (
    <section aria-label="Gullies of this page">
      <p>Visitors will see {gullies.length === 1 ? 'this gully' : `these ${gullies.length} gullies`}:</p>
      <List>
        {gullies.slice(0, MOST).map((gully) => (
          <li key={`${gully.rule} ${gully.nodeId} ${gully.from}`}>
            <TroubleMark severity={gully.severity} title={gully.severity} />
            <span>
              {RULES.get(gully.rule)!.title}, {rangeOf(gully)}: {gully.why}
            </span>
          </li>
        ))}
      </List>
      {more > 0 && <p>And {more} more.</p>}
    </section>
  )
}
