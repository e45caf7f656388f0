/** How many columns a grid has. */
import type { PageNode, SizeKey } from '../page/page.ts'
import type { ColumnsAt } from './arrangement.ts'

/** By itself: an even number, so that anything can stand in its middle. */
export const COLUMNS = 12
export const MOST_COLUMNS = 24
/** How much of the columns of the widest size narrower ones have by themselves. */
const SHARE: Readonly<Record<SizeKey, number>> = { base: 1, medium: 2 / 3, narrow: 1 / 3 }

/** The columns of a grid at each size: as set there, or else so much of what the widest size has, in even numbers. */
export function columnsOf({ sizes }: Pick<PageNode, 'sizes'>): ColumnsAt {
  const base = countOf(sizes.base.cells) ?? COLUMNS
  const at = (size: 'medium' | 'narrow'): number =>
    countOf(sizes[size]?.cells) ?? Math.max(2, 2 * Math.round((base * SHARE[size]) / 2))
  return { base, medium: at('medium'), narrow: at('narrow') }
}

function countOf(value: unknown): number | undefined {
  return typeof value === 'number' ? value : undefined
}
