import { Button } from 'react-aria-components'
import styled from 'styled-components'
import { STRIP } from '../../ui/theme.ts'

/** A button at one end of the strip. */
export const StripButton = styled(Button)`
  position: absolute;
  bottom: 3px;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 24px;
  padding: 0 8px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: ${STRIP.words};
  font-size: 12px;
  white-space: nowrap;
  &:hover,
  &[data-set] {
    background: ${STRIP.raised};
    color: #fff;
  }
  &:focus-visible {
    outline-color: ${STRIP.pointer};
  }
`
