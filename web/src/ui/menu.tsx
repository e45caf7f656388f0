import { Button, MenuItem, Popover, Separator } from 'react-aria-components'
import styled from 'styled-components'
import { mono } from './controls.tsx'

/** The square button that opens a menu. */
export const MenuOpener = styled(Button)`
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  padding: 0;
  border: 1px solid transparent;
  border-radius: 5px;
  background: none;
  color: var(--strong);
  &[data-hovered] {
    background: var(--line);
  }
`

/** What a menu opens in. */
export const MenuPop = styled(Popover)`
  min-width: 230px;
  max-height: 70vh;
  padding: 5px;
  overflow: auto;
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 10px 30px rgb(25 33 30 / 30%);
`

/** One act in a menu, with its keys in a `kbd`. */
export const MenuRow = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 4px 9px;
  border-radius: 4px;
  outline: none;
  color: inherit;
  text-decoration: none;
  &[data-focused] {
    background: var(--accentTint);
    color: var(--accent);
  }
  &[data-disabled] {
    color: var(--control);
  }
  kbd {
    ${mono}
    color: var(--quiet);
    white-space: nowrap;
  }
`

export const MenuLine = styled(Separator)`
  height: 1px;
  margin: 4px;
  background: var(--line);
`
