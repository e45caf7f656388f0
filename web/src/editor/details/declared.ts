import styled from 'styled-components'
import { fieldBox } from '../../ui/controls.tsx'

/** One thing that a component lets its instances say or hold: its name, what makes it none, and its help. */
export const Declared = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 6px;
  align-items: center;
  padding-bottom: 6px;
  small {
    grid-column: 1 / -1;
    color: var(--quiet);
    font-size: 12px;
  }
  input:nth-of-type(2) {
    grid-column: 1 / -1;
  }
`

export const Box = styled.input`
  ${fieldBox}
`
