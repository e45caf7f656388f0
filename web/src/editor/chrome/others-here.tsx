import styled from 'styled-components'
import type { VersionInfo } from '@gullyline/core'
import { Face, initialsOf } from '../../people/face.tsx'
import { Button } from '../../ui/controls.tsx'
import { useEditor } from '../session/editor-store.ts'
import type { Others } from './presence.ts'

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
