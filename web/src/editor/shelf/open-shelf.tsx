import { later } from '../../ui/later.ts'
import { LaterTypedDialog } from '../../ui/later-part.tsx'
import { useShelf } from './shelf-state.ts'

/** The shelf, which a page can be opened and looked at without. */
export const shelfCode = later(() => import('./shelf.tsx'))

/** The shelf, while it is open. */
export function OpenShelf() {
  const { after, close } = useShelf()
  return after === undefined ? null : (
    <LaterTypedDialog key={String(after)} code={shelfCode} onClose={close}>
      {({ Shelf }) => <Shelf />}
    </LaterTypedDialog>
  )
}
