import { useEffect, useRef, useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import styled from 'styled-components'
import { mutate } from 'swr'
import type {
  ImportChoice,
  ImportChoices,
  Imported,
  ImportItem,
  ImportRequest,
  WaitingImport,
} from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { refreshLibrary, refreshPages, refreshParts, useSiteInfo } from '../api/hooks.ts'
import { requestLong, type Progress } from '../api/long-act.ts'
import { inSite } from '../api/site-address.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button, fieldBox, MainButton } from '../ui/controls.tsx'
import { Note, Rows, Trouble } from '../ui/form-parts.ts'
import { Dialog } from '../ui/dialog.tsx'
import { messageOf } from '../ui/message-of.ts'
import { CarriedColours } from './carried-colours.tsx'
import { sendPackage } from './send-package.ts'

const Items = styled.div`
  display: grid;
  gap: 12px;
  max-height: 46vh;
  overflow: auto;
  h3 {
    font-size: 12px;
    font-weight: 600;
  }
  li {
    grid-template-columns: minmax(0, 1fr) 190px;
  }
  select {
    ${fieldBox}
    width: 100%;
  }
  li > small {
    padding-right: 12px;
    text-align: right;
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`
const Working = styled.div`
  display: grid;
  gap: 6px;
  progress {
    width: 100%;
    accent-color: var(--accent);
  }
`
const All = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: flex-end;
  font-size: 13px;
  select {
    ${fieldBox}
    width: 190px;
  }
`

type State =
  | { readonly is: 'choosing' }
  | { readonly is: 'sending'; readonly share: number }
  | { readonly is: 'deciding'; readonly waiting: WaitingImport }
  | { readonly is: 'importing'; readonly waiting: WaitingImport; readonly progress: Progress | undefined }
  | { readonly is: 'done'; readonly done: Imported }

/** Brings a package into the site: what would come is shown first, with what is there already, and then all of it is taken. */
export function ImportDialog({ onClose }: { readonly onClose: () => void }) {
  const [state, setState] = useState<State>({ is: 'choosing' })
  const [choices, setChoices] = useState<ImportChoices>({})
  const [surfaces, setSurfaces] = useState<Readonly<Record<string, string>>>({})
  const [trouble, setTrouble] = useState<string>()
  const ending = useRef(new AbortController())
  useEffect(() => () => ending.current.abort(new Error('closed')), [])
  const waiting = 'waiting' in state ? state.waiting : undefined

  const send = (file: File): void => {
    setTrouble(undefined)
    ending.current = new AbortController()
    setState({ is: 'sending', share: 0 })
    sendPackage(file, {
      signal: ending.current.signal,
      onShare: (share) => setState((now) => (now.is === 'sending' ? { is: 'sending', share } : now)),
    })
      .then((next) => {
        setChoices({})
        setSurfaces(Object.fromEntries(next.plan.surfaces.map(({ name, here }) => [name, here])))
        setState({ is: 'deciding', waiting: next })
      })
      .catch((error: unknown) => {
        setState({ is: 'choosing' })
        if (!ending.current.signal.aborted) setTrouble(messageOf(error))
      })
  }
  const take = (): void => {
    if (!waiting) return
    setTrouble(undefined)
    ending.current = new AbortController()
    setState({ is: 'importing', waiting, progress: undefined })
    const body: ImportRequest = { choices, surfaces }
    requestLong<Imported>(inSite(`/imports/${waiting.id}`), {
      body,
      signal: ending.current.signal,
      onProgress: (progress) => setState((now) => (now.is === 'importing' ? { ...now, progress } : now)),
    })
      .then(async (done) => {
        await Promise.all([refreshParts(), refreshPages(), refreshLibrary(), mutate(inSite(''))])
        setState({ is: 'done', done })
      })
      .catch(async (error: unknown) => {
        setTrouble(ending.current.signal.aborted ? 'Cancelled. Nothing was imported.' : messageOf(error))
        // The site is another one than was looked at: what is there now is shown, and chosen again.
        const isStale = error instanceof ApiError && error.body?.code === 'stale-save'
        const next = isStale
          ? await request<WaitingImport>(inSite(`/imports/${waiting.id}`)).catch(() => waiting)
          : waiting
        if (isStale) setChoices({})
        setState({ is: 'deciding', waiting: next })
      })
  }
  const close = (): void => {
    ending.current.abort(new Error('closed'))
    if (waiting && state.is !== 'done')
      void request(inSite(`/imports/${waiting.id}`), { method: 'DELETE' }).catch(() => undefined)
    onClose()
  }
  const isWorking = state.is === 'sending' || state.is === 'importing'
  return (
    <Dialog
      title="Import a package"
      isWide={state.is === 'deciding' || state.is === 'importing'}
      onClose={close}
      acts={
        state.is === 'done' ? (
          <MainButton onPress={onClose}>Close</MainButton>
        ) : (
          <>
            <Button onPress={isWorking ? () => ending.current.abort(new Error('cancelled')) : close}>
              Cancel
            </Button>
            {state.is === 'choosing' ? (
              <FileTrigger
                acceptedFileTypes={['.zip', 'application/zip']}
                onSelect={(files) => files?.[0] && send(files[0])}
              >
                <MainButton>Choose a file…</MainButton>
              </FileTrigger>
            ) : (
              <MainButton isDisabled={state.is !== 'deciding'} onPress={take}>
                Import
              </MainButton>
            )}
          </>
        )
      }
    >
      {state.is === 'choosing' && (
        <p>
          A package is a zip file that was exported from a site: patterns, shared sections, pages or all of
          it, with their pictures and files. You see what it brings before anything is changed.
        </p>
      )}
      {state.is === 'sending' && (
        <Working role="status">
          {state.share < 1 ? 'Sending the package…' : 'Looking at what is in it…'}
          <progress aria-label="Sending" value={state.share < 1 ? state.share : undefined} />
        </Working>
      )}
      {state.is === 'importing' && (
        <Working role="status">
          {state.progress && state.progress.total > 0
            ? `${state.progress.done} of ${state.progress.total} pictures and files made`
            : 'Importing…'}
          <progress aria-label="Importing" max={state.progress?.total} value={state.progress?.done} />
        </Working>
      )}
      {state.is === 'deciding' && (
        <Deciding
          waiting={state.waiting}
          choices={choices}
          onChoose={setChoices}
          surfaces={surfaces}
          onSurfaces={setSurfaces}
        />
      )}
      {state.is === 'done' && <p role="status">{doneWords(state.done)}</p>}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Dialog>
  )
}

function doneWords({ added, replaced, kept }: Imported): string {
  const things = (count: number): string => (count === 1 ? '1 thing' : `${count} things`)
  const replacedWords = replaced > 0 ? ` ${things(replaced)} replaced, each as a new version.` : ''
  const keptWords = kept > 0 ? ` ${things(kept)} stayed as they were here.` : ''
  return `${things(added)} added.${replacedWords}${keptWords} Pages are drafts until you publish them.`
}

const GROUPS = [
  ['settings', 'Site'],
  ['header', 'Site'],
  ['footer', 'Site'],
  ['part', 'Patterns and shared sections'],
  ['page', 'Pages'],
  ['picture', 'Pictures'],
  ['file', 'Files'],
] as const satisfies readonly (readonly [ImportItem['thing'], string])[]

const CHOICE_WORDS: Readonly<Record<ImportChoice, string>> = {
  add: 'Add',
  mine: 'Keep mine',
  theirs: 'Take theirs',
  both: 'Keep both',
}

interface DecidingProps {
  readonly waiting: WaitingImport
  readonly choices: ImportChoices
  readonly onChoose: (choices: ImportChoices) => void
  readonly surfaces: Readonly<Record<string, string>>
  readonly onSurfaces: (surfaces: Readonly<Record<string, string>>) => void
}

function Deciding({ waiting, choices, onChoose, surfaces, onSurfaces }: DecidingProps) {
  const { data: site } = useSiteInfo()
  const mayReplaceSettings = useMe().role === 'keeper'
  const { items, surfaces: colours, lostPages } = waiting.plan
  const titles = [...new Set(GROUPS.map(([, title]) => title))]
  const thingsOf = (title: string): readonly string[] =>
    GROUPS.flatMap(([thing, one]) => (one === title ? [thing] : []))
  const choicesOf = ({ thing, choices: all }: ImportItem): readonly ImportChoice[] =>
    thing === 'settings' && !mayReplaceSettings ? ['mine'] : all
  const matched = items.filter((item) => choicesOf(item).length > 1)
  const chooseAll = (choice: ImportChoice): void =>
    onChoose(
      Object.fromEntries(
        matched.flatMap((item) => (choicesOf(item).includes(choice) ? [[item.key, choice]] : [])),
      ),
    )
  return (
    <>
      <p>{countWords(items.length - matched.length, matched.length)}</p>
      {matched.length > 1 && (
        <All>
          All that are here already
          <select
            value={sameForAll(matched, choices) ?? ''}
            onChange={(event) => chooseAll(event.target.value as ImportChoice)}
          >
            <option value="" disabled>
              Different choices
            </option>
            {(['mine', 'theirs', 'both'] as const).map((choice) => (
              <option key={choice} value={choice}>
                {CHOICE_WORDS[choice]}
              </option>
            ))}
          </select>
        </All>
      )}
      <Items>
        {titles.map((title) => {
          const group = items.filter(({ thing }) => thingsOf(title).includes(thing))
          if (group.length === 0) return null
          return (
            <section key={title} aria-label={title}>
              <h3>
                {title} ({group.length})
              </h3>
              <Rows>
                {group.map((item) => (
                  <li key={item.key}>
                    <span>
                      <strong>{item.name}</strong>
                      <small>{matchWords(item)}</small>
                    </span>
                    {choicesOf(item).length === 1 ? (
                      <small>{CHOICE_WORDS[choicesOf(item)[0]!]}</small>
                    ) : (
                      <select
                        aria-label={`What to do with ${item.name}`}
                        value={choices[item.key] ?? item.suggested}
                        onChange={(event) =>
                          onChoose({ ...choices, [item.key]: event.target.value as ImportChoice })
                        }
                      >
                        {choicesOf(item).map((choice) => (
                          <option key={choice} value={choice}>
                            {CHOICE_WORDS[choice]}
                          </option>
                        ))}
                      </select>
                    )}
                  </li>
                ))}
              </Rows>
            </section>
          )
        })}
        {site && colours.length > 0 && (
          <CarriedColours look={site.look} colours={colours} chosen={surfaces} onChoose={onSurfaces} />
        )}
      </Items>
      {lostPages > 0 && (
        <Note>
          {lostPages === 1 ? 'One page is' : `${lostPages} pages are`} linked to and not in the package. Those
          links lead nowhere until you set them; the checks list each one.
        </Note>
      )}
      <Note>
        Nothing here is lost: what is replaced gets a new version. If anything can’t be imported, nothing is.
      </Note>
    </>
  )
}

function countWords(added: number, matched: number): string {
  const things = (count: number): string => (count === 1 ? 'One thing' : `${count} things`)
  if (matched === 0) return `${things(added)}, new on this site.`
  if (added === 0) return `${things(matched)}, on this site already.`
  return `${things(added)} new on this site, ${matched} on it already.`
}

/** What is chosen for all of them that have the choice; undefined where it differs. */
function sameForAll(items: readonly ImportItem[], choices: ImportChoices): ImportChoice | undefined {
  const all = new Set(items.map((item) => choices[item.key] ?? item.suggested))
  return all.size === 1 ? [...all][0] : undefined
}

function matchWords({ match, thing }: ImportItem): string {
  if (!match) return 'New here'
  if (thing === 'settings') return 'This site has its own'
  if (match.isSame) return 'The same as here'
  const by = {
    id: `Came before, differs from “${match.name}”`,
    name: `Same name as “${match.name}”, differs`,
    address: `Same address as a page here: ${match.name}`,
    content: 'The same as here',
    place: 'Differs from the one here',
  }
  return by[match.by]
}
