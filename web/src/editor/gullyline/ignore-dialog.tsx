import { useId, useState } from 'react'
import { cutShort, ignoreEdit, LONGEST_REASON, RULES } from '@gullyline/core'
import { Button, LineField, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { useStore } from '../session/editor-store.ts'
import type { ShownGully } from './gully-context.tsx'

/** Asks for the reason to ignore a gully. The reason is saved with the page. */
export function IgnoreDialog({ gully, onClose }: { gully: ShownGully; onClose: () => void }) {
  const store = useStore()
  const form = useId()
  const [reason, setReason] = useState('')
  const { title } = RULES.get(gully.rule)!
  const words = reason.trim()
  return (
    <Dialog
      title={`Ignore “${title}”`}
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" form={form} isDisabled={words === ''}>
            Ignore
          </MainButton>
        </>
      }
    >
      <p>{gully.why}.</p>
      <form
        id={form}
        onSubmit={(event) => {
          event.preventDefault()
          if (words !== '' && store.do(`Ignored “${title}”`, [ignoreEdit(store.state.page, gully, words)]))
            onClose()
        }}
      >
        <LineField
          label="Reason"
          value={reason}
          onChange={(typed) => setReason(cutShort(typed, LONGEST_REASON))}
          autoFocus
        />
      </form>
    </Dialog>
  )
}
