import { useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import {
  LONGEST_PART_NAME,
  type AlikeAnswer,
  type AlikeGroup,
  type JoinAlikeRequest,
  type JoinedAlike,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { refreshPages, refreshParts } from '../api/hooks.ts'
import { requestLong, type Progress } from '../api/long-act.ts'
import { inSite } from '../api/site-address.ts'
import { Button, fieldBox } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { Acts, Note, Trouble } from '../ui/form-parts.ts'
import { messageOf } from '../ui/message-of.ts'
import { valueWords } from './value-words.ts'
import { counted } from '../ui/counted.ts'

const Groups = styled.ul`
  display: grid;
  gap: 18px;
  max-height: 56vh;
  margin: 0;
  padding: 0 4px 0 0;
  overflow: auto;
  list-style: none;
`
const Group = styled.li`
  display: grid;
  gap: 8px;
  padding: 12px 14px;
  border: 1px solid var(--line);
  border-radius: 5px;
  h3 {
    font-size: 13px;
    font-weight: 600;
  }
  table {
    border-collapse: collapse;
    font-size: 12px;
  }
  th,
  td {
    max-width: 180px;
    padding: 3px 10px 3px 0;
    overflow: hidden;
    text-align: left;
    text-overflow: ellipsis;
    vertical-align: top;
    white-space: nowrap;
  }
  th {
    color: var(--quiet);
    font-weight: 450;
  }
`
const Scroll = styled.div`
  overflow: auto;
`
const Name = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
  input {
    ${fieldBox}
    width: 220px;
  }
`
const Bar = styled.progress`
  width: 100%;
  accent-color: var(--accent);
`

interface AlikeDialogProps {
  readonly onClose: () => void
  readonly onDone: (words: string) => void
}

/** Finds sections that are nearly alike, shows in what they differ, and makes one part of those that are chosen. */
export function AlikeDialog({ onClose, onDone }: AlikeDialogProps) {
  const [progress, setProgress] = useState<Progress>()
  const [answer, setAnswer] = useState<AlikeAnswer>()
  const [trouble, setTrouble] = useState<string>()
  const [round, setRound] = useState(0)
  useEffect(() => {
    const ending = new AbortController()
    requestLong<AlikeAnswer>(inSite('/parts/alike'), {
      body: {},
      signal: ending.signal,
      onProgress: setProgress,
    })
      .then(setAnswer)
      .catch((error: unknown) => {
        if (!ending.signal.aborted) setTrouble(messageOf(error))
      })
    return () => ending.abort(new Error('closed'))
  }, [round])
  return (
    <Dialog
      title="Sections that are nearly alike"
      onClose={onClose}
      isWide
      acts={<Button onPress={onClose}>{(answer ?? trouble) ? 'Close' : 'Cancel'}</Button>}
    >
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      {answer ? (
        <Found
          key={round}
          answer={answer}
          onJoined={({ part, pages }) => {
            onDone(`Made “${part.name}” of sections on ${counted(pages, 'page')}. They look as before.`)
            setAnswer(undefined)
            setProgress(undefined)
            setRound(round + 1)
            void refreshParts()
            void refreshPages()
          }}
        />
      ) : (
        !trouble && (
          <>
            <Note role="status">Comparing the sections of all pages…</Note>
            <Bar
              aria-label="Pages compared"
              max={progress?.total ?? 1}
              {...(progress ? { value: progress.done } : {})}
            />
          </>
        )
      )}
    </Dialog>
  )
}

interface FoundProps {
  readonly answer: AlikeAnswer
  readonly onJoined: (joined: JoinedAlike) => void
}

function Found({ answer: { groups, compared }, onJoined }: FoundProps) {
  if (groups.length === 0)
    return <Note role="status">{compared} sections were compared. No two of them are nearly alike.</Note>
  return (
    <>
      <Note role="status">
        {compared} sections were compared. Where you make a group one part, every section still shows what it
        shows now, and what they have in common is edited in one place.
      </Note>
      <Groups aria-label="Groups of sections">
        {groups.map((group) => (
          <OneGroup
            key={`${group.sections[0]!.pageId}.${group.sections[0]!.nodeId}`}
            group={group}
            onJoined={onJoined}
          />
        ))}
      </Groups>
    </>
  )
}

/** The set with a number that it did not have, or without one that it had. */
function toggled(set: ReadonlySet<number>, one: number): ReadonlySet<number> {
  return new Set(set.has(one) ? [...set].filter((other) => other !== one) : [...set, one])
}

interface OneGroupProps {
  readonly group: AlikeGroup
  readonly onJoined: (joined: JoinedAlike) => void
}

function OneGroup({ group: { sections, differences }, onJoined }: OneGroupProps) {
  const [name, setName] = useState(sections[0]!.name.slice(0, LONGEST_PART_NAME))
  const [isBusy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const field = useRef<HTMLInputElement>(null)
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set())
  const chosen = sections.map((_one, i) => i).filter((i) => !left.has(i))
  const doDiffer = differences.some(
    ({ values }) => new Set(chosen.map((i) => JSON.stringify(values[i]))).size > 1,
  )
  const word = doDiffer ? 'component' : 'shared section'
  const join = async (): Promise<void> => {
    if (name.trim() === '') return field.current?.focus()
    setBusy(true)
    setTrouble(undefined)
    const body: JoinAlikeRequest = {
      name,
      purpose: 'other',
      about: '',
      sections: chosen.map((i) => {
        const { pageId, version, nodeId } = sections[i]!
        return { pageId, version, nodeId }
      }),
    }
    try {
      onJoined(await request<JoinedAlike>(inSite('/parts/join'), { method: 'POST', body }))
    } catch (error) {
      setTrouble(messageOf(error))
      setBusy(false)
    }
  }
  return (
    <Group>
      <h3>
        {differences.length === 0
          ? `${sections.length} sections are the same`
          : `${sections.length} sections are nearly alike`}
      </h3>
      <Scroll
        tabIndex={0}
        role="group"
        aria-label={`In what the sections called ${sections[0]!.name} differ`}
      >
        <table>
          <thead>
            <tr>
              <th scope="col">Page</th>
              {differences.map(({ name: one }) => (
                <th key={one} scope="col">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sections.map(({ pageId, nodeId, pageTitle }, i) => (
              <tr key={`${pageId}.${nodeId}`}>
                <td>
                  <label>
                    <input
                      type="checkbox"
                      checked={!left.has(i)}
                      onChange={() => setLeft(toggled(left, i))}
                    />{' '}
                    {pageTitle}
                  </label>
                </td>
                {differences.map(({ name: one, values }) => (
                  <td key={one}>{valueWords(values[i]!)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      <Acts>
        <Name>
          Name
          <input
            ref={field}
            value={name}
            maxLength={LONGEST_PART_NAME}
            onChange={(event) => setName(event.target.value)}
          />
        </Name>
        <Button isDisabled={isBusy || chosen.length < 2} onPress={() => void join()}>
          Make one {word}
        </Button>
      </Acts>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Group>
  )
}
