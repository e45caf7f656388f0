import { useEarlyKeys } from '../../ui/early-keys.ts'
import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import { useShelf } from './shelf-state.ts'

/** The shelf, which a page can be opened and looked at without. */
export const shelfCode = later(() => import('./shelf.tsx'))

/** The shelf, while it is open. */
export function OpenShelf() {
  const { after } = useShelf()
  return after === undefined ? null : <ShelfWhenThere key={String(after)} />
}

/** What is typed before the shelf is there is typed into its search. */
function ShelfWhenThere() {
  const shelf = useShelf()
  useEarlyKeys(shelfCode.use() !== undefined, shelf.close)
  return (
    <LaterDialog code={shelfCode} onClose={shelf.close}>
      {({ Shelf }) => <Shelf />}
    </LaterDialog>
  )
}
