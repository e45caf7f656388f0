import { useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'
import styled from 'styled-components'
import type { Picture } from '@gullyline/core'
import { useSite, type Site } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { ListPane, ListTop, Panes, SidePane } from '../site/panes.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { FindBox, mono, Tabs } from '../ui/controls.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { FileTable, findFiles } from './file-table.tsx'
import { findPictures, PictureGrid } from './picture-grid.tsx'
import { ReplaceButton } from './replace-button.tsx'
import { PictureWords, UploadArea } from './upload-area.tsx'
import { placesOf, Uses, useUses } from './uses.tsx'
import { inSite } from '../api/site-address.ts'

const Side = styled(SidePane)`
  img {
    width: 100%;
    max-height: 260px;
    border-radius: 4px;
    object-fit: contain;
    background: var(--panel);
  }
  h3 {
    margin: 6px 0 -6px;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
`
const Measures = styled.p`
  ${mono}
  color: var(--quiet);
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

/** All pictures and files of the site: added, found, described, replaced, and where each is used. */
export function MediaScreen() {
  const { data, error } = useSite()
  const { search } = useLocation()
  return (
    <SiteScreen title="Media">
      {data ? (
        <Library key={search} site={data} />
      ) : (
        <Waiting title={error ? 'The media can’t be shown' : 'Reading the media…'}>{error?.message}</Waiting>
      )}
    </SiteScreen>
  )
}

function Library({ site }: { site: Site }) {
  const mayChange = useMe().role !== 'reviewer'
  // Of its own from then on: choosing a picture or typing is no going to another screen.
  const [params] = useSearchParams()
  const [isFiles, setFiles] = useState(params.get('show') === 'files')
  const [search, setSearch] = useState(params.get('search') ?? '')
  const [chosenId, setChosenId] = useState(params.get('picture') ?? undefined)
  const pictures = findPictures(site.pictures, search)
  const files = findFiles(site.files, search)
  const find = <FindBox label="Search media" placeholder="Search media" value={search} onChange={setSearch} />
  const content = isFiles ? (
    <FileTable files={files} search={search} mayChange={mayChange} />
  ) : pictures.length > 0 ? (
    <PictureGrid
      pictures={pictures}
      chosen={chosenId === undefined ? [] : [chosenId]}
      onChoose={setChosenId}
    />
  ) : (
    <Note>{search === '' ? 'No pictures yet. Drop pictures here.' : `No picture matches “${search}”.`}</Note>
  )
  const chosen = chosenId === undefined ? undefined : site.pictures[chosenId]
  return (
    <Panes data-single={isFiles ? '' : undefined}>
      <ListPane aria-label="Library">
        <ListTop>
          <h1>Media</h1>
          <Tabs
            label="Show"
            value={isFiles ? 'files' : 'pictures'}
            options={[
              ['pictures', `Pictures ${pictures.length}`],
              ['files', `Files ${files.length}`],
            ]}
            onChange={(value) => setFiles(value === 'files')}
          />
        </ListTop>
        {mayChange ? (
          <UploadArea beside={find}>{content}</UploadArea>
        ) : (
          <>
            {find}
            {content}
          </>
        )}
      </ListPane>
      {!isFiles && (
        <Side aria-label="Selected picture">
          {chosen ? (
            <ChosenPicture key={`${chosen.id} ${chosen.fallback}`} picture={chosen} mayChange={mayChange} />
          ) : (
            <Note>Select a picture to see where it is used, describe it, or replace it everywhere.</Note>
          )}
        </Side>
      )}
    </Panes>
  )
}

function ChosenPicture({ picture, mayChange }: { picture: Picture; mayChange: boolean }) {
  const uses = useUses(inSite(`/media/${picture.id}/uses`))
  return (
    <>
      <img src={picture.fallback} alt={picture.alt} />
      <h2>{picture.name}</h2>
      <Measures>
        {picture.width} × {picture.height} px{picture.sources.length === 0 ? ', drawing' : ''}
      </Measures>
      {mayChange && (
        <>
          <h3>Default alternative text</h3>
          <PictureWords picture={picture} />
        </>
      )}
      <h3>Used on</h3>
      <Uses uses={uses} />
      {mayChange && (
        <>
          <h3>{!uses || uses.length === 0 ? 'Replace file' : `Replace file (used ${placesOf(uses)})`}</h3>
          <ReplaceButton
            path={inSite(`/media/${picture.id}/file`)}
            label="Replace everywhere"
            accept="image/*,.svg"
            afterSending="Making its sizes…"
          />
        </>
      )}
    </>
  )
}
