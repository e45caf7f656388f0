import { useState } from 'react'
import styled from 'styled-components'
import { mutate } from 'swr'
import {
  defaultRegistry,
  type BinnedPage,
  type PageDocument,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { useBin } from '../api/hooks.ts'
import { viewSite } from '../editor/site-view.ts'
import { ActionRows } from '../ui/action-rows.tsx'
import { Button, fieldBox, LineField, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { useDraft } from '../ui/drafts.ts'
import { messageOf } from '../ui/message-of.ts'
import { TYPING_PAUSE_MS, useLater } from '../ui/use-later.ts'
import { when } from '../ui/when.ts'
import { inTreeOrder } from './page-order.ts'
import { PictureChoice, useTemplateOptions } from './template-choice.tsx'

const Choice = styled.label`
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
  select {
    ${fieldBox}
  }
`
const Trouble = styled.p`
  color: var(--clay);
`
const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
`
const Flag = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
`

interface Act {
  readonly run: () => void
  readonly isBusy: boolean
  readonly trouble: string | undefined
}

/** An act on the server that may be refused: what is typed stays, and the reason is shown. */
function useAct(act: () => Promise<void>): Act {
  const [isBusy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const run = (): void => {
    setBusy(true)
    setTrouble(undefined)
    act()
      .catch((error: unknown) => setTrouble(messageOf(error)))
      .finally(() => setBusy(false))
  }
  return { run, isBusy, trouble }
}

interface AddPageDialogProps {
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  /** The page that it is to stand under; null for the top. */
  readonly under: string | null
  readonly onClose: () => void
  readonly onAdded: (id: string) => void
}

export function AddPageDialog({ site, pages, under, onClose, onAdded }: AddPageDialogProps) {
  // Closed by mistake, it has the title again when it is opened.
  const draft = useDraft({
    name: 'new-page.title',
    label: 'Title of the new page',
    saved: '',
    save: () => Promise.resolve(false),
  })
  const title = draft.text
  const [parentId, setParentId] = useState(under ?? '')
  const [template, setTemplate] = useState('plain')
  // Nine pictures are not drawn again for every letter.
  const options = useTemplateOptions(useLater(title, TYPING_PAUSE_MS))
  const [context] = useState(() => viewSite(site, pages, pages[0]!, defaultRegistry).renderer.context)
  const add = useAct(async () => {
    const body = { title, parentId: parentId || null, template }
    const { summary } = await request<PageDocument>('/api/pages', { method: 'POST', body })
    await mutate('/api/pages')
    draft.reset()
    onAdded(summary.id)
  })
  return (
    <Form
      title="Add a page"
      act={add}
      word="Add and open"
      isReady={title.trim() !== ''}
      onClose={onClose}
      onCancel={draft.reset}
      isWide
    >
      <Two>
        <LineField label="Title" value={title} onChange={draft.setText} autoFocus />
        <Choice>
          Under
          <select value={parentId} onChange={(event) => setParentId(event.target.value)}>
            <option value="">The site itself</option>
            {inTreeOrder(pages).map(({ page, depth }) => (
              <option key={page.id} value={page.id}>
                {'\u2003'.repeat(depth)}
                {page.title}
              </option>
            ))}
          </select>
        </Choice>
      </Two>
      <PictureChoice
        label="Template"
        options={options}
        site={site}
        context={context}
        value={template}
        onChange={setTemplate}
      />
    </Form>
  )
}

/** What the site's keeper allows on its pages. */
export function RulesDialog({ site, onClose }: { site: SiteInfo; onClose: () => void }) {
  const [ownValues, setOwnValues] = useState(site.look.ownValues === true)
  const keep = useAct(async () => {
    await request('/api/site/rules', { method: 'PUT', body: { ownValues } })
    await mutate('/api/site')
    onClose()
  })
  return (
    <Form title="Rules of this site" act={keep} word="Keep" isReady onClose={onClose}>
      <Flag>
        <input type="checkbox" checked={ownValues} onChange={(event) => setOwnValues(event.target.checked)} />
        Measures and colours outside the look
      </Flag>
      <p>
        {ownValues
          ? 'Editors may give a block a measure or a background of its own. Each is marked, and listed as a warning.'
          : 'Blocks take their measures and colours from the look alone. A page that has others can be saved, and not published.'}
      </p>
    </Form>
  )
}

export function RenamePageDialog({ page, onClose }: { page: PageSummary; onClose: () => void }) {
  const draft = useDraft({
    name: `title.${page.id}`,
    label: `Title of “${page.title}”`,
    saved: page.title,
    save: async (title, base) => {
      await request(`/api/pages/${page.id}`, { method: 'PATCH', body: { title, was: { title: base } } })
      await mutate('/api/pages')
      return true
    },
  })
  const rename = useAct(async () => {
    if (await draft.save()) onClose()
  })
  return (
    <Form
      title={`Rename “${page.title}”`}
      act={rename}
      word="Rename"
      isReady={draft.text.trim() !== ''}
      onClose={onClose}
      onCancel={draft.reset}
    >
      <LineField label="Title" value={draft.text} onChange={draft.setText} autoFocus />
      {draft.theirs !== undefined && (
        <p role="alert">Somebody else renamed it to “{draft.theirs}” meanwhile.</p>
      )}
      <p>Its address stays {page.path}, so links to it go on working.</p>
    </Form>
  )
}

interface CopyPageDialogProps {
  readonly page: PageSummary
  readonly subPages: number
  readonly onClose: () => void
}

export function CopyPageDialog({ page, subPages, onClose }: CopyPageDialogProps) {
  const [withSubPages, setWithSubPages] = useState(subPages > 0)
  const copy = useAct(async () => {
    await request(`/api/pages/${page.id}/copy`, { method: 'POST', body: { withSubPages } })
    await mutate('/api/pages')
    onClose()
  })
  return (
    <Form title={`Duplicate “${page.title}”`} act={copy} word="Duplicate" isReady onClose={onClose}>
      <p>
        The copy stands after it, as it was last saved, with an address of its own. Visitors don’t see it yet.
      </p>
      {subPages > 0 && (
        <Flag>
          <input
            type="checkbox"
            checked={withSubPages}
            onChange={(event) => setWithSubPages(event.target.checked)}
          />
          {subPages === 1 ? 'With its sub-page' : `With its ${subPages} sub-pages`}
        </Flag>
      )}
    </Form>
  )
}

interface RemovePageDialogProps {
  readonly page: PageSummary
  readonly subPages: number
  readonly onClose: () => void
}

export function RemovePageDialog({ page, subPages, onClose }: RemovePageDialogProps) {
  const remove = useAct(async () => {
    await request(`/api/pages/${page.id}`, { method: 'DELETE' })
    await Promise.all([mutate('/api/pages'), mutate('/api/bin')])
    onClose()
  })
  const more = subPages === 0 ? '' : subPages === 1 ? ' and its sub-page' : ` and its ${subPages} sub-pages`
  return (
    <Form title={`Remove “${page.title}”?`} act={remove} word="Move to the bin" isReady onClose={onClose}>
      <p>
        It{more} goes to the bin, with everything that was saved, and can be brought back from there.
        {page.liveSince === null ? '' : ' Visitors no longer find it.'}
      </p>
    </Form>
  )
}

/** What was removed, each with the way back. */
export function BinDialog({ mayChange, onClose }: { mayChange: boolean; onClose: () => void }) {
  const { data = [] } = useBin()
  return (
    <Dialog title="Bin" onClose={onClose} acts={<Button onPress={onClose}>Close</Button>}>
      {data.length === 0 ? (
        <p>The bin is empty. Pages that are removed are kept here.</p>
      ) : (
        <ActionRows>
          {data.map((page) => (
            <BinnedLine key={page.id} page={page} mayChange={mayChange} />
          ))}
        </ActionRows>
      )}
    </Dialog>
  )
}

function BinnedLine({ page, mayChange }: { page: BinnedPage; mayChange: boolean }) {
  const restore = useAct(async () => {
    await request(`/api/pages/${page.id}/restore`, { method: 'POST', body: {} })
    await Promise.all([mutate('/api/pages'), mutate('/api/bin')])
  })
  const more =
    page.subPages === 0
      ? ''
      : page.subPages === 1
        ? ', with one sub-page'
        : `, with ${page.subPages} sub-pages`
  return (
    <li>
      <div>
        {page.title}
        <small>
          {page.path}, removed {when(page.binnedAt, new Date())}
          {more}
        </small>
        {restore.trouble && <Trouble role="alert">{restore.trouble}</Trouble>}
      </div>
      {mayChange && (
        <Button aria-label={`Bring ${page.title} back`} isDisabled={restore.isBusy} onPress={restore.run}>
          Bring back
        </Button>
      )}
    </li>
  )
}

interface FormProps {
  readonly title: string
  readonly act: Act
  readonly word: string
  readonly isReady: boolean
  readonly isWide?: boolean
  readonly onClose: () => void
  /** Drops what was typed; closing by Escape does not. */
  readonly onCancel?: () => void
  readonly children: React.ReactNode
}

function Form({ title, act, word, isReady, isWide = false, onClose, onCancel, children }: FormProps) {
  const cancel = (): void => {
    onCancel?.()
    onClose()
  }
  return (
    <Dialog
      title={title}
      onClose={onClose}
      isWide={isWide}
      isForm
      acts={
        <>
          <Button onPress={cancel}>Cancel</Button>
          <MainButton isDisabled={!isReady || act.isBusy} onPress={act.run}>
            {word}
          </MainButton>
        </>
      }
    >
      <form
        style={{ display: 'grid', gap: 12 }}
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady) act.run()
        }}
      >
        {children}
      </form>
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
    </Dialog>
  )
}
