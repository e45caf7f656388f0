import { useEffect, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import {
  changedParts,
  FRAME_NAMES,
  instanceAround,
  isFrameName,
  originOf,
  shownParts,
  type PageSummary,
  type PublishResult,
  type SharedName,
} from '@gullyline/core'
import type { Progress } from '../../api/long-act.ts'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { useValue } from '../../ui/value.ts'
import { unsavedCount, type Saved } from '../session/editor-state.ts'
import { useEditor, useStore } from '../session/editor-store.ts'
import { GullyNote } from '../gullyline/gully-note.tsx'
import { useShownFindings } from '../problems/findings-context.tsx'
import { reachWords, sharedTitle } from '../session/reach.ts'
import { useSiteView } from '../session/site-view.ts'
import type { Saving } from '../session/use-save.ts'

const Errors = styled.ul`
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
  button {
    width: 100%;
    padding: 6px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    color: var(--clay);
    text-align: left;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  button:hover {
    background: var(--panel);
  }
`
const Made = styled.div`
  display: grid;
  gap: 6px;
  progress {
    width: 100%;
  }
`
const Check = styled.label`
  display: flex;
  gap: 8px;
  align-items: baseline;
`
const MOST_ERRORS = 12

interface PublishDialogProps {
  readonly summary: PageSummary
  readonly saving: Saving
  readonly onClose: () => void
}

/** Says what will go live, makes it so, and then leads to it. */
export function PublishDialog({ summary, saving, onClose }: PublishDialogProps) {
  const store = useStore()
  const unsaved = useEditor(unsavedCount)
  const version = useEditor((state) => state.saved.version)
  const errors = useShownFindings().filter(({ severity }) => severity === 'error')
  const [result, setResult] = useState<PublishResult>()
  // Aborted to cancel it; undefined while nothing is published.
  const [running, setRunning] = useState<AbortController>()
  const [progress, setProgress] = useState<Progress>()
  const isBusy = running !== undefined
  const view = useSiteView()
  const { site } = view
  const page = useEditor((state) => state.page)
  const saved = useEditor((state) => state.saved)
  // Told by what was saved here: the site is asked for again after a save, and may not have answered yet.
  const linked = useValue(store.linked)
  const isAhead = (name: SharedName, { shared }: Saved): boolean =>
    (shared[name] ?? 0) > ((isFrameName(name) ? site.shared[name] : linked[name])?.liveVersion ?? 0)
  // Of the parts, those that the page shows now, at whatever depth.
  const names = useMemo(() => [...FRAME_NAMES, ...shownParts(page, store.registry)], [page, store])
  const changed = useMemo(
    () => (page === saved.page ? [] : changedParts(saved.page, page)),
    [page, saved.page],
  )
  const alsoLive = names.filter((name) => changed.includes(name) || isAhead(name, saved))
  const [kept, setKept] = useState<ReadonlySet<SharedName>>(new Set())
  const publish = async (saveFirst: boolean): Promise<void> => {
    const controller = new AbortController()
    setRunning(controller)
    const ready = !saveFirst || (await saving.save(true))
    // As it is saved now: what is on the screen and not saved goes live with no page.
    const going = names.filter((name) => isAhead(name, store.state.saved) && !kept.has(name))
    const watch = { onProgress: setProgress, signal: controller.signal }
    const published = ready ? await saving.publish(going, watch) : undefined
    setRunning(undefined)
    if (published) setResult(published)
    else onClose()
  }
  // The button that was pressed is gone: with the focus nowhere, Escape would not be heard.
  const close = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (result) close.current?.focus()
  }, [result])
  if (result) {
    return (
      <Dialog
        title="Published"
        onClose={onClose}
        acts={
          <Button ref={close} onPress={onClose}>
            Close
          </Button>
        }
      >
        <p>
          The page is live at{' '}
          <a href={result.url} target="_blank" rel="noreferrer">
            {result.url}
          </a>
        </p>
      </Dialog>
    )
  }
  if (errors.length > 0) {
    return (
      <Dialog
        title={
          errors.length === 1
            ? '1 problem to fix before publishing'
            : `${errors.length} problems to fix before publishing`
        }
        onClose={onClose}
        acts={<Button onPress={onClose}>Close</Button>}
      >
        <p>You can save this page, but not publish it yet. Visitors still see the live version.</p>
        <Errors>
          {errors.slice(0, MOST_ERRORS).map(({ message, nodeId }, i) => (
            <li key={i}>
              <button
                type="button"
                onClick={() => {
                  store.dispatch({
                    type: 'select',
                    id:
                      nodeId === undefined || nodeId === store.state.page.root ? undefined : originOf(nodeId),
                    around: nodeId === undefined ? '' : instanceAround(nodeId),
                  })
                  onClose()
                }}
              >
                {message}
              </button>
            </li>
          ))}
        </Errors>
      </Dialog>
    )
  }
  return (
    <Dialog
      title={`Publish “${summary.title}”?`}
      onClose={() => !isBusy && onClose()}
      acts={
        <>
          <Button onPress={() => (running ? running.abort() : onClose())}>Cancel</Button>
          {unsaved > 0 && (
            <Button isDisabled={isBusy} onPress={() => void publish(false)}>
              Publish saved version
            </Button>
          )}
          {/* Not disabled while it is busy: that would take the focus from it. */}
          <MainButton aria-disabled={isBusy} onPress={() => !isBusy && void publish(unsaved > 0)}>
            {unsaved > 0 ? 'Save and publish' : 'Publish'}
          </MainButton>
        </>
      }
    >
      <p>
        Visitors will see {unsaved > 0 ? 'the page as it is on the screen' : `version ${version}`} at{' '}
        {summary.path}.{alsoLive.length === 0 && ' Other pages stay as they are.'}
      </p>
      {alsoLive.map((name) => (
        <AlsoLive
          key={name}
          title={capital(sharedTitle(name, linked))}
          reach={reachWords(name, { ...view, linked })}
          // What visitors never saw can’t be left out of a page that shows it.
          isFixed={isFrameName(name) || linked[name]?.liveVersion == null}
          isGoing={!kept.has(name)}
          onChange={(isGoing) => {
            const next = new Set(kept)
            if (isGoing) next.delete(name)
            else next.add(name)
            setKept(next)
          }}
        />
      ))}
      {!isBusy && <GullyNote />}
      {isBusy && <Busy progress={progress} />}
      {unsaved > 0 && <p>{unsaved === 1 ? 'One edit is' : `${unsaved} edits are`} not saved yet.</p>}
    </Dialog>
  )
}

interface AlsoLiveProps {
  readonly title: string
  readonly reach: string
  readonly isFixed: boolean
  readonly isGoing: boolean
  readonly onChange: (isGoing: boolean) => void
}

/** Something shared that has changed since visitors saw it: it goes live with the page, or stays as they see it. */
function AlsoLive({ title, reach, isFixed, isGoing, onChange }: AlsoLiveProps) {
  const goes = `${title} goes live, too. ${reach}.`
  if (isFixed) return <p>{goes}</p>
  return (
    <Check>
      <input type="checkbox" checked={isGoing} onChange={(event) => onChange(event.target.checked)} />
      {isGoing ? goes : `${title} stays as visitors see it now.`}
    </Check>
  )
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** How many of the pages that change have been made. */
function Busy({ progress }: { readonly progress: Progress | undefined }) {
  const words = progress ? `${progress.done} of ${progress.total} pages made` : 'Publishing…'
  return (
    <Made>
      {words}
      <progress aria-label="Publishing" max={progress?.total} value={progress?.done} />
    </Made>
  )
}
