import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { when } from '../ui/when.ts'
import type { Kept } from './journal.ts'

interface KeptDialogProps {
  readonly kept: Kept
  /** True when someone has saved since: going on then starts from the version the edits were made on. */
  readonly isOlder: boolean
  readonly onGoOn: () => void
  readonly onDrop: () => void
}

/** Edits of this page were kept when its tab ended without a save: go on from them, or drop them. */
export function KeptDialog({ kept, isOlder, onGoOn, onDrop }: KeptDialogProps) {
  return (
    <Dialog
      title="Edits were kept from last time"
      onClose={onGoOn}
      mustAnswer
      acts={
        <>
          <Button onPress={onDrop}>Drop them</Button>
          <MainButton onPress={onGoOn}>Go on from there</MainButton>
        </>
      }
    >
      <p>
        {kept.acts === 1 ? 'One edit' : `${kept.acts} edits`} made until{' '}
        {when(new Date(kept.at).toISOString(), new Date())} had not been saved when this page was closed.
      </p>
      {isOlder && (
        <p>
          Someone has saved the page since. When you save, both are brought together, and where both changed
          the same you are asked.
        </p>
      )}
    </Dialog>
  )
}
