import { useEffect } from 'react'
import { useBlocker } from 'react-router'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { unsavedCount } from './editor-state.ts'
import { useEditor } from './editor-store.ts'

interface UnsavedGuardProps {
  readonly save: () => Promise<boolean>
  /** Drops what the journal keeps. */
  readonly forget: () => void
}

/** Asks before leaving a page with edits that are not saved. */
export function UnsavedGuard({ save, forget }: UnsavedGuardProps) {
  const isUnsaved = useEditor((state) => unsavedCount(state) > 0)
  const blocker = useBlocker(isUnsaved)
  useEffect(() => {
    if (!isUnsaved) return
    // The browser asks in words of its own.
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [isUnsaved])
  if (blocker.state !== 'blocked') return null
  const saveAndLeave = async (): Promise<void> => {
    if (await save()) blocker.proceed()
    else blocker.reset()
  }
  return (
    <Dialog
      title="Leave without saving?"
      onClose={() => blocker.reset()}
      mustAnswer
      acts={
        <>
          <Button onPress={() => blocker.reset()}>Stay here</Button>
          <Button
            onPress={() => {
              forget()
              blocker.proceed()
            }}
          >
            Leave and lose them
          </Button>
          <MainButton onPress={() => void saveAndLeave()}>Save and leave</MainButton>
        </>
      }
    >
      <p>
        <UnsavedWords />
      </p>
    </Dialog>
  )
}

function UnsavedWords() {
  const unsaved = useEditor(unsavedCount)
  return unsaved === 1 ? 'One edit has not been saved.' : `${unsaved} edits have not been saved.`
}
