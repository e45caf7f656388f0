import type { Picture } from '@gullyline/core'
import { Button } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { SearchedPictures } from './searched-pictures.tsx'

interface PictureDialogProps {
  readonly pictures: Readonly<Record<string, Picture>>
  readonly chosenId: string | undefined
  /** Undefined for no picture at all. */
  readonly onChoose: (id: string | undefined) => void
  readonly onClose: () => void
}

/** A picture of the library, found by name or text, or added. */
export function PictureDialog({ pictures, chosenId, onChoose, onClose }: PictureDialogProps) {
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
      <SearchedPictures
        pictures={pictures}
        chosen={chosenId === undefined ? [] : [chosenId]}
        onChoose={onChoose}
      />
    </Dialog>
  )
}
