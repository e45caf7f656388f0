import styled from 'styled-components'

/** A state in a word, with a dot whose colour says it again. */
export const Chip = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 7px;
  height: 24px;
  padding: 0 9px;
  border-radius: 4px;
  background: var(--panel);
  color: var(--quiet);
  font-size: 12px;
  font-weight: 550;
  white-space: nowrap;
  &::before {
    content: '';
    width: 7px;
    height: 7px;
    border-radius: 50%;
    background: currentColor;
  }
  &[data-tone='fine'] {
    background: var(--mossTint);
    color: var(--moss);
  }
  &[data-tone='waiting'] {
    background: var(--ochreTint);
    color: var(--ochre);
  }
  &[data-tone='trouble'] {
    background: var(--clayTint);
    color: var(--clay);
  }
`
