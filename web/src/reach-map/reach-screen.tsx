import { lazy, Suspense, useMemo } from 'react'
import { Link, useSearchParams } from 'react-router'
import useSWR from 'swr'
import styled from 'styled-components'
import {
  MOST_REACH_NODES,
  reachGraph,
  type PageSummary,
  type PartUse,
  type ReachNode,
  type SavedPart,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { usePages, useParts } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { Note } from '../library/library-parts.ts'
import { ListPane, ListTop, Panes, SidePane } from '../site/panes.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Button } from '../ui/controls.tsx'
import { Picker } from '../ui/picker.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { namesOf } from './reach-names.ts'

const ReachChart = lazy(async () => ({ default: (await import('./reach-chart.tsx')).ReachChart }))

const Steps = styled.ul`
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
  button {
    padding: 3px 6px 3px 0;
    border: 0;
    background: none;
    color: var(--accent);
    font: inherit;
    text-align: left;
    cursor: pointer;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`
const Title = styled.h3`
  font-size: 12px;
  font-weight: 600;
`

/** Which pages show which parts, walked from one to the other. */
export function ReachScreen() {
  const pages = usePages()
  const parts = useParts()
  // Asked again once something was saved, which the parts are as well.
  const uses = useSWR<PartUse[], Error>(parts.data ? [inSite('/parts/uses'), parts.data] : null, () =>
    request<PartUse[]>(inSite('/parts/uses')),
  )
  const error = pages.error ?? parts.error ?? uses.error
  return (
    <SiteScreen title="Reach map">
      {pages.data && parts.data && uses.data ? (
        <ReachMap pages={pages.data} parts={parts.data} uses={uses.data} />
      ) : (
        <Waiting title={error ? 'The reach map can’t be shown' : 'Reading which pages show which parts…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

interface ReachMapProps {
  readonly pages: readonly PageSummary[]
  readonly parts: readonly SavedPart[]
  readonly uses: readonly PartUse[]
}

function ReachMap({ pages, parts, uses }: ReachMapProps) {
  const [params, setParams] = useSearchParams()
  const nameOf = useMemo(() => namesOf(parts, pages), [parts, pages])
  const asked = params.get('of') ?? undefined
  const focus = uses.some(({ part, by }) => part === asked || by === asked) ? asked : undefined
  const graph = useMemo(() => reachGraph(uses, focus), [uses, focus])
  const walk = useMemo(
    () => (id: string | undefined) => setParams(id === undefined ? {} : { of: id }),
    [setParams],
  )
  const hidden = graph.nodes.reduce((sum, node) => sum + node.hidden, 0)
  const things = useMemo(() => thingsIn(uses, nameOf), [uses, nameOf])
  return (
    <Panes>
      <ListPane aria-label="Reach map">
        <ListTop>
          <h1>Reach map</h1>
          <Picker
            label="Show"
            isLabelShown
            options={[{ id: '', title: 'The whole site' }, ...things]}
            value={focus ?? ''}
            onChange={(id) => walk(id === '' ? undefined : id)}
          />
          <Link to="/library">Library</Link>
        </ListTop>
        {graph.lines.length === 0 ? (
          <Note>
            No page shows a shared section or a component yet. Once one does, this shows which pages a change
            to it would change.
          </Note>
        ) : (
          <Suspense fallback={<Note>Drawing…</Note>}>
            <ReachChart graph={graph} focus={focus} nameOf={nameOf} onWalk={walk} />
          </Suspense>
        )}
        {hidden > 0 && (
          <Note role="status">
            The {MOST_REACH_NODES} with the most connections are drawn. Choose one to see all of its own.
          </Note>
        )}
      </ListPane>
      <SidePane aria-label="Selected">
        <Selected focus={focus} uses={uses} nameOf={nameOf} onWalk={walk} />
      </SidePane>
    </Panes>
  )
}

/** Everything on the map, for choosing: parts first, each group by name. */
function thingsIn(
  uses: readonly PartUse[],
  nameOf: ReturnType<typeof namesOf>,
): readonly { readonly id: string; readonly title: string }[] {
  const types = new Map<string, ReachNode['type']>(uses.map(({ part }) => [part, 'shared']))
  for (const { by, type } of uses) types.set(by, type)
  const named = [...types].map(([id, type]) => ({ id, isPage: type === 'page', ...nameOf(id, type) }))
  return named
    .sort((a, b) => Number(a.isPage) - Number(b.isPage) || a.name.localeCompare(b.name))
    .map(({ id, name, sort }) => ({ id, title: `${name} (${sort})` }))
}

interface SelectedProps {
  readonly focus: string | undefined
  readonly uses: readonly PartUse[]
  readonly nameOf: ReturnType<typeof namesOf>
  readonly onWalk: (id: string | undefined) => void
}

/** What is selected, in words: what shows it, and what it shows. */
function Selected({ focus, uses, nameOf, onWalk }: SelectedProps) {
  if (focus === undefined)
    return <Note>Select a part to see where it is shown, or a page to see which parts it shows.</Note>
  const above = uses.filter(({ part }) => part === focus)
  const below = uses.filter(({ by }) => by === focus)
  const type = below[0]?.type ?? 'shared'
  const { name, sort } = nameOf(focus, type)
  return (
    <>
      <h2>{name}</h2>
      <Note>{sort.charAt(0).toUpperCase() + sort.slice(1)}</Note>
      {above.length > 0 && (
        <>
          <Title>Shown on</Title>
          <Steps aria-label="Shown on">
            {above.map((use) => (
              <Step
                key={use.by}
                id={use.by}
                named={nameOf(use.by, use.type)}
                count={use.count}
                onWalk={onWalk}
              />
            ))}
          </Steps>
        </>
      )}
      {below.length > 0 && (
        <>
          <Title>Parts it shows</Title>
          <Steps aria-label="Parts it shows">
            {below.map((use) => (
              <Step
                key={use.part}
                id={use.part}
                named={nameOf(use.part, 'shared')}
                count={use.count}
                onWalk={onWalk}
              />
            ))}
          </Steps>
        </>
      )}
      {type === 'page' ? (
        <Link to={`/pages/${focus}`}>Open the page</Link>
      ) : (
        type === 'shared' && <Link to={`/library?part=${focus}`}>Show in the library</Link>
      )}
      <div>
        <Button onPress={() => onWalk(undefined)}>Show the whole site</Button>
      </div>
    </>
  )
}

interface StepProps {
  readonly id: string
  readonly named: ReturnType<ReturnType<typeof namesOf>>
  readonly count: number
  readonly onWalk: (id: string) => void
}

function Step({ id, named: { name, sort }, count, onWalk }: StepProps) {
  return (
    <li>
      <button type="button" onClick={() => onWalk(id)}>
        {name}
      </button>{' '}
      <small>
        {sort}
        {count > 1 && `, ${count} times`}
      </small>
    </li>
  )
}
