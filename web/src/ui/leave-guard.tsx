import { useEffect, type ReactNode } from 'react'
import { useBlocker } from 'react-router'
import { Button, MainButton } from './controls.tsx'
import { Dialog } from './dialog.tsx'
import { drafts, useDrafts } from './drafts.ts'

interface LeaveGuardProps {
  readonly isUnsaved: boolean
  /** The same, of this very moment: what was just saved must not be asked about. */
  readonly isUnsavedNow: () => boolean
  /** True when all is saved and the screen can be left. */
  readonly save: () => Promise<boolean>
  readonly discard: () => void
  /** What is not saved. */
  readonly children: ReactNode
}

/** Asks before a screen with unsaved work is left. One on a screen: the router blocks for one at a time. */
export function LeaveGuard({ isUnsaved, isUnsavedNow, save, discard, children }: LeaveGuardProps) {
  const blocker = useBlocker(isUnsavedNow)
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
              discard()
              blocker.proceed()
            }}
          >
            Discard changes
          </Button>
          <MainButton onPress={() => void saveAndLeave()}>Save and leave</MainButton>
        </>
      }
    >
      {children}
    </Dialog>
  )
}

/** The fields with unsaved text, by name. */
export function UnsavedFields() {
  const open = useDrafts()
  return open.length === 0 ? null : <p>Not saved: {open.map(({ label }) => label).join(', ')}.</p>
}

/** The guard of screens that have nothing but fields to save. */
export function DraftGuard() {
  const open = useDrafts()
  return (
    <LeaveGuard
      isUnsaved={open.length > 0}
      isUnsavedNow={() => drafts.all.get().length > 0}
      save={async () => (await drafts.saveAll()).length === 0}
      discard={() => drafts.dropAll()}
    >
      <UnsavedFields />
    </LeaveGuard>
  )
}
