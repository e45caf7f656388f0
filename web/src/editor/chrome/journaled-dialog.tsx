import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { when } from '../../ui/when.ts'
import type { Journaled } from '../session/journal.ts'

interface JournaledDialogProps {
  readonly journaled: Journaled
  /** True when someone has saved since: going on then starts from the version the edits were made on. */
  readonly isOlder: boolean
  readonly trouble: string | undefined
  readonly onGoOn: () => void
  readonly onDrop: () => void
}

/** This page was closed with unsaved edits: continue from them, or discard them. */
export function JournaledDialog({ journaled, isOlder, trouble, onGoOn, onDrop }: JournaledDialogProps) {
  return (
    <Dialog
      title="Unsaved edits from last time"
      onClose={onGoOn}
      mustAnswer
      acts={
        <>
          <Button onPress={onDrop}>Discard</Button>
          <MainButton onPress={onGoOn}>Continue editing</MainButton>
        </>
      }
    >
      <p>
        {journaled.acts === 1 ? 'One edit' : `${journaled.acts} edits`} made until{' '}
        {when(new Date(journaled.at).toISOString())} had not been saved when this page was closed.
      </p>
      {isOlder && (
        <p>
          Someone has saved the page since. When you save, both are merged, and where both changed the same
          spot you choose.
        </p>
      )}
      {trouble && <p role="alert">{trouble} Your edits are still here.</p>}
    </Dialog>
  )
}
