import type { ShownGully } from './gully-context.tsx'
import { middleOf } from './gully-range.ts'

interface From {
  /** The gully that was gone to last, where its width is still shown. */
  readonly last: ShownGully | undefined
  readonly width: number
  readonly direction: -1 | 1
}

/** The next gully from narrow to wide, or the other way, and from the end again from the beginning. */
export function nextGully(
  gullies: readonly ShownGully[],
  { last, width, direction }: From,
): ShownGully | undefined {
  const at = gullies.findIndex(
    (one) => one.rule === last?.rule && one.nodeId === last.nodeId && one.from === last.from,
  )
  if (at >= 0 && middleOf(gullies[at]!) === width) return gullies.at((at + direction) % gullies.length)
  const isAhead = (one: ShownGully): boolean =>
    direction > 0 ? middleOf(one) > width : middleOf(one) < width
  return (
    (direction > 0 ? gullies.find(isAhead) : gullies.findLast(isAhead)) ?? gullies.at(direction > 0 ? 0 : -1)
  )
}
