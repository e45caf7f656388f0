import { useEffect, useRef, useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import styled from 'styled-components'
import { mutate } from 'swr'
import type { ImportChoices, Imported, ImportRequest, WaitingImport } from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { refreshLibrary, refreshPages, refreshParts, useSiteInfo } from '../api/hooks.ts'
import { requestLong, type Progress } from '../api/long-act.ts'
import { inOtherSite, inSite } from '../api/site-address.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button, fieldBox, MainButton } from '../ui/controls.tsx'
import { Trouble } from '../ui/form-parts.ts'
import { Dialog } from '../ui/dialog.tsx'
import { messageOf } from '../ui/message-of.ts'
import { ImportChoicesList } from './import-choices.tsx'
import { packageOf, type Exported } from './export-package.ts'
import { sendPackage } from './send-package.ts'
import { counted } from '../ui/counted.ts'

const Working = styled.div`
  display: grid;
  gap: 6px;
  progress {
    width: 100%;
    accent-color: var(--accent);
  }
`

const Into = styled.label`
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
  select {
    ${fieldBox}
  }
`

type State =
  | { readonly is: 'choosing' }
  | { readonly is: 'sending'; readonly share: number }
  | { readonly is: 'deciding'; readonly waiting: WaitingImport }
  | { readonly is: 'importing'; readonly waiting: WaitingImport; readonly progress: Progress | undefined }
  | { readonly is: 'done'; readonly done: Imported }

interface ImportDialogProps {
  /** What of this site is to be copied to another one, in the place of a file that is chosen. */
  readonly copied?: Exported
  readonly onClose: () => void
}

/**
 * Brings a package into the site, or parts of this site into another one: what would come is shown first, with what is
 * there already, and then all of it is taken.
 */
export function ImportDialog({ copied, onClose }: ImportDialogProps) {
  const { data: here } = useSiteInfo()
  const others = useMe().sites.filter(({ id }) => id !== here?.id)
  const [wanted, setWanted] = useState<string>()
  const into = copied && (others.find(({ id }) => id === wanted) ?? others[0])
  const at = (path: string): string => (into ? inOtherSite(into.id, path) : inSite(path))
  const [state, setState] = useState<State>({ is: 'choosing' })
  const [choices, setChoices] = useState<ImportChoices>({})
  const [surfaces, setSurfaces] = useState<Readonly<Record<string, string>>>({})
  const [trouble, setTrouble] = useState<string>()
  const ending = useRef(new AbortController())
  useEffect(() => () => ending.current.abort(new Error('closed')), [])
  const waiting = 'waiting' in state ? state.waiting : undefined

  const send = (read: (signal: AbortSignal) => Blob | Promise<Blob>): void => {
    setTrouble(undefined)
    ending.current = new AbortController()
    const { signal } = ending.current
    setState({ is: 'sending', share: 0 })
    Promise.resolve(read(signal))
      .then((file) =>
        sendPackage(file, {
          address: at('/imports'),
          signal,
          onShare: (share) => setState((now) => (now.is === 'sending' ? { is: 'sending', share } : now)),
        }),
      )
      .then((next) => {
        setChoices({})
        setSurfaces(Object.fromEntries(next.plan.surfaces.map(({ name, here }) => [name, here])))
        setState({ is: 'deciding', waiting: next })
      })
      .catch((error: unknown) => {
        setState({ is: 'choosing' })
        if (!signal.aborted) setTrouble(messageOf(error))
      })
  }
  const take = (): void => {
    if (!waiting) return
    setTrouble(undefined)
    ending.current = new AbortController()
    setState({ is: 'importing', waiting, progress: undefined })
    const body: ImportRequest = { choices, surfaces }
    requestLong<Imported>(at(`/imports/${waiting.id}`), {
      body,
      signal: ending.current.signal,
      onProgress: (progress) => setState((now) => (now.is === 'importing' ? { ...now, progress } : now)),
    })
      .then(async (done) => {
        if (!into) await Promise.all([refreshParts(), refreshPages(), refreshLibrary(), mutate(inSite(''))])
        setState({ is: 'done', done })
      })
      .catch(async (error: unknown) => {
        setTrouble(ending.current.signal.aborted ? 'Cancelled. Nothing was imported.' : messageOf(error))
        // The site is another one than was looked at: what is there now is shown, and chosen again.
        const isStale = error instanceof ApiError && error.body?.code === 'stale-save'
        const next = isStale
          ? await request<WaitingImport>(at(`/imports/${waiting.id}`)).catch(() => waiting)
          : waiting
        if (isStale) setChoices({})
        setState({ is: 'deciding', waiting: next })
      })
  }
  const close = (): void => {
    ending.current.abort(new Error('closed'))
    if (waiting && state.is !== 'done')
      void request(at(`/imports/${waiting.id}`), { method: 'DELETE' }).catch(() => undefined)
    onClose()
  }
  const isWorking = state.is === 'sending' || state.is === 'importing'
  return (
    <Dialog
      title={copied ? 'Copy to another site' : 'Import a package'}
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
            {state.is === 'choosing' && copied && (
              <MainButton isDisabled={!into} onPress={() => send((signal) => packageOf(copied, signal))}>
                Show what would come
              </MainButton>
            )}
            {state.is === 'choosing' && !copied && (
              <FileTrigger
                acceptedFileTypes={['.zip', 'application/zip']}
                onSelect={(files) => {
                  const file = files?.[0]
                  if (file) send(() => file)
                }}
              >
                <MainButton>Choose a file…</MainButton>
              </FileTrigger>
            )}
            {state.is !== 'choosing' && (
              <MainButton isDisabled={state.is !== 'deciding'} onPress={take}>
                {copied ? 'Copy' : 'Import'}
              </MainButton>
            )}
          </>
        )
      }
    >
      {state.is === 'choosing' && copied && (
        <>
          <p>
            It is copied with all that it shows: pictures, files and other parts. You see what would come
            there before anything is changed. What is changed here later does not change there.
          </p>
          <Into>
            To the site
            <select value={into?.id ?? ''} onChange={(event) => setWanted(event.target.value)}>
              {others.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </Into>
        </>
      )}
      {state.is === 'choosing' && !copied && (
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
        <ImportChoicesList
          siteAt={at('')}
          waiting={state.waiting}
          choices={choices}
          onChoose={setChoices}
          surfaces={surfaces}
          onSurfaces={setSurfaces}
        />
      )}
      {state.is === 'done' && (
        <p role="status">
          {into && `On “${into.name}”: `}
          {doneWords(state.done)}
        </p>
      )}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Dialog>
  )
}

function doneWords({ added, replaced, kept }: Imported): string {
  const things = (count: number): string => counted(count, 'thing')
  const replacedWords = replaced > 0 ? ` ${things(replaced)} replaced, each as a new version.` : ''
  const keptWords = kept > 0 ? ` ${things(kept)} stayed as they were here.` : ''
  return `${things(added)} added.${replacedWords}${keptWords} Pages are drafts until you publish them.`
}
