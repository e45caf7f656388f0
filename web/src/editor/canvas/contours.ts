import { css } from 'styled-components'

/** Faint contour lines of a hillside, as an SVG tile of 400 by 240 px. */
const TILE = encodeURIComponent(
  '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="240" fill="none" stroke="#7d877c" stroke-opacity=".22">' +
    [20, 50, 84, 122, 164, 210]
      .map((y, i) => {
        const swing = 14 + i * 2
        return `<path d="M0 ${y}C70 ${y - swing} 120 ${y + swing} 200 ${y}S330 ${y - swing} 400 ${y}"/>`
      })
      .join('') +
    '</svg>',
)

/** The ground that pages lie on. */
export const contourBackdrop = css`
  background: var(--backdrop) url('data:image/svg+xml,${TILE}');
`
