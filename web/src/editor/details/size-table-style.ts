/** What the table of values that may differ by size is drawn with. */
import styled from 'styled-components'

export const Rows = styled.div`
  display: grid;
  gap: 6px;
`
export const Sizes = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20px;
  gap: 8px;
  color: var(--quiet);
  font-size: 12px;
  > span {
    display: grid;
    grid-template-columns: repeat(var(--across), 1fr);
    text-align: center;
  }
  b {
    overflow: hidden;
    padding: 0 2px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  [data-current] {
    color: var(--accent);
    font-weight: 650;
  }
`
export const Row = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 20px;
  gap: 8px;
  align-items: center;
  /* Several values need the whole width: their name stands above them. */
  &[data-split] {
    grid-template: auto auto / minmax(0, 1fr) 20px;
    gap: 3px 8px;
    > :first-child {
      grid-column: 1 / -1;
    }
  }
`
export const EachSize = styled.div`
  display: grid;
  grid-template-columns: repeat(var(--across), 1fr);
  overflow: hidden;
  border: 1px solid var(--control);
  border-radius: 4px;
  > span {
    min-width: 0;
    /* Lines between, and none where the box has its own. */
    margin: -1px 0 0 -1px;
    border: 1px solid var(--line);
    border-width: 1px 0 0 1px;
  }
  [data-current] {
    background: var(--accentTint);
  }
`
export const CellHead = styled.small`
  display: block;
  overflow: hidden;
  padding: 3px 4px 0;
  color: var(--quiet);
  font-size: 12px;
  line-height: 1.2;
  text-align: center;
  text-overflow: ellipsis;
  white-space: nowrap;
  [data-current] > & {
    color: var(--accent);
    font-weight: 650;
  }
`
export const One = styled.div`
  overflow: hidden;
  border: 1px solid var(--control);
  border-radius: 4px;
`
export const PerSize = styled.button`
  display: grid;
  place-items: center;
  width: 20px;
  height: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--control);
  &:hover,
  &:focus-visible,
  &[aria-expanded='true'] {
    color: var(--accent);
  }
`

export const LinkSides = styled.button`
  display: flex;
  gap: 5px;
  align-items: center;
  justify-self: start;
  margin-left: 100px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--accent);
  font-size: 12px;
`

export const Cell = styled.select`
  width: 100%;
  font-size: 12px;
  height: 26px;
  padding: 0 2px;
  border: 0;
  background: none;
  color: var(--plain);
  text-align: center;
  text-align-last: center;
  text-overflow: ellipsis;
  appearance: none;
  &[data-own] {
    color: var(--accent);
    font-weight: 700;
  }
  &[data-outside] {
    color: var(--ochre);
  }
  option {
    background: var(--paper);
    color: var(--plain);
  }
  &:focus-visible {
    outline-offset: -2px;
  }
`
