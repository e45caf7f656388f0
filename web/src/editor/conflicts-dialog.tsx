import { useState } from 'react'
import { Label, Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'
import { describeConflict, type Conflict, type Side } from '@gullyline/core'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { when } from '../ui/when.ts'
import { useStore } from './editor-store.ts'
import { conflictsOf, versionsOf, type Newer } from './merge-in.ts'
import type { Saving } from './use-save.ts'

const Spot = styled(RadioGroup)`
  display: grid;
  gap: 4px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
`
const SpotTitle = styled(Label)`
  color: var(--strong);
  font-weight: 600;
`
const Choice = styled(Radio)`
  display: grid;
  grid-template-columns: 16px 64px minmax(0, 1fr);
  gap: 8px;
  align-items: start;
  padding: 6px 8px;
  border: 1px solid var(--line);
  border-radius: 4px;
  overflow-wrap: anywhere;
  &::before {
    content: '';
    width: 12px;
    height: 12px;
    margin-top: 3px;
    border: 1.5px solid var(--control);
    border-radius: 50%;
  }
  &[data-selected] {
    border-color: var(--accent);
    background: var(--accentTint);
  }
  &[data-selected]::before {
    border: 4px solid var(--accent);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--accentBright);
  }
  b {
    color: var(--strong);
  }
`

/** Spots that two people changed in different ways. Each is settled by choosing a side; what only one changed is in already. */
export function ConflictsDialog({ newer, saving }: { newer: Newer; saving: Saving }) {
  const store = useStore()
  const [versions] = useState(() => versionsOf(store, newer))
  const [conflicts] = useState(() => conflictsOf(store, newer, store.registry))
  const [sides, setSides] = useState<Readonly<Record<string, Side>>>({})
  const { current } = newer
  const sideOf = (conflict: Conflict): Side => sides[conflict.key] ?? 'ours'
  const isSaving = saving.state.type === 'conflicts' && saving.state.thenSave
  return (
    <Dialog
      title={`${current.savedBy} changed the same ${conflicts.length === 1 ? 'spot' : 'spots'}`}
      onClose={saving.dismiss}
      acts={
        <>
          <Button onPress={saving.dismiss}>Decide later</Button>
          <MainButton onPress={() => saving.settle(sideOf)}>
            {isSaving ? 'Keep these and save' : 'Keep these'}
          </MainButton>
        </>
      }
    >
      <p>
        {current.savedBy} saved version {current.number} at {when(current.savedAt, new Date())}, after you
        opened the page. Everything else that you both changed goes together. Choose what is to stand here;
        undo brings the other back.
      </p>
      {conflicts.map((conflict) => {
        const words = describeConflict(conflict, versions, store.registry)
        return (
          <Spot
            key={conflict.key}
            value={sideOf(conflict)}
            onChange={(side) => setSides({ ...sides, [conflict.key]: side as Side })}
          >
            <SpotTitle>{words.title}</SpotTitle>
            <Choice value="ours">
              <b>Yours</b> <span>{words.ours}</span>
            </Choice>
            <Choice value="theirs">
              <b>{current.savedBy}</b> <span>{words.theirs}</span>
            </Choice>
          </Spot>
        )
      })}
    </Dialog>
  )
}
