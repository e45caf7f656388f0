/** A font all of whose letters are as wide, for layouts whose arithmetic is done by hand. */
import { readFileSync } from 'node:fs'

export const EVEN_FONT = readFileSync(
  new URL(
    '../node_modules/@fontsource-variable/martian-mono/files/martian-mono-latin-wght-normal.woff2',
    import.meta.url,
  ),
)

/** Makes it known to a page as “Even”. The file is asked for as even.woff2. */
export const EVEN_FACE = '@font-face{font-family:Even;src:url(even.woff2)}'
