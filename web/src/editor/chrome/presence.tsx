import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Present, VersionInfo } from '@gullyline/core'
import { Face, initialsOf } from '../../people/face.tsx'
import { Button } from '../../ui/controls.tsx'
import { useEditor } from '../session/editor-store.ts'
import { joinPresence, type Heard } from '../session/presence-channel.ts'

/** Who else has the page open, and the newest version that was saved from elsewhere. */
export interface Others {
  readonly people: readonly Present[]
  readonly saved: VersionInfo | undefined
  /** Whether somebody deleted the page since it was opened. */
  readonly isDeleted: boolean
}

const NOBODY: Others = { people: [], saved: undefined, isDeleted: false }

/** Listens for who is on a page and what becomes of it. The browser comes back by itself when the connection was lost. */
export function useOthers(pageId: string, tab: string): Others {
  const [others, setOthers] = useState(NOBODY)
  useEffect(
    () => joinPresence({ tab, pageId }, (heard) => setOthers((before) => afterHearing(before, heard, tab))),
    [pageId, tab],
  )
  return others
}

/** What is known of the others once something was heard. `own` is this tab, which is not told of itself. */
export function afterHearing(before: Others, heard: Heard, own: string): Others {
  const { people } = before
  switch (heard.event) {
    case 'people':
      return { ...before, people: heard.data.people.filter(({ tab }) => tab !== own) }
    case 'came': {
      const { tab, name } = heard.data
      return tab === own
        ? before
        : { ...before, people: [...people.filter((one) => one.tab !== tab), { tab, name }] }
    }
    case 'left':
      return { ...before, people: people.filter(({ tab }) => tab !== heard.data.tab) }
    case 'saved':
      return heard.data.tab === own ? before : { ...before, saved: heard.data }
    case 'deleted':
      return { ...before, isDeleted: true }
    case 'restored':
      return { ...before, isDeleted: false }
    case 'lost':
      return { ...before, people: [] }
  }
}

const Faces = styled.ul`
  display: flex;
  margin: 0;
  padding: 0;
  list-style: none;
  li + li {
    margin-left: -6px;
  }
`
const TakeIn = styled(Button)`
  height: 24px;
  padding: 0 9px;
  border-color: var(--ochre);
  color: var(--ochre);
  font-size: 12px;
`

interface OthersHereProps {
  readonly others: Others
  readonly onTakeIn: (saved: VersionInfo) => void
}

/** Others on the page as faces, and a way to bring in what one of them saved. */
export function OthersHere({ others: { people, saved }, onTakeIn }: OthersHereProps) {
  const version = useEditor((state) => state.saved.version)
  return (
    <>
      {saved && saved.number > version && (
        <TakeIn onPress={() => onTakeIn(saved)}>
          {saved.savedBy} saved version {saved.number}: merge it
        </TakeIn>
      )}
      {people.length > 0 && (
        <Faces aria-label="Also on this page">
          {[...tabsByName(people)].map(([name, tabs]) => (
            <li key={name}>
              <Face
                role="img"
                aria-label={name}
                title={`${name} also has this page open${tabs > 1 ? `, in ${tabs} tabs` : ''}`}
              >
                {initialsOf(name)}
              </Face>
            </li>
          ))}
        </Faces>
      )}
    </>
  )
}

/** Each person once, with how many tabs they have the page open in. */
function tabsByName(people: Others['people']): ReadonlyMap<string, number> {
  const tabs = new Map<string, number>()
  for (const { name } of people) tabs.set(name, (tabs.get(name) ?? 0) + 1)
  return tabs
}
