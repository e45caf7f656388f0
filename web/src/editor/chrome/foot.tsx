import { useValue } from '../../ui/value.ts'
import styled from 'styled-components'
import { Keys } from '../../ui/controls.tsx'
import { KeyLine } from '../../ui/key-line.tsx'
import { keysOf, offered, type CommandId } from '../commands/command-list.ts'
import { useRunCommand } from '../commands/commands.ts'
import { unsavedCount } from '../session/editor-state.ts'
import { useEditor, useStore } from '../session/editor-store.ts'
import type { JournalSender, SenderState } from '../session/journal-sender.ts'
import { SetAsideButton } from './set-aside-button.tsx'

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
  overflow: hidden;
  text-overflow: ellipsis;
  &[data-tone='refused'] {
    color: var(--clay);
    font-weight: 550;
  }
`

const AllCommands = styled.button`
  flex: none;
  padding: 2px 0;
  border: 0;
  background: none;
`

const State = styled.span`
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
  const { mayChange } = useStore()
  const fitting = isLineUp ? WHEN_LINE_UP : isTyping ? WHEN_TYPING : isSelected ? WHEN_SELECTED : WHEN_NOTHING
  const shown = offered(fitting, mayChange)
  return (
    <Line>
      <KeyLine keys={shown.map((id) => [keysOf(id).title, keysOf(id).keys])} />
      <Told role="status" data-tone={notice.tone} key={notice.count}>
        {notice.words}
      </Told>
      <SetAsideButton />
      <JournalState sender={sender} />
      <AllCommands type="button" onClick={() => run('commands')}>
        All commands <Keys>{keysOf('commands').keys}</Keys>
      </AllCommands>
    </Line>
  )
}

/** Where the edits since the last save are. Nothing to tell when there are none. */
function JournalState({ sender }: { sender: JournalSender }) {
  const { journal } = useStore()
  const state = useValue(sender.state)
  const unsaved = useEditor(unsavedCount)
  if (unsaved === 0) return null
  const { words, isTrouble } = journalWords(state, journal.isOverfull)
  return <State data-tone={isTrouble ? 'trouble' : undefined}>{words}</State>
}

/** What is told of the draft: what is said here and what is so must never differ. */
export function journalWords(
  state: SenderState,
  isOverfull: boolean,
): { readonly words: string; readonly isTrouble: boolean } {
  if (isOverfull)
    return state === 'sent'
      ? { words: 'Draft saved on the server; this browser’s storage is full', isTrouble: false }
      : {
          words: 'Draft not saved: this browser’s storage is full. Keep this tab open, and save',
          isTrouble: true,
        }
  if (state === 'unreachable')
    return { words: 'Can’t reach the server: draft saved on this device only', isTrouble: true }
  if (state === 'full')
    return {
      words: 'Draft saved on this device only; the server takes no more until you save',
      isTrouble: true,
    }
  return { words: state === 'sent' ? 'Draft saved' : 'Saving draft…', isTrouble: false }
}
