import { useState } from 'react'
import {
  ColorArea,
  ColorField,
  ColorPicker,
  ColorSlider,
  ColorThumb,
  Input,
  Label,
  NumberField,
  SliderTrack,
} from 'react-aria-components'
import styled from 'styled-components'
import { isOwnMeasure, leastContrast, ownSurface, type Look } from '@gullyline/core'
import { Button, fieldBox, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'

const Field = styled.div`
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
  input {
    ${fieldBox}
  }
`
const Picker = styled.div`
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
`
const Stack = styled.div`
  display: grid;
  gap: 10px;
`
const Area = styled(ColorArea)`
  width: 200px;
  height: 140px;
  border-radius: 4px;
`
const Track = styled(SliderTrack)`
  height: 20px;
  border-radius: 10px;
`
const Thumb = styled(ColorThumb)`
  width: 18px;
  height: 18px;
  border: 2px solid #fff;
  border-radius: 50%;
  box-shadow: 0 0 0 1px #19211e;
  &[data-focus-visible] {
    outline: 2px solid var(--accentBright);
    outline-offset: 2px;
  }
`
const TrackThumb = styled(Thumb)`
  top: 50%;
`
const Sample = styled.p`
  padding: 14px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--background);
  color: var(--on-background);
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
  &[data-poor] {
    color: var(--clay);
  }
`

/** What text of normal size needs (WCAG 2.2, 1.4.3). */
const LEAST = 4.5

interface OwnValueDialogProps {
  /** What it is set for. */
  readonly label: string
  readonly look: Look
  /** A measure such as "24px" or a colour, to go on from. */
  readonly value: string
  readonly onKeep: (value: string) => void
  readonly onClose: () => void
}

/** A measure or colour that the look does not have. */
export function OwnValueDialog({ label, look, value, onKeep, onClose }: OwnValueDialogProps) {
  const [chosen, setChosen] = useState(value)
  return (
    <Dialog
      title={`${label}: custom value`}
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton onPress={() => onKeep(chosen)}>Apply</MainButton>
        </>
      }
    >
      {isOwnMeasure(value) ? (
        <Measure value={chosen} onChange={setChosen} />
      ) : (
        <Colour look={look} value={chosen} onChange={setChosen} />
      )}
      <Note>A custom value does not change with the look of the site. It is listed as a warning.</Note>
    </Dialog>
  )
}

interface ValueProps {
  readonly value: string
  readonly onChange: (value: string) => void
}

function Measure({ value, onChange }: ValueProps) {
  return (
    <NumberField
      autoFocus
      minValue={0}
      maxValue={999}
      value={Number.parseInt(value, 10)}
      onChange={(px) => {
        if (!Number.isNaN(px)) onChange(`${Math.round(px)}px`)
      }}
    >
      <Field>
        <Label>Pixels (px)</Label>
        <Input />
      </Field>
    </NumberField>
  )
}

function Colour({ look, value, onChange }: ValueProps & { readonly look: Look }) {
  const surface = ownSurface(look, value)
  const least = leastContrast(surface)
  const isPoor = least < LEAST
  return (
    <ColorPicker value={value} onChange={(colour) => onChange(colour.toString('hex').toLowerCase())}>
      <Picker>
        <Stack>
          <Area
            colorSpace="hsb"
            xChannel="saturation"
            yChannel="brightness"
            aria-label="Strength and brightness"
          >
            <Thumb />
          </Area>
          <ColorSlider colorSpace="hsb" channel="hue" aria-label="Hue">
            <Track>
              <TrackThumb />
            </Track>
          </ColorSlider>
        </Stack>
        <Stack>
          <ColorField>
            <Field>
              <Label>Colour, as #rrggbb</Label>
              <Input />
            </Field>
          </ColorField>
          <Sample style={{ '--background': surface.background, '--on-background': surface.ink }}>
            Text colour
          </Sample>
          <Note data-poor={isPoor ? '' : undefined}>
            {isPoor
              ? `The lowest contrast of text on it is ${least.toFixed(1)}. A page can be published with ${LEAST} or more.`
              : `The lowest contrast of text on it is ${least.toFixed(1)}: readable.`}
          </Note>
        </Stack>
      </Picker>
    </ColorPicker>
  )
}
