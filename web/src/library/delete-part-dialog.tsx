import { useState } from 'react'
import styled from 'styled-components'
import type { ReplacePartRequest, SavedPart } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { Button, fieldBox, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { Choices, Trouble } from '../ui/form-parts.ts'
import { useAct } from '../ui/use-act.ts'
import { otherShared } from './other-shared.ts'
import { PartPages } from './part-pages.tsx'
import { sortOf, WORDS } from './part-sorts.ts'

const Ways = styled(Choices)`
  select {
    ${fieldBox}
    margin-left: 22px;
    width: calc(100% - 22px);
  }
`

interface DeletePartDialogProps {
  readonly part: SavedPart
  readonly parts: readonly SavedPart[]
  readonly onClose: () => void
  /** Called with what was done, in words. */
  readonly onDone: (words: string) => void
}

/** Asks what comes in the place of a shared section that stands on pages, and deletes it. */
export function DeletePartDialog({ part, parts, onClose, onDone }: DeletePartDialogProps) {
  const others = otherShared(parts, part)
  const [way, setWay] = useState<'copies' | 'other'>('copies')
  const [otherId, setOtherId] = useState(others[0]?.id ?? '')
  const { pages } = part.reach
  const word = WORDS[sortOf(part)].one
  const where =
    pages === 0
      ? 'in patterns or in other shared sections'
      : `on ${pages === 1 ? 'one page' : `${pages} pages`}`
  const act = useAct(async () => {
    const instead = way === 'copies' ? way : { part: otherId }
    const body: ReplacePartRequest = { instead }
    await request(inSite(`/parts/${part.id}/replace`), { method: 'POST', body })
    const other = others.find(({ id }) => id === otherId)
    const words = way === 'copies' || !other ? 'an own copy of it stays' : `“${other.name}” stands there now`
    onDone(
      `Deleted the ${word} “${part.name}”. Where it stood, ${words}. Publish those pages for visitors to see it.`,
    )
  })
  return (
    <Dialog
      title={`Delete “${part.name}”?`}
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={act.isBusy} onPress={act.run}>
            Delete {word}
          </MainButton>
        </>
      }
    >
      <p>
        It is shown {where}. Each of them is saved as a new version, by you. Visitors see what they see now
        until the pages are published.
      </p>
      <Ways>
        <legend>Where it stands now</legend>
        <label>
          <input type="radio" name="instead" checked={way === 'copies'} onChange={() => setWay('copies')} />
          Leave an own copy on each page
        </label>
        {others.length > 0 && (
          <>
            <label>
              <input type="radio" name="instead" checked={way === 'other'} onChange={() => setWay('other')} />
              Show another shared section
            </label>
            {way === 'other' && (
              <select
                aria-label="Shared section to show instead"
                value={otherId}
                onChange={(event) => setOtherId(event.target.value)}
              >
                {others.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            )}
          </>
        )}
      </Ways>
      <PartPages part={part} />
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
    </Dialog>
  )
}
