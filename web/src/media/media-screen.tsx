import { ChevronRight } from 'lucide-react'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import useSWR, { mutate } from 'swr'
import styled from 'styled-components'
import type { Picture, PictureUse, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { useSite } from '../api/hooks.ts'
import { Bar, Crumbs } from '../editor/top-bar.tsx'
import { MeButton } from '../people/me-button.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button, FindBox, mono } from '../ui/controls.tsx'
import { Mark } from '../ui/mark.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { findPictures, PictureGrid } from './picture-grid.tsx'
import { PictureWords, UploadArea } from './upload-area.tsx'
import { sendFile } from './uploads.ts'

const Screen = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
`
const Work = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  min-height: 0;
`
const Pane = styled.section`
  padding: 24px 28px;
  overflow: auto;
  h2 {
    margin-bottom: 14px;
    font-size: 18px;
  }
`
const Side = styled.aside`
  display: grid;
  gap: 12px;
  align-content: start;
  padding: 24px;
  overflow: auto;
  border-left: 1px solid var(--line);
  img {
    width: 100%;
    max-height: 260px;
    border-radius: 4px;
    object-fit: contain;
    background: var(--panel);
  }
  h3 {
    font-size: 14px;
    overflow-wrap: anywhere;
  }
  h4 {
    margin: 6px 0 -6px;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
  ul {
    display: grid;
    gap: 4px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
`
const Measures = styled.p`
  ${mono}
  color: var(--quiet);
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
  &[role='alert'] {
    color: var(--clay);
  }
`

/** All pictures of the site: added, found, described, replaced, and where each is used. */
export function MediaScreen() {
  const { data, error } = useSite()
  if (error) return <Waiting title="The pictures can’t be shown">{error.message}</Waiting>
  if (!data) return <Waiting title="Reading the pictures…" />
  return <Library site={data} />
}

function Library({ site }: { site: SiteInfo }) {
  const mayChange = useMe().role !== 'reviewer'
  const [search, setSearch] = useState('')
  const [chosenId, setChosenId] = useState<string>()
  const found = findPictures(site.pictures, search)
  const chosen = chosenId === undefined ? undefined : site.pictures[chosenId]
  const find = (
    <FindBox label="Find a picture" placeholder="Find by name or words" value={search} onChange={setSearch} />
  )
  const grid =
    found.length > 0 ? (
      <PictureGrid pictures={found} chosenId={chosenId} onChoose={setChosenId} />
    ) : (
      <Note>
        {search === '' ? 'There are no pictures yet: drop some here.' : `No picture is called “${search}”.`}
      </Note>
    )
  return (
    <Screen>
      <Bar>
        <Mark />
        <Crumbs aria-label="Where you are">
          <Link to="/">{site.name}</Link>
          <ChevronRight size={15} color="var(--quiet)" aria-hidden="true" />
          <h1>Pictures</h1>
        </Crumbs>
        <div style={{ marginLeft: 'auto' }}>
          <MeButton />
        </div>
      </Bar>
      <Work>
        <Pane aria-label="Library">
          <h2>Pictures</h2>
          {mayChange ? (
            <UploadArea beside={find}>{grid}</UploadArea>
          ) : (
            <>
              {find}
              {grid}
            </>
          )}
        </Pane>
        <Side aria-label="The chosen picture">
          {chosen ? (
            <ChosenPicture key={`${chosen.id} ${chosen.fallback}`} picture={chosen} mayChange={mayChange} />
          ) : (
            <Note>
              Choose a picture to see where it is used, to describe it, or to replace it everywhere.
            </Note>
          )}
        </Side>
      </Work>
    </Screen>
  )
}

function ChosenPicture({ picture, mayChange }: { picture: Picture; mayChange: boolean }) {
  const path = `/api/media/${picture.id}/uses`
  const { data: uses } = useSWR<PictureUse[], Error>(path, (asked: string) => request<PictureUse[]>(asked))
  return (
    <>
      <img src={picture.fallback} alt={picture.alt} />
      <h3>{picture.name}</h3>
      <Measures>
        {picture.width} × {picture.height} px{picture.sources.length === 0 ? ', drawing' : ''}
      </Measures>
      {mayChange && (
        <>
          <h4>Alternative text, wherever a page gives none of its own</h4>
          <PictureWords picture={picture} />
        </>
      )}
      <h4>Where it is used</h4>
      {uses && uses.length > 0 && (
        <ul>
          {uses.map((use) => (
            <li key={use.pageId}>
              <Link to={`/pages/${use.pageId}`}>{use.title}</Link>
              {use.count > 1 ? ` (${use.count} times)` : ''}
            </li>
          ))}
        </ul>
      )}
      {uses?.length === 0 && <Note>On no page yet.</Note>}
      {mayChange && <Replace picture={picture} uses={uses?.length ?? 0} />}
    </>
  )
}

function Replace({ picture, uses }: { picture: Picture; uses: number }) {
  const input = useRef<HTMLInputElement>(null)
  const [share, setShare] = useState<number>()
  const [trouble, setTrouble] = useState<string>()
  const replace = async (file: File): Promise<void> => {
    setTrouble(undefined)
    setShare(0)
    const { answer } = sendFile('PUT', `/api/media/${picture.id}/file`, file, setShare)
    const result = await answer
    setShare(undefined)
    if (result.type === 'refused') setTrouble(result.message)
    else await mutate('/api/site')
  }
  return (
    <>
      <h4>
        {uses === 0
          ? 'Another file for it'
          : `Another file for it, on ${uses === 1 ? 'one page' : `${uses} pages`}`}
      </h4>
      <Button isDisabled={share !== undefined} onPress={() => input.current?.click()}>
        {share === undefined ? 'Replace everywhere…' : share < 1 ? 'Sending…' : 'Making its sizes…'}
      </Button>
      <input
        ref={input}
        hidden
        type="file"
        accept="image/*,.svg"
        aria-label="File to replace it with"
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void replace(file)
          event.target.value = ''
        }}
      />
      {trouble && <Note role="alert">{trouble}</Note>}
    </>
  )
}
