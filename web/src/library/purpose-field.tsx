import styled from 'styled-components'
import { PART_PURPOSES, type PartPurpose } from '@gullyline/core'
import { fieldBox } from '../ui/controls.tsx'

const Label = styled.label`
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
  select {
    ${fieldBox}
  }
`

interface PurposeFieldProps {
  readonly value: PartPurpose
  readonly onChange: (purpose: PartPurpose) => void
  readonly isDisabled?: boolean
}

/** What a pattern is for. */
export function PurposeField({ value, onChange, isDisabled = false }: PurposeFieldProps) {
  return (
    <Label>
      Purpose
      <select
        value={value}
        disabled={isDisabled}
        onChange={(event) => onChange(event.target.value as PartPurpose)}
      >
        {Object.entries(PART_PURPOSES).map(([id, title]) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
      </select>
    </Label>
  )
}
