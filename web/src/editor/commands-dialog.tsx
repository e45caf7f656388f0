import { useMemo } from 'react'
import { SearchDialog } from '../search/search-dialog.tsx'
import { COMMAND_IDS, COMMANDS, keysOf } from './command-list.ts'
import { useRunCommand } from './commands.ts'

/** The search of every screen, with the commands on the page first. */
export function CommandsDialog({ onClose }: { onClose: () => void }) {
  const run = useRunCommand()
  const commands = useMemo(
    () =>
      COMMAND_IDS.map((id) => ({
        id: `command:${id}`,
        ...keysOf(id),
        synonyms: COMMANDS[id].synonyms ?? [],
        run: () => run(id),
      })),
    [run],
  )
  return <SearchDialog commands={commands} onClose={onClose} />
}
