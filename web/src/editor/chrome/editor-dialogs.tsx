import type { PageSummary, SizeKey } from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { LaterDialog, LaterTypedDialog } from '../../ui/later-part.tsx'
import type { Saving } from '../session/use-save.ts'

const conflictsDialog = later(() => import('./conflicts-dialog.tsx'))
const reachDialog = later(() => import('./reach-dialog.tsx'))
const publishDialog = later(() => import('./publish-dialog.tsx'))
const arrangementDialog = later(() => import('../commands/arrangement-dialog.tsx'))
const deviceDialog = later(() => import('./device-dialog.tsx'))
const partDialog = later(() => import('./part-dialog.tsx'))
/** The search of everything; asked for by a key, and typed into at once. */
export const commandsDialog = later(() => import('../commands/commands-dialog.tsx'))

/** Which dialog a command asked for. */
export type AskedFor = 'publish' | 'commands' | 'pattern' | 'shared' | 'arrangement' | 'device'

interface EditorDialogsProps {
  readonly summary: PageSummary
  readonly saving: Saving
  readonly asked: AskedFor | undefined
  /** The size that the canvas shows. */
  readonly size: SizeKey
  readonly onClose: () => void
}

export function EditorDialogs({ summary, saving, asked, size, onClose }: EditorDialogsProps) {
  const { state } = saving
  return (
    <>
      {state.type === 'conflicts' && (
        <LaterDialog code={conflictsDialog} onClose={saving.dismiss}>
          {({ ConflictsDialog }) => <ConflictsDialog newer={state.newer} saving={saving} />}
        </LaterDialog>
      )}
      {state.type === 'reach' && (
        <LaterDialog code={reachDialog} onClose={saving.dismiss}>
          {({ ReachDialog }) => <ReachDialog parts={state.parts} saving={saving} />}
        </LaterDialog>
      )}
      {asked === 'publish' && (
        <LaterDialog code={publishDialog} onClose={onClose}>
          {({ PublishDialog }) => <PublishDialog summary={summary} saving={saving} onClose={onClose} />}
        </LaterDialog>
      )}
      {(asked === 'pattern' || asked === 'shared') && (
        <LaterTypedDialog code={partDialog} onClose={onClose}>
          {({ PartDialog }) => <PartDialog type={asked} onClose={onClose} />}
        </LaterTypedDialog>
      )}
      {asked === 'arrangement' && (
        <LaterDialog code={arrangementDialog} onClose={onClose}>
          {({ ArrangementDialog }) => <ArrangementDialog size={size} onClose={onClose} />}
        </LaterDialog>
      )}
      {asked === 'device' && (
        <LaterDialog code={deviceDialog} onClose={onClose}>
          {({ DeviceDialog }) => <DeviceDialog onClose={onClose} />}
        </LaterDialog>
      )}
      {asked === 'commands' && (
        <LaterTypedDialog code={commandsDialog} onClose={onClose}>
          {({ CommandsDialog }) => <CommandsDialog onClose={onClose} />}
        </LaterTypedDialog>
      )}
    </>
  )
}
