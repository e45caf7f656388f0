import { useState } from 'react'
import type { Picture } from '@gullyline/core'
import { FindBox } from '../ui/controls.tsx'
import { findPictures, PictureGrid } from './picture-grid.tsx'
import { UploadArea } from './upload-area.tsx'

interface SearchedPicturesProps {
  readonly pictures: Readonly<Record<string, Picture>>
  readonly chosen: readonly string[]
  readonly onChoose: (id: string) => void
}

/** Pictures of the library to choose from, found by name or text, or added. Enter in the search chooses the first found. */
export function SearchedPictures({ pictures, chosen, onChoose }: SearchedPicturesProps) {
  const [search, setSearch] = useState('')
  const found = findPictures(pictures, search)
  const chooseFirst = (field: HTMLInputElement): void => {
    if (search === '' || !found[0]) return
    onChoose(found[0].id)
    // The next one is searched by typing over it.
    field.select()
  }
  return (
    <UploadArea
      to="pictures"
      beside={
        <FindBox
          label="Search pictures"
          placeholder="Search pictures"
          value={search}
          onChange={setSearch}
          autoFocus
          onEnter={chooseFirst}
        />
      }
    >
      <PictureGrid pictures={found} chosen={chosen} onChoose={onChoose} />
    </UploadArea>
  )
}
