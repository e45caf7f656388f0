import styled from 'styled-components'
import { STRIP } from '../../ui/theme.ts'

/** What the ruler stands on; there before it is. */
export const Strip = styled.div`
  position: relative;
  height: 80px;
  background: ${STRIP.ground};
  color: ${STRIP.words};
  user-select: none;
`
