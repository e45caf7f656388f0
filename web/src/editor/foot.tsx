import { useSyncExternalStore } from 'react'
import styled from 'styled-components'
import { Keys } from '../ui/controls.tsx'
import { keysOf, useRunCommand, type CommandId } from './commands.ts'
import { unsavedCount } from './editor-state.ts'
import { useEditor } from './editor-store.ts'
import type { JournalSender } from './journal-sender.ts'

export const Line = styled.footer`
  display: flex;
  align-items: center;
  gap: 18px;
  height: 30px;
  padding: 0 14px;
  border-top: 1px solid var(--line);
  background: var(--paper);
  color: var(--quiet);
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
`
const Told = styled.span`
  margin-left: auto;
  overflow: hidden;
  text-overflow: ellipsis;
  &[data-tone='refused'] {
    color: var(--clay);
    font-weight: 550;
  }
`

const AllCommands = styled.button`
  padding: 2px 0;
  border: 0;
  background: none;
`

const Kept = styled.span`
  &[data-tone='trouble'] {
    color: var(--clay);
    font-weight: 550;
  }
`

const WHEN_SELECTED: readonly CommandId[] = ['out', 'type', 'move-up', 'move-down', 'duplicate', 'add']
const WHEN_NOTHING: readonly CommandId[] = ['in', 'add', 'line-up']
const WHEN_LINE_UP: readonly CommandId[] = ['line-up', 'undo', 'redo']
const WHEN_TYPING: readonly CommandId[] = ['out', 'add', 'undo']

/** One line of keys that fit the moment, and what has just happened. */
export function Foot({ isLineUp, sender }: { isLineUp: boolean; sender: JournalSender }) {
  const isTyping = useEditor((state) => state.typing !== undefined)
  const isSelected = useEditor((state) => state.selection !== undefined)
  const notice = useEditor((state) => state.notice)
  const run = useRunCommand()
  const shown = isLineUp ? WHEN_LINE_UP : isTyping ? WHEN_TYPING : isSelected ? WHEN_SELECTED : WHEN_NOTHING
  return (
    <Line>
      {shown.map((id) => {
        const { title, keys } = keysOf(id)
        return (
          <span key={id}>
            {title} <Keys>{keys}</Keys>
          </span>
        )
      })}
      <Told role="status" data-tone={notice.tone} key={notice.count}>
        {notice.words}
      </Told>
      <JournalState sender={sender} />
      <AllCommands type="button" onClick={() => run('commands')}>
        All commands <Keys>{keysOf('commands').keys}</Keys>
      </AllCommands>
    </Line>
  )
}

/** Where the edits since the last save are. Nothing to tell when there are none. */
function JournalState({ sender }: { sender: JournalSender }) {
  const state = useSyncExternalStore(sender.subscribe, () => sender.state)
  const unsaved = useEditor(unsavedCount)
  if (state === 'unreachable') {
    return <Kept data-tone="trouble">The server can’t be reached: edits are kept in this browser</Kept>
  }
  if (unsaved === 0) return null
  return <Kept>{state === 'kept' ? 'Edits kept in the journal' : 'Keeping edits…'}</Kept>
}
