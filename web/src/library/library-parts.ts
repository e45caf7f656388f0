/** What the panes of the library are made of. */
import styled from 'styled-components'

export const Note = styled.p`
  max-width: 60ch;
  color: var(--quiet);
`
export const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`
export const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
