import { useState } from 'react'
import styled from 'styled-components'
import type { SiteFile, SiteInfo } from '@gullyline/core'
import { useSite } from '../api/hooks.ts'
import { SiteScreen } from '../pages/site-screen.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { FindBox, mono } from '../ui/controls.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { ReplaceButton } from './replace-button.tsx'
import { sizeWords } from './size-words.ts'
import { UploadArea } from './upload-area.tsx'
import { Uses, useUses } from './uses.tsx'

const Work = styled.main`
  padding: 24px 28px;
  overflow: auto;
  h2 {
    margin-bottom: 14px;
    font-size: 18px;
  }
`
const Table = styled.table`
  width: 100%;
  border-spacing: 0;
  th {
    padding: 8px 12px 6px;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
    text-align: left;
  }
  tbody th {
    color: var(--strong);
    font-size: inherit;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  tbody :is(th, td) {
    height: 48px;
    padding: 6px 12px;
    border-top: 1px solid var(--line);
    vertical-align: middle;
  }
  td:last-child {
    text-align: right;
  }
`
const Measure = styled.td`
  ${mono}
  color: var(--quiet);
  white-space: nowrap;
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

/** All files of the site that pages link to: added, found, replaced, and where each is used. */
export function FilesScreen() {
  const { data, error } = useSite()
  if (error && !data) return <Waiting title="The files can’t be shown">{error.message}</Waiting>
  if (!data) return <Waiting title="Reading the files…" />
  return <Files site={data} />
}

function Files({ site }: { site: SiteInfo }) {
  const mayChange = useMe().role !== 'reviewer'
  const [search, setSearch] = useState('')
  const wanted = search.trim().toLowerCase()
  const found = Object.values(site.files).filter(({ name }) => name.toLowerCase().includes(wanted))
  const find = <FindBox label="Find a file" placeholder="Find by name" value={search} onChange={setSearch} />
  const list =
    found.length > 0 ? (
      <Table>
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Kind</th>
            <th scope="col">Size</th>
            <th scope="col">Linked to from</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {found.map((file) => (
            <FileRow key={file.path} file={file} mayChange={mayChange} />
          ))}
        </tbody>
      </Table>
    ) : (
      <Note>
        {search === ''
          ? 'There are no files yet: programmes to print, forms, calendars. Drop some here; links then lead to them.'
          : `No file is called “${search}”.`}
      </Note>
    )
  return (
    <SiteScreen siteName={site.name} title="Files">
      <Work>
        <h2>Files</h2>
        {mayChange ? (
          <UploadArea to="files" beside={find}>
            {list}
          </UploadArea>
        ) : (
          <>
            {find}
            {list}
          </>
        )}
      </Work>
    </SiteScreen>
  )
}

function FileRow({ file, mayChange }: { file: SiteFile; mayChange: boolean }) {
  const uses = useUses(`/api/files/${file.id}/uses`)
  return (
    <tr>
      <th scope="row">
        <a href={file.path} download={file.name}>
          {file.name}
        </a>
      </th>
      <Measure>{file.type.toUpperCase()}</Measure>
      <Measure>{sizeWords(file.bytes)}</Measure>
      <td>
        <Uses uses={uses} />
      </td>
      <td>
        {mayChange && (
          <ReplaceButton
            path={`/api/files/${file.id}/file`}
            label={`Replace ${file.name} everywhere`}
            afterSending="Keeping it…"
          />
        )}
      </td>
    </tr>
  )
}
