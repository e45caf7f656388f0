import { useParts } from '../../api/hooks.ts'
import { later } from '../../ui/later.ts'
import { LaterTypedDialog } from '../../ui/later-part.tsx'
import { useShelf } from './shelf-state.ts'

/** The shelf, which a page can be opened and looked at without. */
export const shelfCode = later(() => import('./shelf.tsx'))

/** The shelf, while it is open. */
export function OpenShelf() {
  const { after, close } = useShelf()
  const { data, error } = useParts(after !== undefined)
  // The name that is typed may be that of a saved pattern.
  const isReady = data !== undefined || error !== undefined
  return after === undefined ? null : (
    <LaterTypedDialog key={String(after)} code={shelfCode} isReady={isReady} onClose={close}>
      {({ Shelf }) => <Shelf />}
    </LaterTypedDialog>
  )
}
