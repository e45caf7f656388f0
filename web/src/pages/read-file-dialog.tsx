import { useEffect, useRef, useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import styled from 'styled-components'
import {
  LONGEST_DESCRIPTION,
  READ_ENDINGS,
  subtreeIds,
  type OpenedPage,
  type PageSummary,
  type ReadPage,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { refreshPages } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { readPageFile } from '../exchange/read-file.ts'
import { Button, LineField, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { Acts, Note, Rows, Trouble } from '../ui/form-parts.ts'
import { messageOf } from '../ui/message-of.ts'
import { Picker } from '../ui/picker.tsx'
import { inTreeOrder } from './page-order.ts'

const Missed = styled.div`
  max-height: 34vh;
  overflow: auto;
  h3 {
    font-size: 12px;
    font-weight: 600;
  }
`

interface ReadFileDialogProps {
  readonly pages: readonly PageSummary[]
  readonly onClose: () => void
  readonly onAdded: (id: string) => void
}

/** Makes a page of an HTML or Markdown file: what was not understood is listed before anything is added. */
export function ReadFileDialog({ pages, onClose, onAdded }: ReadFileDialogProps) {
  const [read, setRead] = useState<ReadPage>()
  const [title, setTitle] = useState('')
  const [parentId, setParentId] = useState('')
  const [isBusy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const ending = useRef(new AbortController())
  // Made, and not filled yet: tried again, no second page is added.
  const made = useRef<OpenedPage>(undefined)
  useEffect(() => () => ending.current.abort(), [])
  const open = async (file: File): Promise<void> => {
    ending.current = new AbortController()
    const { signal } = ending.current
    setTrouble(undefined)
    setBusy(true)
    try {
      const found = await readPageFile(file, signal)
      setRead(found)
      setTitle(found.title)
    } catch (error) {
      if (!signal.aborted) setTrouble(messageOf(error))
    }
    setBusy(false)
  }
  const add = async (): Promise<void> => {
    if (!read) return
    setTrouble(undefined)
    setBusy(true)
    try {
      made.current ??= await request<OpenedPage>(inSite('/pages'), {
        method: 'POST',
        body: { title, parentId: parentId || null },
      })
      await fillPage(made.current, read)
      onAdded(made.current.summary.id)
    } catch (error) {
      setTrouble(messageOf(error))
      setBusy(false)
    }
  }
  const blocks = read ? subtreeIds(read.page, read.page.root).length - 1 : 0
  return (
    <Dialog
      title="Add page from a file"
      onClose={onClose}
      isWide
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          {read && (
            <MainButton isDisabled={isBusy || title.trim() === '' || blocks === 0} onPress={() => void add()}>
              Add page
            </MainButton>
          )}
        </>
      }
    >
      <p>HTML and Markdown files become blocks by what their parts mean; their styles are left out.</p>
      <Acts>
        <FileTrigger
          acceptedFileTypes={READ_ENDINGS.map((one) => `.${one}`)}
          onSelect={(files) => {
            const file = files?.[0]
            if (file) void open(file)
          }}
        >
          <Button isDisabled={isBusy}>{read ? 'Choose another file…' : 'Choose a file…'}</Button>
        </FileTrigger>
      </Acts>
      {isBusy && <Note role="status">{read ? 'Adding the page…' : 'Reading the file…'}</Note>}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      {read && (
        <>
          <LineField label="Title" value={title} onChange={setTitle} />
          <Picker
            label="Parent page"
            isLabelShown
            options={[
              { id: '', title: 'Top level', detail: '/' },
              ...inTreeOrder(pages).map(({ page }) => ({
                id: page.id,
                title: page.title,
                detail: page.path,
              })),
            ]}
            value={parentId}
            onChange={setParentId}
          />
          <Note role="status">
            {blocks === 0
              ? 'There is nothing in this file that a page could say.'
              : `It becomes ${blocks} blocks.`}
          </Note>
          {read.notUnderstood.length > 0 && (
            <Missed tabIndex={0} role="group" aria-label="What was not taken over">
              <h3>What was not taken over</h3>
              <Rows>
                {read.notUnderstood.map(({ what, count, kept }) => (
                  <li key={what}>
                    <span>
                      <strong>
                        {what}
                        {count > 1 && ` (${count} times)`}
                      </strong>
                      <small>{kept}</small>
                    </span>
                  </li>
                ))}
              </Rows>
            </Missed>
          )}
        </>
      )}
    </Dialog>
  )
}

/** Saves what was read as the content of a new page. */
async function fillPage({ summary, document }: OpenedPage, read: ReadPage): Promise<void> {
  const [own, came] = [document.nodes[document.root]!, read.page.nodes[read.page.root]!]
  const nodes = { ...read.page.nodes }
  delete nodes[read.page.root]
  const description =
    read.description === '' ? {} : { description: read.description.slice(0, LONGEST_DESCRIPTION) }
  const root = { ...own, content: { ...own.content, ...description }, slots: { ...own.slots, ...came.slots } }
  await request(inSite(`/pages/${summary.id}/document`), {
    method: 'PUT',
    body: {
      base: summary.version,
      document: { ...document, nodes: { ...nodes, [document.root]: root } },
      journal: null,
    },
  })
  await refreshPages()
}
