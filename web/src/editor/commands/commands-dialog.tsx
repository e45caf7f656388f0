import { useMemo } from 'react'
import { SearchDialog } from '../../search/search-dialog.tsx'
import { COMMAND_IDS, COMMANDS, keysOf, offered } from './command-list.ts'
import { useRunCommand } from './commands.ts'
import { useStore } from '../session/editor-store.ts'

/** The search of every screen, with the commands on the page first. */
export function CommandsDialog({ onClose }: { onClose: () => void }) {
  const run = useRunCommand()
  const { mayChange } = useStore()
  const commands = useMemo(
    () =>
      offered(COMMAND_IDS, mayChange).map((id) => ({
        id: `command:${id}`,
        ...keysOf(id),
        synonyms: COMMANDS[id].synonyms ?? [],
        run: () => run(id),
      })),
    [run, mayChange],
  )
  return <SearchDialog commands={commands} onClose={onClose} />
}
