import styled from 'styled-components'

/** A button that is a picture with words under it. */
export const Card = styled.button`
  display: grid;
  gap: 3px;
  align-content: start;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
`
