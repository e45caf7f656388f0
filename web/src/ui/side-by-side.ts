import styled from 'styled-components'

/** Pictures of a page beside each other, such as before and after a change. */
export const SideBySide = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 8px 20px;
  justify-items: start;
  figure {
    display: grid;
    gap: 4px;
    margin: 0;
  }
  figcaption {
    color: var(--quiet);
    font-size: 12px;
  }
`
