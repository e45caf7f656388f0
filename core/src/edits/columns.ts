/** How many columns there are and how wide each is, with all that they hold carried over. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { USUAL_SHARE } from '../blocks/kinds/column.ts'
import { MOST_COLUMNS } from '../blocks/kinds/columns.ts'
import { getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import type { NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'

/**
 * Gives columns another number, from 1 to 6, with equal widths at every size. What stands in columns that go moves to the end of the
 * last one that stays; new ones are empty.
 */
export function columnCountEdits(
  page: Page,
  columnsId: NodeId,
  count: number,
  registry: Registry,
  newId: NewId,
): Edit[] {
  const wanted = Math.min(MOST_COLUMNS, Math.max(1, Math.round(count)))
  const columns = getNode(page, columnsId).slots.columns ?? []
  const [stay, go] = [columns.slice(0, wanted), columns.slice(wanted)]
  const edits: Edit[] = []
  const last = stay.at(-1)
  let at = last === undefined ? 0 : (getNode(page, last).slots.blocks?.length ?? 0)
  for (const id of go) {
    for (const nodeId of getNode(page, id).slots.blocks ?? [])
      edits.push({ edit: 'move', nodeId, toParentId: last!, toSlot: 'blocks', toIndex: at++ })
    edits.push({ edit: 'remove', nodeId: id })
  }
  const shares = evenShares(wanted)
  for (const [i, id] of stay.entries())
    edits.push(shareEdit(id, 'base', shares[i]!), ...ownShareEdits(page, id))
  for (let i = stay.length; i < wanted; i++) {
    const rootId = newId()
    const column = newNode(getKind(registry, 'column'), { sizes: { base: { share: shares[i]! } } })
    edits.push({
      edit: 'insert',
      parentId: columnsId,
      slot: 'columns',
      index: i,
      rootId,
      nodes: { [rootId]: column },
    })
  }
  return edits
}

/** Gives columns these widths in % at one size, which add up to 100, one for each column. */
export function columnShareEdits(
  page: Page,
  columnsId: NodeId,
  shares: readonly number[],
  size: SizeKey = 'base',
): Edit[] {
  const columns = getNode(page, columnsId).slots.columns ?? []
  return columns.flatMap((id, i) => (shares[i] === undefined ? [] : [shareEdit(id, size, shares[i])]))
}

/** Puts back the widths at a narrower size: they are those of the next wider one again. Nothing to do gives no edits. */
export function putBackSharesEdits(page: Page, columnsId: NodeId, size: SizeKey): Edit[] {
  const columns = getNode(page, columnsId).slots.columns ?? []
  return columns.flatMap((id) => ownShareEdits(page, id, size))
}

/** Takes a column's own widths at narrower sizes away. */
function ownShareEdits(page: Page, nodeId: NodeId, only?: SizeKey): Edit[] {
  const own = getNode(page, nodeId).sizes
  return sizesSet({ sizes: own })
    .filter((size) => size !== 'base' && own[size]?.share !== undefined && size === (only ?? size))
    .map((size) => ({ edit: 'set', nodeId, at: ['sizes', size, 'share'] }))
}

function shareEdit(nodeId: NodeId, size: SizeKey, value: number): Edit {
  return { edit: 'set', nodeId, at: ['sizes', size, 'share'], value }
}

/** Whole numbers that add up to 100 and differ by at most 1. */
export function evenShares(count: number): number[] {
  return sharesOf(Array.from({ length: count }, () => 1))
}

const WHOLE = 100

/** Whole numbers in the proportion of the weights, each at least 1, that add up to 100. */
function sharesOf(weights: readonly number[]): number[] {
  return dealOut(WHOLE, weights)
}

/**
 * Whole numbers in the proportion of the weights, each at least 1, that add up to `whole`: what rounding down leaves
 * goes to those who lost most by it (the largest remainder method, or Hamilton's).
 */
function dealOut(whole: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((all, weight) => all + weight, 0)
  const exact = weights.map((weight) => 1 + ((whole - weights.length) * weight) / sum)
  const dealt = exact.map(Math.floor)
  const left = whole - dealt.reduce((all, one) => all + one, 0)
  const byLoss = exact.map((value, i) => ({ i, loss: value - dealt[i]! })).sort((a, b) => b.loss - a.loss)
  for (const { i } of byLoss.slice(0, left)) dealt[i]!++
  return dealt
}

/** The widths when one column is given a width of its own in %: the others share the rest as they did before. */
export function sharesWith(shares: readonly number[], at: number, value: number): number[] {
  const others = shares.filter((_share, i) => i !== at)
  if (others.length === 0) return [WHOLE]
  const own = Math.min(WHOLE - others.length, Math.max(1, Math.round(value)))
  return dealOut(WHOLE - own, others).toSpliced(at, 0, own)
}

/** The widths of columns in % as they are laid out at a size: their shares of the sum, whole numbers that add up to 100. */
export function columnShares(page: Page, columnsId: NodeId, size: SizeKey = 'base'): number[] {
  const columns = getNode(page, columnsId).slots.columns ?? []
  const weights = columns.map((id) => shareOf(getNode(page, id), size))
  const sum = weights.reduce((all, weight) => all + weight, 0)
  return sum === WHOLE && weights.every(Number.isInteger) ? weights : sharesOf(weights)
}

/** The share in force at a size: the column's own, or the next wider size's. */
function shareOf({ sizes }: PageNode, size: SizeKey): number {
  const own = sizesSet({ sizes }).findLast((at) => at <= size && sizes[at]?.share !== undefined)
  return Number(own === undefined ? USUAL_SHARE : sizes[own]?.share)
}

/** Whether columns have widths of their own at a size narrower than the widest. */
export function hasOwnShares(page: Page, columnsId: NodeId, size: SizeKey): boolean {
  return putBackSharesEdits(page, columnsId, size).length > 0
}
