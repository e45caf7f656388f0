import styled from 'styled-components'
import type { SiteFile } from '@gullyline/core'
import { mono } from '../ui/controls.tsx'
import { ReplaceButton } from './replace-button.tsx'
import { sizeWords } from './size-words.ts'
import { Uses, useUses } from './uses.tsx'
import { inSite } from '../api/site-address.ts'

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

/** Files whose name has all the words that were typed. */
export function findFiles(files: Readonly<Record<string, SiteFile>>, search: string): SiteFile[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  return Object.values(files).filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
}

interface FileTableProps {
  readonly files: readonly SiteFile[]
  readonly search: string
  readonly mayChange: boolean
}

/** Files that pages link to, each with where it is used and the way to replace it. */
export function FileTable({ files, search, mayChange }: FileTableProps) {
  if (files.length === 0)
    return (
      <Note>
        {search === ''
          ? 'No files yet. Drop files here, for example forms or calendars, and link to them from any page.'
          : `No file matches “${search}”.`}
      </Note>
    )
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Kind</th>
          <th scope="col">Size</th>
          <th scope="col">Used on</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {files.map((file) => (
          <FileRow key={file.path} file={file} mayChange={mayChange} />
        ))}
      </tbody>
    </Table>
  )
}

function FileRow({ file, mayChange }: { file: SiteFile; mayChange: boolean }) {
  const uses = useUses(inSite(`/files/${file.id}/uses`))
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
            path={inSite(`/files/${file.id}/file`)}
            label={`Replace ${file.name} everywhere`}
            afterSending="Saving…"
          />
        )}
      </td>
    </tr>
  )
}
