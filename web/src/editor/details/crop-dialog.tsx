import { useState } from 'react'
import ReactCrop, { type PercentCrop } from 'react-image-crop'
import 'react-image-crop/dist/ReactCrop.css'
import styled from 'styled-components'
import type { Crop, Picture } from '@gullyline/core'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'

const Row = styled.div`
  display: flex;
  justify-content: center;
  img {
    max-width: 100%;
    max-height: 46vh;
  }
`
const Focusable = styled.button`
  position: relative;
  display: block;
  padding: 0;
  border: 0;
  background: none;
  cursor: crosshair;
  i {
    position: absolute;
    left: var(--x);
    top: var(--y);
    width: 22px;
    height: 22px;
    margin: -11px 0 0 -11px;
    border: 3px solid #fff;
    border-radius: 50%;
    background: rgb(10 108 124 / 60%);
    box-shadow: 0 0 0 1.5px #0a6c7c;
    pointer-events: none;
  }
`
const Tabs = styled.div`
  display: flex;
  gap: 6px;
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

interface Shown {
  readonly focus?: { readonly x: number; readonly y: number }
  readonly crop?: Crop
}

interface CropDialogProps {
  readonly picture: Picture
  readonly value: Shown
  readonly onKeep: (value: Shown) => void
  readonly onClose: () => void
}

/** Which part of a picture is shown here, and which point of it stays in view in frames of other shapes. The file itself stays as it is. */
export function CropDialog({ picture, value, onKeep, onClose }: CropDialogProps) {
  const [what, setWhat] = useState<'crop' | 'focus'>('crop')
  // As it is drawn: it begins without any size, and the drawing goes on from that.
  const [drawn, setDrawn] = useState<PercentCrop | undefined>(value.crop && { unit: '%', ...value.crop })
  const [focus, setFocus] = useState(value.focus)
  const crop = drawn && toCrop(drawn, picture.width / picture.height)
  const keep = (): void => onKeep({ ...(focus ? { focus } : {}), ...(crop ? { crop } : {}) })
  return (
    <Dialog
      title="Crop and focus"
      isWide
      onClose={onClose}
      acts={
        <>
          <Button
            onPress={() => {
              setDrawn(undefined)
              setFocus(undefined)
            }}
          >
            Show the whole picture
          </Button>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton onPress={keep}>Apply</MainButton>
        </>
      }
    >
      <Tabs role="group" aria-label="Crop or focus">
        <Button aria-pressed={what === 'crop'} onPress={() => setWhat('crop')}>
          Crop
        </Button>
        <Button aria-pressed={what === 'focus'} onPress={() => setWhat('focus')}>
          Focus point
        </Button>
        {what === 'crop' && !crop && <Button onPress={() => setDrawn(MIDDLE)}>Crop to the middle</Button>}
      </Tabs>
      <Row>
        {what === 'crop' ? (
          <ReactCrop
            {...(drawn ? { crop: drawn } : {})}
            minWidth={20}
            minHeight={20}
            ariaLabels={CROP_WORDS}
            onChange={(_pixels, percent) => setDrawn(percent)}
          >
            <img src={picture.fallback} alt={picture.alt} />
          </ReactCrop>
        ) : (
          <FocusChooser picture={picture} focus={focus ?? { x: 50, y: 50 }} onChange={setFocus} />
        )}
      </Row>
      <Note>
        {what === 'crop'
          ? 'Drag over the picture, or move the edges. A frame of another shape shows as much of this part as it can.'
          : 'Press the point, or move it with the arrow keys. Where a frame cuts something off, what is around it stays.'}
      </Note>
    </Dialog>
  )
}

/** Without a pointer nothing can be drawn, but this can be moved and resized by keys. */
const MIDDLE: PercentCrop = { unit: '%', x: 10, y: 10, width: 80, height: 80 }

const CROP_WORDS = {
  cropArea: 'The part that is shown: move it with the arrow keys',
  nwDragHandle: 'Upper left corner',
  nDragHandle: 'Upper edge',
  neDragHandle: 'Upper right corner',
  eDragHandle: 'Right edge',
  seDragHandle: 'Lower right corner',
  sDragHandle: 'Lower edge',
  swDragHandle: 'Lower left corner',
  wDragHandle: 'Left edge',
}

/** In tenths of a percent; a part too small to be meant is none. */
function toCrop({ x, y, width, height }: PercentCrop, shape: number): Crop | undefined {
  const tenth = (value: number): number => Math.round(value * 10) / 10
  const isAll = width > 99 && height > 99
  if (width < 1 || height < 1 || isAll) return undefined
  return {
    x: Math.min(99, tenth(x)),
    y: Math.min(99, tenth(y)),
    width: tenth(width),
    height: tenth(height),
    shape: Math.round(shape * 1000) / 1000,
  }
}

interface FocusChooserProps {
  readonly picture: Picture
  readonly focus: { readonly x: number; readonly y: number }
  readonly onChange: (focus: { x: number; y: number }) => void
}

const STEPS: Readonly<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

function FocusChooser({ picture, focus, onChange }: FocusChooserProps) {
  const within = (value: number): number => Math.round(Math.min(100, Math.max(0, value)))
  return (
    <Focusable
      type="button"
      aria-label={`Focus point: ${focus.x} % from the left, ${focus.y} % from the top`}
      onClick={(event) => {
        // Pressed by a key, it has no point.
        if (event.detail === 0) return
        const box = event.currentTarget.getBoundingClientRect()
        const x = within(((event.clientX - box.left) / box.width) * 100)
        onChange({ x, y: within(((event.clientY - box.top) / box.height) * 100) })
      }}
      onKeyDown={(event) => {
        const step = STEPS[event.key]
        if (!step) return
        event.preventDefault()
        onChange({ x: within(focus.x + step[0]), y: within(focus.y + step[1]) })
      }}
      style={{ '--x': `${focus.x}%`, '--y': `${focus.y}%` }}
    >
      <img src={picture.fallback} alt={picture.alt} />
      <i />
    </Focusable>
  )
}
