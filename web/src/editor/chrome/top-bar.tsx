import { ChevronRight, GalleryHorizontal, Redo2, Undo2 } from 'lucide'
import { Link } from 'react-router'
import styled from 'styled-components'
import { settingsOf, type PageSummary } from '@gullyline/core'
import { MeButton } from '../../people/me-button.tsx'
import { Button, IconButton, MainButton } from '../../ui/controls.tsx'
import { Chip } from '../../ui/chip.tsx'
import { later } from '../../ui/later.ts'
import { Mark } from '../../ui/mark.tsx'
import { when } from '../../ui/when.ts'
import { keysOf } from '../commands/command-list.ts'
import { useRunCommand } from '../commands/commands.ts'
import { unsavedCount } from '../session/editor-state.ts'
import { useDrafts } from '../../ui/drafts.ts'
import { useEditor, usePage, useStore } from '../session/editor-store.ts'
import type { Others } from './presence.ts'
import type { SaveState, Saving } from '../session/use-save.ts'
import { counted } from '../../ui/counted.ts'
import { Icon } from '../../ui/icon.tsx'

export const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 8px;
  height: 48px;
  padding: 0 14px 0 12px;
  border-bottom: 1px solid var(--line);
  background: var(--paper);
`
const Crumbs = styled.nav`
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  margin-right: 6px;
  white-space: nowrap;
  h1 {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 900px) {
    a,
    svg {
      display: none;
    }
  }
  a {
    color: var(--quiet);
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  h1 {
    font-size: 14.5px;
  }
`
const Right = styled.div`
  display: flex;
  flex: none;
  align-items: center;
  gap: 8px;
  margin-left: auto;
`
const LineUpButton = styled(Button)`
  @media (max-width: 700px) {
    svg {
      display: none;
    }
  }
`
const Quiet = styled.span`
  @media (max-width: 900px) {
    display: none;
  }
  color: var(--quiet);
  font-size: 12px;
  white-space: nowrap;
`

interface TopBarProps {
  readonly siteName: string
  readonly summary: PageSummary
  readonly saving: Saving
  readonly others: Others
  readonly isLineUp: boolean
}

/** What comes once the page is there. */
export const topBarParts = later(() => import('./top-bar-parts.ts'))

/** The path to the page, its state, and the commands on all of it. */
export function TopBar({ siteName, summary, saving, others, isLineUp }: TopBarProps) {
  const run = useRunCommand()
  const { mayChange } = useStore()
  const parts = topBarParts.use()
  const isBusy = saving.state.type === 'saving'
  return (
    <Bar>
      <Mark />
      <Crumbs aria-label="Breadcrumb">
        <Link to="/">{siteName}</Link>
        <Icon of={ChevronRight} size={15} stroke="var(--quiet)" aria-hidden="true" />
        <PageTitle />
      </Crumbs>
      <StateChip saveState={saving.state} />
      {parts && <parts.ProblemsButton />}
      <Quiet>{liveWords(summary)}</Quiet>
      <Right>
        {parts && <parts.OthersHere others={others} onTakeIn={(saved) => void saving.takeIn(saved)} />}
        <MeButton />
        {mayChange && <HistoryButtons />}
        <LineUpButton onPress={() => run('line-up')}>
          <Icon of={GalleryHorizontal} size={15} strokeWidth={1.75} aria-hidden="true" />{' '}
          {isLineUp ? 'Back to the page' : 'Line-up'}
        </LineUpButton>
        {mayChange && <SaveButton />}
        <MainButton onPress={() => run('publish')} isDisabled={isBusy}>
          Publish
        </MainButton>
      </Right>
    </Bar>
  )
}

function PageTitle() {
  const title = usePage((page) => settingsOf(page).title)
  return <h1>{title.trim() || 'Untitled page'}</h1>
}

// Each follows what it shows by itself: of a bar with ten buttons, an edit changes a number.

function HistoryButtons() {
  const run = useRunCommand()
  const canUndo = useEditor((state) => state.history.done.length > 0)
  const canRedo = useEditor((state) => state.history.undone.length > 0)
  const [undo, redo] = [keysOf('undo'), keysOf('redo')]
  return (
    <>
      <IconButton label={undo.title} keys={undo.keys} isDisabled={!canUndo} onPress={() => run('undo')}>
        <Icon of={Undo2} size={17} strokeWidth={1.75} />
      </IconButton>
      <IconButton label={redo.title} keys={redo.keys} isDisabled={!canRedo} onPress={() => run('redo')}>
        <Icon of={Redo2} size={17} strokeWidth={1.75} />
      </IconButton>
    </>
  )
}

/** Never disabled while something is unsaved, not even while a save is under way. */
function SaveButton() {
  const run = useRunCommand()
  const isSaved = useEditor((state) => unsavedCount(state) === 0)
  const hasDrafts = useDrafts().length > 0
  return (
    <Button onPress={() => run('save')} isDisabled={isSaved && !hasDrafts}>
      Save
    </Button>
  )
}

function StateChip({ saveState }: { saveState: SaveState }) {
  const unsaved = useEditor(unsavedCount) + useDrafts().length
  if (saveState.type === 'saving') return <Chip role="status">Saving…</Chip>
  if (saveState.type === 'deleted')
    return (
      <Chip role="status" data-tone="trouble">
        Page deleted, not saved
      </Chip>
    )
  if (saveState.type === 'failed') {
    return (
      <Chip role="alert" data-tone="trouble" title={saveState.message}>
        {saveState.isRetried ? 'Not saved yet, trying again' : 'Not saved'}
      </Chip>
    )
  }
  if (unsaved > 0)
    return (
      <Chip role="status" data-tone="waiting">
        {counted(unsaved, 'edit not saved', 'edits not saved')}
      </Chip>
    )
  return (
    <Chip role="status" data-tone="fine">
      Saved
    </Chip>
  )
}

function liveWords(summary: PageSummary): string {
  if (summary.liveSince === null) return 'Draft'
  const since = when(summary.liveSince)
  return summary.state === 'live' ? `Live since ${since}` : `Live since ${since} (older version)`
}
