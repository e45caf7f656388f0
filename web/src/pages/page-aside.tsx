import { useState } from 'react'
import styled from 'styled-components'
import { Link } from 'react-router'
import { WRITTEN_FORMATS, type PageSummary, type WrittenFormat } from '@gullyline/core'
import { usePageDocument, type Site } from '../api/hooks.ts'
import { contourBackdrop } from '../editor/canvas/contours.ts'
import { Button } from '../ui/controls.tsx'
import { later } from '../ui/later.ts'
import { messageOf } from '../ui/message-of.ts'
import { TYPING_PAUSE_MS, useLater } from '../ui/use-later.ts'
import { when } from '../ui/when.ts'
import { PagePicture } from './page-picture.tsx'
import type { RowActs } from './page-row.tsx'

const Side = styled.aside`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 12px;
  min-height: 0;
  padding: 20px 22px;
  overflow: hidden;
  border-left: 1px solid var(--line);
  ${contourBackdrop}
  h2 {
    overflow: hidden;
    font-size: 14px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  @media (max-width: 1060px) {
    display: none;
  }
`
const State = styled.div`
  display: grid;
  gap: 10px;
`
const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  > span {
    color: var(--quiet);
    font-size: 12px;
  }
`
const Edit = styled(Link)`
  display: inline-flex;
  align-items: center;
  height: 30px;
  padding: 0 14px;
  border-radius: 5px;
  background: var(--accent);
  color: var(--onAccent);
  font-weight: 550;
  text-decoration: none;
`

const writing = later(() => import('../exchange/save-written.ts'))

const FORMAT_WORDS: Readonly<Record<WrittenFormat, string>> = {
  html: 'HTML',
  markdown: 'Markdown',
  json: 'JSON',
}

interface PageAsideProps {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly page: PageSummary
  readonly acts: RowActs
  readonly mayChange: boolean
}

/** The page as it was last saved, what visitors see of it, and what can be done about that. */
export function PageAside({ site, pages, page, acts, mayChange }: PageAsideProps) {
  // Going through the list by keys draws no page that is passed.
  const shown = useLater(page, TYPING_PAUSE_MS)
  const can = acts.can(page)
  const { data: opened } = usePageDocument(shown.id)
  const [told, setTold] = useState<{ readonly id: string; readonly words: string }>()
  const save = async (format: WrittenFormat): Promise<void> => {
    if (!opened || shown.id !== page.id) return
    const words = await writing
      .load()
      .then(({ saveWritten }) => `Saved ${saveWritten({ site, pages, page, opened }, format)}`, messageOf)
    setTold({ id: page.id, words })
  }
  return (
    <Side aria-label="Preview of the saved page">
      <h2>{page.title}</h2>
      <PagePicture key={shown.id} site={site} pages={pages} page={shown} />
      <State>
        <p>{stateWords(page)}</p>
        <Acts>
          <Edit to={`/pages/${page.id}`}>{mayChange ? 'Edit' : 'Open'}</Edit>
          {can.has('publish') && <Button onPress={() => acts.act(page, 'publish')}>Publish…</Button>}
          {can.has('unpublish') && <Button onPress={() => acts.act(page, 'unpublish')}>Unpublish…</Button>}
        </Acts>
        <Acts role="group" aria-label="Save a copy as">
          <span>Save a copy as</span>
          {WRITTEN_FORMATS.map((format) => (
            <Button
              key={format}
              isDisabled={!opened || shown.id !== page.id}
              onPress={() => void save(format)}
            >
              {FORMAT_WORDS[format]}
            </Button>
          ))}
        </Acts>
        {told?.id === page.id && <p role="status">{told.words}</p>}
      </State>
    </Side>
  )
}

function stateWords({ state, liveSince, savedAt, savedBy }: PageSummary): string {
  const saved = `Saved ${when(savedAt)} by ${savedBy}.`
  if (liveSince === null) return `Draft: visitors can’t see it yet. ${saved}`
  return state === 'live'
    ? `Live since ${when(liveSince)}. ${saved}`
    : `Visitors see an older version, live since ${when(liveSince)}. ${saved}`
}
