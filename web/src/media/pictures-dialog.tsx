import { useState } from 'react'
import type { Picture } from '@gullyline/core'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { SearchedPictures } from './searched-pictures.tsx'
import { counted } from '../ui/counted.ts'

interface PicturesDialogProps {
  readonly pictures: Readonly<Record<string, Picture>>
  /** In the order in which they were chosen. */
  readonly onChoose: (ids: readonly string[]) => void
  readonly onClose: () => void
}

/** Any number of pictures of the library, found by name or text, or added. */
export function PicturesDialog({ pictures, onChoose, onClose }: PicturesDialogProps) {
  const [chosen, setChosen] = useState<readonly string[]>([])
  const toggle = (id: string): void =>
    setChosen((before) => (before.includes(id) ? before.filter((one) => one !== id) : [...before, id]))
  return (
    <Dialog
      title="Choose pictures"
      isWide
      isForm
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={chosen.length === 0} onPress={() => onChoose(chosen)}>
            Add {counted(chosen.length, 'picture')}
          </MainButton>
        </>
      }
    >
      <SearchedPictures pictures={pictures} chosen={chosen} onChoose={toggle} />
    </Dialog>
  )
}
