import { useRef, useState } from 'react'
import styled from 'styled-components'
import { mutate } from 'swr'
import type { PageSummary, PublishResult, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { refreshPages } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { messageOf } from '../ui/message-of.ts'
import { withSubPages } from './tree-moves.ts'

const Pages = styled.ul`
  display: grid;
  gap: 4px;
  max-height: 40vh;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
  small {
    color: var(--quiet);
    font-size: 12px;
  }
  small[role='alert'] {
    display: block;
    color: var(--clay);
  }
`

export type ManyPagesAct = 'publish' | 'unpublish' | 'delete'

const WORDS = {
  publish: { verb: 'Publish', done: 'Published' },
  unpublish: { verb: 'Unpublish', done: 'Unpublished' },
  delete: { verb: 'Delete', done: 'Deleted' },
} as const

export function actOnPages(act: ManyPagesAct): string {
  return WORDS[act].verb
}

interface ManyPagesDialogProps {
  readonly act: ManyPagesAct
  readonly chosen: readonly PageSummary[]
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly onClose: () => void
  /** Told what was done, once something was. */
  readonly onDone: (words: string) => void
}

/** Asks before one page or several are published, unpublished or deleted, and says how far it is and what was refused. */
export function ManyPagesDialog({ act, chosen, site, pages, onClose, onDone }: ManyPagesDialogProps) {
  // What can't be done with some of them was counted beside the button already.
  const [todo] = useState(() => pagesFor(act, chosen, site, pages))
  const [done, setDone] = useState<ReadonlySet<string>>(new Set())
  const [refused, setRefused] = useState<ReadonlyMap<string, string>>(new Map())
  const [isBusy, setBusy] = useState(false)
  const isStopped = useRef(false)
  const { verb, done: past } = WORDS[act]
  const left = todo.filter(({ id }) => !done.has(id))
  const run = async (): Promise<void> => {
    setBusy(true)
    setRefused(new Map())
    isStopped.current = false
    const finished = new Set(done)
    const faults = new Map<string, string>()
    for (const page of left) {
      if (isStopped.current) break
      try {
        await doAct(act, page)
        finished.add(page.id)
        setDone(new Set(finished))
      } catch (error) {
        faults.set(page.id, messageOf(error))
        setRefused(new Map(faults))
      }
    }
    await Promise.all([refreshPages(), mutate(inSite('/bin'))])
    setBusy(false)
    if (finished.size > 0) onDone(`${past} ${namesOf(todo.filter(({ id }) => finished.has(id)))}.`)
    if (faults.size === 0 && !isStopped.current) onClose()
  }
  return (
    <Dialog
      title={`${verb} ${namesOf(todo)}?`}
      isForm={isBusy}
      onClose={() => !isBusy && onClose()}
      acts={
        <>
          <Button onPress={() => (isBusy ? (isStopped.current = true) : onClose())}>
            {isBusy ? 'Stop' : done.size > 0 ? 'Close' : 'Cancel'}
          </Button>
          <MainButton isDisabled={isBusy || left.length === 0} onPress={() => void run()}>
            {isBusy ? `${done.size + refused.size} of ${todo.length}…` : verb}
          </MainButton>
        </>
      }
    >
      <p>{consequence(act, todo, pages)}</p>
      {isBusy && todo.length > 1 && (
        <progress max={todo.length} value={done.size + refused.size} aria-label={`${verb}: progress`} />
      )}
      {(todo.length > 1 || refused.size > 0) && (
        <Pages>
          {todo.map((page) => (
            <li key={page.id}>
              {page.title} <small>{page.path}</small>{' '}
              {done.has(page.id) && <small>· {past.toLowerCase()}</small>}
              {refused.has(page.id) && <small role="alert">{refused.get(page.id)}</small>}
            </li>
          ))}
        </Pages>
      )}
    </Dialog>
  )
}

function doAct(act: ManyPagesAct, { id, version }: PageSummary): Promise<unknown> {
  if (act === 'delete') return request(inSite(`/pages/${id}`), { method: 'DELETE' })
  if (act === 'unpublish') return request(inSite(`/pages/${id}/unpublish`), { method: 'POST', body: {} })
  return request<PublishResult>(inSite(`/pages/${id}/publish`), { method: 'POST', body: { version } })
}

/** The pages that the act can be done to; of pages to delete, those that go with a page above them are left out. */
function pagesFor(
  act: ManyPagesAct,
  chosen: readonly PageSummary[],
  { homePageId, notFoundPageId }: SiteInfo,
  pages: readonly PageSummary[],
): readonly PageSummary[] {
  const isFixed = ({ id }: PageSummary): boolean => id === homePageId || id === notFoundPageId
  if (act === 'publish') return chosen.filter(({ state }) => state !== 'live')
  if (act === 'unpublish') return chosen.filter((page) => page.liveSince !== null && !isFixed(page))
  const free = chosen.filter((page) => !isFixed(page))
  return free.filter(
    (page) => !free.some((other) => other !== page && withSubPages(pages, other.id).has(page.id)),
  )
}

function namesOf(pages: readonly PageSummary[]): string {
  return pages.length === 1 ? `“${pages[0]!.title}”` : `${pages.length} pages`
}

function consequence(act: ManyPagesAct, todo: readonly PageSummary[], pages: readonly PageSummary[]): string {
  if (act === 'publish') return 'Visitors will see the saved version. Other pages stay as they are.'
  if (act === 'unpublish')
    return 'Visitors can no longer open it. Everything saved is kept, and can be published again.'
  const subPages = todo.reduce((sum, page) => sum + withSubPages(pages, page.id).size - 1, 0)
  const more = subPages === 0 ? '' : subPages === 1 ? ' with its sub-page' : ` with ${subPages} sub-pages`
  const isLive = todo.some(({ liveSince }) => liveSince !== null)
  return `Everything saved goes to the bin${more} and can be restored from there.${isLive ? ' Visitors can no longer open it.' : ''}`
}
