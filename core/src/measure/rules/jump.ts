import type { ShownId } from '../../resolve/expand.ts'
import type { Gully } from '../gully.ts'
import type { Reading } from '../run-rules.ts'

/** Three cards that stand one below the other on a phone are no surprise: a band may become so many times as high from one width to the next, or by so many px, before that is told. */
const MOST_TIMES = 3.5
const MOST_PX = 600

/** What comes as a surprise to somebody who turns a phone or changes a window a little. */
export const jump = {
  rule: 'jump',
  title: 'Sudden change',
  severity: 'warning',
  source: 'common practice, no source',
} as const

/** A band that becomes much higher, or is put in another order, from one width to the next. */
export function findJump(id: ShownId, width: number, below: Reading, above: Reading): Gully | undefined {
  const why = heightWhy(below, above) ?? orderWhy(below, above)
  if (why === undefined) return undefined
  const { rule, source, severity } = jump
  return { rule, nodeId: id, from: width - 1, to: width, worst: width - 1, why, source, severity }
}

function heightWhy(below: Reading, above: Reading): string | undefined {
  const [low, high] = [Math.min(below.height, above.height), Math.max(below.height, above.height)]
  if (low <= 0 || high <= MOST_TIMES * low || high - low <= MOST_PX) return undefined
  return `Becomes ${Math.round(high / low)} times as high from one width to the next`
}

function orderWhy(below: Reading, above: Reading): string | undefined {
  return below.order === above.order ? undefined : 'Its texts change their order from one width to the next'
}
