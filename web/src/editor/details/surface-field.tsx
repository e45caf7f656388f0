import { useState } from 'react'
import styled from 'styled-components'
import { isOwnColour, type FieldSchema } from '@gullyline/core'
import { useRenderer } from '../session/site-view.ts'
import { ownWords } from './own-select.tsx'
import { OwnValueQuestion } from './own-value-question.tsx'

const Swatches = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
  small {
    margin-left: 3px;
    color: var(--quiet);
    font-size: 12px;
  }
`
const Swatch = styled.button`
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 1px solid var(--control);
  border-radius: 4px;
  font: 600 12px/1 serif;
  &[data-none] {
    background: linear-gradient(to top right, transparent 46%, var(--control) 46% 54%, transparent 54%);
  }
  &[aria-pressed='true'] {
    box-shadow:
      0 0 0 2px var(--paper),
      0 0 0 4px var(--accentBright);
  }
`
const Custom = styled.button`
  height: 24px;
  padding: 0 8px;
  border: 1px solid var(--lineStrong);
  border-radius: 4px;
  background: none;
  font-size: 12px;
`

interface SurfaceFieldProps {
  readonly label: string
  readonly field: FieldSchema
  /** Empty for the background of whatever is around the block. */
  readonly value: string
  readonly onChange: (value: string) => void
}

/** A background of the look, chosen by its colour and told by its name. */
export function SurfaceField({ label, field, value, onChange }: SurfaceFieldProps) {
  const { look } = useRenderer().context
  const [isAsking, setAsking] = useState(false)
  const isOwn = isOwnColour(value)
  const name = value === '' ? 'Inherited' : isOwn ? ownWords(value) : (look.surfaces[value]?.title ?? value)
  return (
    <Swatches role="group" aria-label={label}>
      <Swatch
        type="button"
        data-none=""
        aria-label="Inherited"
        title="Inherited"
        aria-pressed={value === ''}
        onClick={() => onChange('')}
      />
      {Object.entries(look.surfaces).map(([key, surface]) => (
        <Swatch
          key={key}
          type="button"
          aria-label={surface.title}
          title={surface.title}
          aria-pressed={key === value}
          style={{ background: surface.background, color: surface.titleInk }}
          onClick={() => onChange(key)}
        >
          <span aria-hidden="true">a</span>
        </Swatch>
      ))}
      {isOwn && (
        <Swatch type="button" aria-label={name} title={name} aria-pressed style={{ background: value }} />
      )}
      <small>{name}</small>
      {look.ownValues === true && (
        <Custom type="button" onClick={() => setAsking(true)}>
          Custom colour…
        </Custom>
      )}
      {isAsking && (
        <OwnValueQuestion
          label={label}
          field={field}
          value={value}
          onKeep={(chosen) => {
            setAsking(false)
            onChange(chosen)
          }}
          onClose={() => setAsking(false)}
        />
      )}
    </Swatches>
  )
}
