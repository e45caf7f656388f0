import { Popover } from 'react-aria-components'
import styled from 'styled-components'

/** A list that opens at the button which says how many there are. */
export const ListPop = styled(Popover)`
  width: 380px;
  max-height: 62vh;
  overflow: auto;
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 12px 36px rgb(25 33 30 / 30%);
`
