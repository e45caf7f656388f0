import { useState } from 'react'
import styled from 'styled-components'
import type { Picture, SiteInfo } from '@gullyline/core'
import { useSite } from '../api/hooks.ts'
import { SiteScreen } from '../pages/site-screen.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { FindBox, mono } from '../ui/controls.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { findPictures, PictureGrid } from './picture-grid.tsx'
import { PictureWords, UploadArea } from './upload-area.tsx'
import { ReplaceButton } from './replace-button.tsx'
import { placesOf, Uses, useUses } from './uses.tsx'

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
  if (error && !data) return <Waiting title="The pictures can’t be shown">{error.message}</Waiting>
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
    <SiteScreen siteName={site.name} title="Pictures">
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
    </SiteScreen>
  )
}

function ChosenPicture({ picture, mayChange }: { picture: Picture; mayChange: boolean }) {
  const uses = useUses(`/api/media/${picture.id}/uses`)
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
      <Uses uses={uses} />
      {mayChange && (
        <>
          <h4>
            {!uses || uses.length === 0 ? 'Another file for it' : `Another file for it, ${placesOf(uses)}`}
          </h4>
          <ReplaceButton
            path={`/api/media/${picture.id}/file`}
            label="Replace everywhere"
            accept="image/*,.svg"
            afterSending="Making its sizes…"
          />
        </>
      )}
    </>
  )
}
