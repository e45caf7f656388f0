import { Fragment, useMemo, useState } from 'react'
import { Label, Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'
import {
  cutShort,
  cutToEnd,
  describeConflict,
  diffWords,
  type Conflict,
  type ConflictWords,
  type DiffPart,
  type Side,
} from '@gullyline/core'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { when } from '../../ui/when.ts'
import { useSiteView } from '../session/site-view.ts'
import { useStore } from '../session/editor-store.ts'
import { conflictsOf, versionsOf, type Newer } from '../session/merge-in.ts'
import type { Saving } from '../session/use-save.ts'

const Spot = styled(RadioGroup)`
  display: grid;
  gap: 4px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
`
const SpotTitle = styled(Label)`
  color: var(--strong);
  font-weight: 600;
`
const Choice = styled(Radio)`
  display: grid;
  grid-template-columns: 16px 64px minmax(0, 1fr);
  gap: 8px;
  align-items: start;
  padding: 6px 8px;
  border: 1px solid var(--line);
  border-radius: 4px;
  overflow-wrap: anywhere;
  &::before {
    content: '';
    width: 12px;
    height: 12px;
    margin-top: 3px;
    border: 1.5px solid var(--control);
    border-radius: 50%;
  }
  &[data-selected] {
    border-color: var(--accent);
    background: var(--accentTint);
  }
  &[data-selected]::before {
    border: 4px solid var(--accent);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--accentBright);
  }
  b {
    color: var(--strong);
  }
  span {
    white-space: pre-wrap;
  }
  mark {
    border-radius: 2px;
    background: var(--ochreTint);
    color: var(--strong);
    text-decoration: underline;
    text-decoration-thickness: 1.5px;
    text-underline-offset: 3px;
  }
`
const Whole = styled.button`
  justify-self: start;
  padding: 2px 0;
  border: 0;
  background: none;
  color: var(--accent);
  font-size: 12px;
`
const Empty = styled.i`
  color: var(--quiet);
`

/** Spots that two people changed in different ways. Each is settled by choosing a side; what only one changed is in already. */
export function ConflictsDialog({ newer, saving }: { newer: Newer; saving: Saving }) {
  const store = useStore()
  const { look } = useSiteView().site
  const [versions] = useState(() => versionsOf(store, newer))
  const [conflicts] = useState(() => conflictsOf(store, newer, store.registry))
  const [sides, setSides] = useState<Readonly<Record<string, Side>>>({})
  const { current } = newer
  const sideOf = (conflict: Conflict): Side => sides[conflict.key] ?? 'ours'
  const isSaving = saving.state.type === 'conflicts' && saving.state.thenSave
  return (
    <Dialog
      title={`${current.savedBy} changed the same ${conflicts.length === 1 ? 'spot' : 'spots'}`}
      isWide
      onClose={saving.dismiss}
      acts={
        <>
          <Button onPress={saving.dismiss}>Decide later</Button>
          <MainButton onPress={() => void saving.settle(sideOf)}>
            {isSaving ? 'Use these and save' : 'Use these'}
          </MainButton>
        </>
      }
    >
      <p>
        {current.savedBy} saved version {current.number} at {when(current.savedAt)}, after you opened the
        page. Everything else is merged. Choose which version to use here; undo brings the other one back, and
        its text stays under “Set aside”.
      </p>
      {conflicts.map((conflict) => (
        <Spot
          key={conflict.key}
          value={sideOf(conflict)}
          onChange={(side) => setSides({ ...sides, [conflict.key]: side as Side })}
        >
          <ConflictSides
            words={describeConflict(conflict, versions, store.registry, look)}
            savedBy={current.savedBy}
          />
        </Spot>
      ))}
    </Dialog>
  )
}

/** Longer text is cut to what is around its differences, until somebody wants all of it. */
const LONG = 400

function ConflictSides({ words, savedBy }: { words: ConflictWords; savedBy: string }) {
  const [isWhole, setWhole] = useState(false)
  const parts = useMemo(() => (words.isText ? diffWords(words.ours, words.theirs) : undefined), [words])
  const isLong = Math.max(words.ours.length, words.theirs.length) > LONG
  const side = (which: Side) => {
    const own = which === 'ours' ? 'first' : 'second'
    const shown = parts?.filter((part) => part.in === 'both' || part.in === own)
    return <SideText text={words[which]} parts={shown} isWhole={isWhole || !isLong} />
  }
  return (
    <>
      <SpotTitle>{words.title}</SpotTitle>
      <Choice value="ours">
        <b>Yours</b> {side('ours')}
      </Choice>
      <Choice value="theirs">
        <b>{savedBy}</b> {side('theirs')}
      </Choice>
      {isLong && (
        <Whole type="button" aria-expanded={isWhole} onClick={() => setWhole(!isWhole)}>
          {isWhole ? 'Show differences only' : 'Show the whole text'}
        </Whole>
      )}
    </>
  )
}

interface SideTextProps {
  readonly text: string
  /** What both sides have, and what only this one has; absent where there is nothing to compare. */
  readonly parts: readonly DiffPart[] | undefined
  readonly isWhole: boolean
}

/** Characters that are shown before and after a difference. */
const AROUND = 60

function SideText({ text, parts, isWhole }: SideTextProps) {
  if (text === '') return <Empty>Empty</Empty>
  if (!parts) return <span>{isWhole || text.length <= LONG ? text : `${cutShort(text, LONG)}…`}</span>
  return (
    <span>
      {parts.map((part, i) =>
        part.in === 'both' ? (
          <Fragment key={i}>
            {isWhole ? part.text : shortened(part.text, i === 0, i === parts.length - 1)}
          </Fragment>
        ) : (
          <mark key={i}>{part.text}</mark>
        ),
      )}
    </span>
  )
}

/** Text that both have: of a long piece, its ends that touch a difference. */
function shortened(text: string, isFirst: boolean, isLast: boolean): string {
  if (text.length <= 2 * AROUND + 1) return text
  const [start, end] = [isFirst ? '' : cutShort(text, AROUND), isLast ? '' : cutToEnd(text, AROUND)]
  return `${start}…${end}`
}
