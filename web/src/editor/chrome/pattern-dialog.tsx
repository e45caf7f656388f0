import { useId, useState } from 'react'
import styled from 'styled-components'
import {
  findPlace,
  nodeLabel,
  patternOf,
  patternRefusal,
  type NewPartRequest,
  type NodeId,
  type PartPurpose,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { refreshParts } from '../../api/hooks.ts'
import { inSite } from '../../api/site-address.ts'
import { PurposeField } from '../../library/purpose-field.tsx'
import { Button, LineField, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { useAct } from '../../ui/use-act.ts'
import { selectedIds } from '../session/editor-state.ts'
import { useStore, type EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'

const Fields = styled.form`
  display: grid;
  gap: 12px;
`
const Trouble = styled.p`
  color: var(--clay);
`

interface PatternDialogProps {
  readonly onClose: () => void
}

/** Asks what the selection is called as a pattern, and saves it. The blocks on the page stay as they are. */
export function PatternDialog({ onClose }: PatternDialogProps) {
  const store = useStore()
  const [ids] = useState(() => inPageOrder(store))
  const refusal = patternRefusal(store.state.page, ids, store.registry)
  if (refusal === undefined) return <PatternForm ids={ids} onClose={onClose} />
  return (
    <Dialog title="Save as pattern" onClose={onClose} acts={<Button onPress={onClose}>Close</Button>}>
      <p>{refusal}.</p>
    </Dialog>
  )
}

function PatternForm({ ids, onClose }: PatternDialogProps & { readonly ids: readonly NodeId[] }) {
  const store = useStore()
  const form = useId()
  const [name, setName] = useState(() => nodeLabel(store.state.page, ids[0]!, store.registry))
  const [purpose, setPurpose] = useState<PartPurpose>('other')
  const [about, setAbout] = useState('')
  const save = useAct(async () => {
    const document = patternOf(store.state.page, ids, store.registry, newId)
    const body: NewPartRequest = { name, purpose, about, document }
    await request(inSite('/parts'), { method: 'POST', body })
    await refreshParts()
    const words = `Saved the pattern “${name.trim()}”. It is on the shelf`
    store.dispatch({ type: 'tell', words, tone: 'done' })
    onClose()
  })
  const isReady = name.trim() !== '' && !save.isBusy
  return (
    <Dialog
      title="Save as pattern"
      isForm
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" form={form} isDisabled={!isReady}>
            Save pattern
          </MainButton>
        </>
      }
    >
      <Fields
        id={form}
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady) save.run()
        }}
      >
        <p>A pattern is placed as an independent copy. What is on this page stays as it is.</p>
        <LineField label="Name" value={name} onChange={setName} autoFocus />
        <PurposeField value={purpose} onChange={setPurpose} />
        <LineField label="Description" value={about} onChange={setAbout} />
      </Fields>
      {save.trouble && <Trouble role="alert">{save.trouble}</Trouble>}
    </Dialog>
  )
}

/** What is selected, in the order in which it stands on the page and not in that in which it was selected. */
function inPageOrder({ state }: EditorStore): readonly NodeId[] {
  const { page } = state
  const placeOf = (id: string): number => findPlace(page, id)?.index ?? 0
  return [...selectedIds(state)].sort((a, b) => placeOf(a) - placeOf(b))
}
