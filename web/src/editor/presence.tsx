import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Present, VersionInfo } from '@gullyline/core'
import { Face, initialsOf } from '../people/face.tsx'
import { Button } from '../ui/controls.tsx'
import { useEditor } from './editor-store.ts'

/** Who else has the page open, and the newest version that was saved from elsewhere. */
export interface Others {
  readonly people: readonly Present[]
  readonly saved: VersionInfo | undefined
}

const NOBODY: Others = { people: [], saved: undefined }

/** Listens for who is on a page. The browser comes back by itself when the connection was lost. */
export function useOthers(pageId: string, tab: string): Others {
  const [others, setOthers] = useState(NOBODY)
  useEffect(() => {
    const source = new EventSource(`/api/pages/${encodeURIComponent(pageId)}/presence/${tab}`)
    source.addEventListener('people', (event: MessageEvent<string>) => {
      const people = (JSON.parse(event.data) as readonly Present[]).filter((one) => one.tab !== tab)
      setOthers((before) => ({ ...before, people }))
    })
    source.addEventListener('saved', (event: MessageEvent<string>) => {
      const saved = JSON.parse(event.data) as VersionInfo & { readonly tab: string | null }
      if (saved.tab !== tab) setOthers((before) => ({ ...before, saved }))
    })
    source.addEventListener('error', () => setOthers((before) => ({ ...before, people: [] })))
    return () => source.close()
  }, [pageId, tab])
  return others
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
          {saved.savedBy} saved version {saved.number}: take it in
        </TakeIn>
      )}
      {people.length > 0 && (
        <Faces aria-label="Also on this page">
          {people.map(({ tab, name }) => (
            <li key={tab}>
              <Face role="img" aria-label={name} title={`${name} has this page open, too`}>
                {initialsOf(name)}
              </Face>
            </li>
          ))}
        </Faces>
      )}
    </>
  )
}
