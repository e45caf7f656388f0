import styled from 'styled-components'

/** A list of things, one a row: what each is, a small line under it, and what can be done with it at the end. */
export const ActionRows = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    padding: 8px 0;
    border-top: 1px solid var(--line);
  }
  div {
    flex: 1;
    min-width: 0;
  }
  small {
    display: block;
    color: var(--quiet);
    font-size: 12px;
  }
`
