import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Crop, JsonObject } from '@gullyline/core'
import { thumbnail } from '../../media/thumbnail.ts'
import { Button } from '../../ui/controls.tsx'
import { later } from '../../ui/later.ts'
import { LaterDialog, LaterTypedDialog } from '../../ui/later-part.tsx'
import { useSiteView } from '../session/site-view.ts'
import { MAIN_SETTING } from './main-setting.ts'

const Chosen = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  img {
    width: 44px;
    height: 30px;
    border-radius: 3px;
    object-fit: cover;
  }
`

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`

const pictureDialog = later(() => import('../../media/picture-dialog.tsx'))
const cropDialog = later(() => import('./crop-dialog.tsx'))

interface MediaFieldProps {
  readonly label: string
  readonly value: JsonObject | undefined
  readonly onChange: (value: JsonObject | undefined) => void
  /** Whether this use shows a part of the picture that can be chosen. */
  readonly hasFocus?: boolean
}

/** A picture of the library, chosen by looking at it. */
export function MediaField({ label, value, onChange, hasFocus = false }: MediaFieldProps) {
  const { site } = useSiteView()
  const [isOpen, setOpen] = useState(false)
  const [isFocusing, setFocusing] = useState(false)
  // There before it is asked for: its search field is typed into at once.
  useEffect(() => void pictureDialog.load().catch(() => undefined), [])
  const picture = typeof value?.id === 'string' ? site.pictures[value.id] : undefined
  const focus = value?.focus as { x: number; y: number } | undefined
  return (
    <Chosen>
      {picture && <img src={thumbnail(picture)} alt={picture.alt} />}
      <Acts>
        <Button
          {...MAIN_SETTING}
          onPress={() => setOpen(true)}
          aria-label={`${label}: ${picture ? 'replace' : 'choose'}`}
        >
          {picture ? 'Replace' : 'Choose…'}
        </Button>
        {picture && hasFocus && (
          <Button onPress={() => setFocusing(true)} aria-label={`${label}: crop and focus`}>
            Crop…
          </Button>
        )}
      </Acts>
      {isOpen && (
        <LaterTypedDialog code={pictureDialog} onClose={() => setOpen(false)}>
          {({ PictureDialog }) => (
            <PictureDialog
              pictures={site.pictures}
              chosenId={picture?.id}
              onChoose={(id) => {
                onChange(id === undefined ? undefined : { id })
                setOpen(false)
              }}
              onClose={() => setOpen(false)}
            />
          )}
        </LaterTypedDialog>
      )}
      {isFocusing && picture && (
        <LaterDialog code={cropDialog} onClose={() => setFocusing(false)}>
          {({ CropDialog }) => (
            <CropDialog
              picture={picture}
              value={{
                ...(focus ? { focus } : {}),
                ...(value?.crop ? { crop: value.crop as unknown as Crop } : {}),
              }}
              onKeep={(next) => {
                onChange({ id: picture.id, ...(next as unknown as JsonObject) })
                setFocusing(false)
              }}
              onClose={() => setFocusing(false)}
            />
          )}
        </LaterDialog>
      )}
    </Chosen>
  )
}
