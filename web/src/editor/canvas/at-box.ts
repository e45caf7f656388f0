import { css } from 'styled-components'
import type { Box } from './boxes.ts'

/** Stands where `boxVariables` says. */
export const atBox = css`
  position: absolute;
  left: var(--x);
  top: var(--y);
  width: var(--w);
  height: var(--h);
`

/** A box as the style of something that stands at it; see `atBox`. */
export function boxVariables({ left, top, width, height }: Box) {
  return { '--x': `${left}px`, '--y': `${top}px`, '--w': `${width}px`, '--h': `${height}px` } as never
}
