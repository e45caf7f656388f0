import styled from 'styled-components'

/** The middle of a screen that is read from top to bottom, no wider than lines can be read. */
export const Sheet = styled.main`
  padding: 24px 28px 60px;
  overflow: auto;
  > div {
    display: grid;
    gap: 20px;
    max-width: 700px;
  }
  h1 {
    font-size: 18px;
  }
`
