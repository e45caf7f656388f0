import { useState } from 'react'
import type { Picture } from '@gullyline/core'
import { Button, FindBox } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { findPictures, PictureGrid } from './picture-grid.tsx'
import { UploadArea } from './upload-area.tsx'

interface PictureDialogProps {
  readonly pictures: Readonly<Record<string, Picture>>
  readonly chosenId: string | undefined
  /** Undefined for no picture at all. */
  readonly onChoose: (id: string | undefined) => void
  readonly onClose: () => void
}

/** A picture of the library, found by name or text, or added. */
export function PictureDialog({ pictures, chosenId, onChoose, onClose }: PictureDialogProps) {
  const [search, setSearch] = useState('')
  const found = findPictures(pictures, search)
  return (
    <Dialog
      title="Choose a picture"
      isWide
      isForm
      onClose={onClose}
      acts={
        <>
          {chosenId !== undefined && <Button onPress={() => onChoose(undefined)}>No picture</Button>}
          <Button onPress={onClose}>Cancel</Button>
        </>
      }
    >
      <UploadArea
        to="pictures"
        beside={
          <FindBox
            label="Search pictures"
            placeholder="Search pictures"
            value={search}
            onChange={setSearch}
            autoFocus
            onEnter={() => search !== '' && found[0] && onChoose(found[0].id)}
          />
        }
      >
        <PictureGrid pictures={found} chosenId={chosenId} onChoose={onChoose} />
      </UploadArea>
    </Dialog>
  )
}
