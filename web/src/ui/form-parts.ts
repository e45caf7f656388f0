/** What dialogs and screens with something to fill in or to choose are made of. */
import styled from 'styled-components'

/** A line that explains what stands above it. */
export const Note = styled.p`
  && {
    color: var(--quiet);
    font-size: 12px;
  }
`
/** Why something was refused. */
export const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`
/** Buttons beside each other. */
export const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`
/** Several boxes to tick under one legend. */
export const Choices = styled.fieldset`
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  border: 0;
  legend {
    padding: 0 0 6px;
    color: var(--quiet);
    font-size: 12px;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
`
/** Things under each other, each with a name, a line about it, and what can be done with it at the right. */
export const Rows = styled.ul`
  display: grid;
  margin: 0;
  padding: 0;
  list-style: none;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: center;
    min-height: 42px;
    padding: 5px 0;
    border-bottom: 1px solid var(--line);
  }
  strong,
  small {
    display: block;
    overflow-wrap: anywhere;
  }
  strong {
    color: var(--strong);
    font-weight: 550;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`
