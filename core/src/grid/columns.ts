/** How many columns a grid has. */
import type { ColumnsAt, GridChild } from './arrangement.ts'
import type { PageNode, SizeKey } from '../page/page.ts'
import { lastUpTo, sizesSet, USUAL_KEYS } from '../sizes/size-keys.ts'

/** By itself: an even number, so that anything can stand in its middle. */
export const COLUMNS = 12
export const MOST_COLUMNS = 24
/** How much of the columns of the widest size narrower ones have by themselves; sizes between have what the wider one has. */
const SHARE: Readonly<Record<(typeof USUAL_KEYS)[number], number>> = { base: 1, medium: 2 / 3, narrow: 1 / 3 }

/** The columns of a grid at a size: as set there or at a wider one after which none begin of themselves, or else so much of what the widest size has, in even numbers. */
function columnsAt({ sizes }: Pick<PageNode, 'sizes'>, size: SizeKey): number {
  const base = countOf(sizes.base.cells) ?? COLUMNS
  const usual = lastUpTo(USUAL_KEYS, size) ?? 'base'
  const set = sizesSet({ sizes }).findLast((one) => one <= size && countOf(sizes[one]?.cells) !== undefined)
  if (set !== undefined && set >= usual) return countOf(sizes[set]?.cells)!
  return usual === 'base' ? base : Math.max(2, 2 * Math.round((base * SHARE[usual]) / 2))
}

/** The columns of a grid at each size at which they or the places of its children may change. */
export function columnsOf(node: Pick<PageNode, 'sizes'>, children: readonly GridChild[]): ColumnsAt {
  const all = new Set<SizeKey>([
    ...USUAL_KEYS,
    ...sizesSet(node),
    ...children.flatMap(({ places }) => Object.keys(places)),
  ])
  return Object.fromEntries([...all].map((size) => [size, columnsAt(node, size)]))
}

function countOf(value: unknown): number | undefined {
  return typeof value === 'number' ? value : undefined
}
