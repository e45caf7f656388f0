/** `npm run soak` repeats what `npm test` does a few times: kills, edits of two people, laws on generated pages. */
export const SOAK = 'GULLYLINE_SOAK'

/** `short` in `npm test`, `long` in `npm run soak`. */
export function timesOf(short, long) {
  return process.env[SOAK] ? long : short
}
