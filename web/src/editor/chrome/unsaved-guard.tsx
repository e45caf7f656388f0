import { drafts, useDrafts } from '../../ui/drafts.ts'
import { LeaveGuard, UnsavedFields } from '../../ui/leave-guard.tsx'
import { unsavedCount } from '../session/editor-state.ts'
import { useEditor, useStore } from '../session/editor-store.ts'

interface UnsavedGuardProps {
  readonly save: () => Promise<boolean>
  /** Drops the journal. */
  readonly forget: () => void
}

/** Asks before leaving a page with anything that is not saved, on the canvas or in any field. */
export function UnsavedGuard({ save, forget }: UnsavedGuardProps) {
  const store = useStore()
  const unsaved = useEditor(unsavedCount)
  const open = useDrafts()
  return (
    <LeaveGuard
      isUnsaved={unsaved > 0 || open.length > 0}
      isUnsavedNow={() => unsavedCount(store.state) > 0 || drafts.all.get().length > 0}
      save={save}
      discard={() => {
        drafts.dropAll()
        forget()
      }}
    >
      {unsaved > 0 && <p>{unsaved === 1 ? 'One edit is not saved.' : `${unsaved} edits are not saved.`}</p>}
      <UnsavedFields />
    </LeaveGuard>
  )
}
