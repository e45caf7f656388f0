/** The look of the handles on the canvas, and of the words that stand beside one while it is dragged. */
import styled, { css } from 'styled-components'

/** A press finds it though it looks small (WCAG 2.2, 2.5.8); its look is that of `::after`. */
export const handle = css`
  position: absolute;
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  background: none;
  pointer-events: auto;
  touch-action: none;
  &::after {
    content: '';
    border: 2px solid var(--accentBright);
    background: #fff;
  }
  &:focus-visible {
    outline: 2px solid var(--accentBright);
    outline-offset: -3px;
  }
`

export const Said = styled.span`
  position: absolute;
  padding: 2px 8px;
  border-radius: 3px;
  background: #0a6c7c;
  color: #fff;
  font-size: 11.5px;
  white-space: nowrap;
`
