import styled from 'styled-components'
import { RULES, type Gully } from '@gullyline/core'
import { TroubleMark } from '../problems/trouble-mark.tsx'
import { useShownGullies, type ShownGully } from './gully-context.tsx'
import { rangeOf } from './gully-range.ts'
import { gullyName } from './gully-name.ts'
import { useLiveGullies } from './use-live-gullies.ts'

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
  const all = useShownGullies().filter(({ ignored }) => ignored === undefined)
  // The live page is measured only where there is something to compare.
  return all.length === 0 ? null : <ToldGullies all={all} />
}

function ToldGullies({ all }: { readonly all: readonly ShownGully[] }) {
  const { known, hasFailed } = useLiveGullies()
  const isNew = (gully: Gully): boolean => known !== undefined && !known.has(gullyName(gully))
  // What visitors have not seen yet comes first.
  const gullies = [...all.filter(isNew), ...all.filter((one) => !isNew(one))]
  const more = gullies.length - MOST
  return (
    <section aria-label="Gullies of this page">
      <p>
        Visitors will see {all.length === 1 ? 'this gully' : `these ${all.length} gullies`}
        {known
          ? newWords(all.filter(isNew).length, all.length)
          : hasFailed
            ? '. The live page could not be measured, so what is new is not told.'
            : '. Comparing with the live page…'}
      </p>
      <List>
        {gullies.slice(0, MOST).map((gully) => (
          <li key={`${gully.rule} ${gully.nodeId} ${gully.from}`}>
            <TroubleMark severity={gully.severity} title={gully.severity} />
            <span>
              {isNew(gully) && <b>New: </b>}
              {RULES.get(gully.rule)!.title}, {rangeOf(gully)}: {gully.why}
            </span>
          </li>
        ))}
      </List>
      {more > 0 && <p>And {more} more.</p>}
    </section>
  )
}

function newWords(count: number, all: number): string {
  if (count === 0) return '. None is new: the live page has them already.'
  if (count === all) return all === 1 ? ', which is new:' : ', which are all new:'
  return count === 1 ? ', of which 1 is new:' : `, of which ${count} are new:`
}
