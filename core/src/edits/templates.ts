/** Acts that change how a page or a block is put together, with all that it holds carried over. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { MOST_COLUMNS } from '../blocks/kinds/columns.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { ASIDE, frameRefusal, FRAMES, type FrameName } from '../site/frames.ts'
import type { NewId } from './compose.ts'
import type { Edit } from './edit.ts'
import type { Move } from './move.ts'

/**
 * Gives a page another frame. Blocks of a slot that the new frame does not show go where it has room: into its main
 * column, or into a section of their own. What it has no place for goes aside and is not published. Nothing is dropped.
 */
export function changeFrameEdits(page: Page, frame: FrameName, registry: Registry, newId: NewId): Edit[] {
  const root = getNode(page, page.root)
  const shown = Object.keys(FRAMES[frame].slots)
  const edits: Edit[] = [{ edit: 'set', nodeId: page.root, at: ['content', 'frame'], value: frame }]
  const counts = new Map(Object.entries(root.slots).map(([slot, children]) => [slot, children.length]))
  const move = (nodeId: NodeId, fromSlot: string, toSlot: string): Move => {
    const toIndex = counts.get(toSlot) ?? 0
    counts.set(toSlot, toIndex + 1)
    counts.set(fromSlot, (counts.get(fromSlot) ?? 0) - 1)
    return { edit: 'move', nodeId, toParentId: page.root, toSlot, toIndex }
  }
  const probe: Page = {
    ...page,
    nodes: { ...page.nodes, [page.root]: { ...root, content: { ...root.content, frame } } },
  }
  const isStrange = (id: NodeId): boolean =>
    subtreeIds(page, id).some(
      (inside) => frameRefusal(probe, getNode(page, inside).kind, registry) !== undefined,
    )
  for (const slot of ['sections', 'main', 'side']) {
    const children = root.slots[slot] ?? []
    if (children.length === 0) continue
    if (shown.includes(slot)) {
      for (const id of children) if (isStrange(id)) edits.push(move(id, slot, ASIDE))
    } else if (shown.includes('main')) {
      edits.push(...children.map((id) => move(id, slot, isStrange(id) ? ASIDE : 'main')))
    } else {
      const [fits, strange] = [children.filter((id) => !isStrange(id)), children.filter(isStrange)]
      edits.push(...strange.map((id) => move(id, slot, ASIDE)))
      if (fits.length > 0)
        edits.push(...intoSection(page, fits, counts.get('sections') ?? 0, registry, newId))
      if (fits.length > 0) counts.set('sections', (counts.get('sections') ?? 0) + 1)
    }
  }
  return edits
}

function intoSection(
  page: Page,
  ids: readonly NodeId[],
  index: number,
  registry: Registry,
  newId: NewId,
): Edit[] {
  const rootId = newId()
  const section = newNode(getKind(registry, 'section'), { sizes: { base: { width: 'reading' } } })
  return [
    { edit: 'insert', parentId: page.root, slot: 'sections', index, rootId, nodes: { [rootId]: section } },
    ...ids.map((nodeId, toIndex): Edit => ({
      edit: 'move',
      nodeId,
      toParentId: rootId,
      toSlot: 'blocks',
      toIndex,
    })),
  ]
}

/**
 * Gives columns another number, from 1 to 6, with equal widths. What stands in columns that go moves to the end of the
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
  for (const [i, id] of stay.entries()) edits.push(shareEdit(id, shares[i]!))
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

/** Gives columns these widths in %, which add up to 100, one for each column. */
export function columnShareEdits(page: Page, columnsId: NodeId, shares: readonly number[]): Edit[] {
  const columns = getNode(page, columnsId).slots.columns ?? []
  return columns.flatMap((id, i) => (shares[i] === undefined ? [] : [shareEdit(id, shares[i])]))
}

function shareEdit(nodeId: NodeId, value: number): Edit {
  return { edit: 'set', nodeId, at: ['sizes', 'base', 'share'], value }
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

/** The widths of columns in % as they are laid out: their shares of the sum, whole numbers that add up to 100. */
export function columnShares(page: Page, columnsId: NodeId): number[] {
  const columns = getNode(page, columnsId).slots.columns ?? []
  const weights = columns.map((id) => Number(getNode(page, id).sizes.base.share ?? 50))
  const sum = weights.reduce((all, weight) => all + weight, 0)
  return sum === WHOLE && weights.every(Number.isInteger) ? weights : sharesOf(weights)
}
