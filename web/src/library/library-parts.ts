/** What the panes of the library are made of. */
import styled from 'styled-components'

export const Note = styled.p`
  max-width: 60ch;
  color: var(--quiet);
`
