import { useId, useMemo, useState } from 'react'
import styled from 'styled-components'
import { screenRegistry, type PageDocument, type PageSummary } from '@gullyline/core'
import { request } from '../api/client.ts'
import { documentsOf, refreshPages, useParts, type Site } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { viewSite } from '../editor/session/site-view.ts'
import { Button, LineField, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { useDraft } from '../ui/drafts.ts'
import { Picker } from '../ui/picker.tsx'
import { useAct, type Act } from '../ui/use-act.ts'
import { TYPING_PAUSE_MS, useLater } from '../ui/use-later.ts'
import { inTreeOrder } from './page-order.ts'
import { PictureChoice, useTemplateOptions } from './template-choice.tsx'

const Trouble = styled.p`
  color: var(--clay);
`
const Two = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(200px, 100%), 1fr));
  gap: 12px;
`
const Flag = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
`

interface AddPageDialogProps {
  readonly site: Site
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
  const { data: parts } = useParts()
  const context = useMemo(() => {
    const withParts = { ...site, parts: documentsOf(parts ?? []) }
    return viewSite(withParts, pages, pages[0]!, screenRegistry).context
  }, [site, pages, parts])
  const add = useAct(async () => {
    const body = { title, parentId: parentId || null, template }
    const { summary } = await request<PageDocument>(inSite('/pages'), { method: 'POST', body })
    await refreshPages()
    draft.taken(title)
    onAdded(summary.id)
  })
  return (
    <Form
      title="Add page"
      act={add}
      word="Add page"
      isReady={title.trim() !== ''}
      onClose={onClose}
      onCancel={draft.reset}
      isWide
    >
      <Two>
        <LineField label="Title" value={title} onChange={draft.setText} autoFocus />
        <Picker
          label="Parent page"
          isLabelShown
          options={[
            { id: '', title: 'Top level', detail: '/' },
            ...inTreeOrder(pages).map(({ page }) => ({ id: page.id, title: page.title, detail: page.path })),
          ]}
          value={parentId}
          onChange={setParentId}
        />
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

export function RenamePageDialog({ page, onClose }: { page: PageSummary; onClose: () => void }) {
  const draft = useDraft({
    name: `title.${page.id}`,
    label: `Title of “${page.title}”`,
    saved: page.title,
    save: async (title, base) => {
      await request(inSite(`/pages/${page.id}`), { method: 'PATCH', body: { title, was: { title: base } } })
      await refreshPages()
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
        <p role="alert">Someone else renamed it to “{draft.theirs}” in the meantime.</p>
      )}
      <p>The address stays {page.path}, so links to it keep working.</p>
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
    await request(inSite(`/pages/${page.id}/copy`), { method: 'POST', body: { withSubPages } })
    await refreshPages()
    onClose()
  })
  return (
    <Form title={`Duplicate “${page.title}”`} act={copy} word="Duplicate" isReady onClose={onClose}>
      <p>
        The copy is added after the page, as last saved, with its own address. It is a draft until you publish
        it.
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
  const id = useId()
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
          <MainButton type="submit" form={id} isDisabled={!isReady || act.isBusy}>
            {word}
          </MainButton>
        </>
      }
    >
      <form
        id={id}
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
