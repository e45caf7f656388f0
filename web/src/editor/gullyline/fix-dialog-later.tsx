import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import type { ShownGully } from './gully-context.tsx'

const fixDialog = later(() => import('./fix-dialog.tsx'))

/** Where a gully is mended, while there is one; asked for in the list and in the details. */
export function FixDialogLater({ gully, onClose }: { gully: ShownGully | undefined; onClose: () => void }) {
  if (!gully) return null
  return (
    <LaterDialog code={fixDialog} onClose={onClose}>
      {({ FixDialog }) => <FixDialog gully={gully} onClose={onClose} />}
    </LaterDialog>
  )
}
