import { css } from 'styled-components'

/** A page on the ground of the screen. */
export const pageSheet = css`
  overflow: hidden;
  background: #fff;
  box-shadow:
    0 0 0 1px rgb(25 33 30 / 12%),
    0 10px 30px rgb(25 33 30 / 18%);
`
