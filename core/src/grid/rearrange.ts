/** Acts on several rectangles of a grid at once. Each gives the places of all, in their order; none makes another one move. */
import type { NodeId } from '../page/page.ts'
import { around, columnEnd, fittedInto, rowEnd, type Placed } from './placed.ts'
import { resized, type Side } from './snap.ts'

/** Opens rows at a line: what begins there or below goes down, all by as many. */
export function makeRoom(placed: readonly Placed[], line: number, rows: number): readonly Placed[] {
  return placed.map((one) => (one.row >= line ? { ...one, row: one.row + rows } : one))
}

/** How many rows right above a line, where something begins, are empty. */
export function emptyRowsAbove(placed: readonly Placed[], line: number): number {
  const above = placed.filter(({ row }) => row < line)
  const end = Math.max(1, ...above.map(rowEnd))
  return Math.max(0, line - end)
}

/** Closes up to so many empty rows right above a line: what begins there or below goes up, all by as many. */
export function closeUp(placed: readonly Placed[], line: number, rows: number): readonly Placed[] {
  const by = Math.min(rows, emptyRowsAbove(placed, line))
  return makeRoom(placed, line, -by)
}

export type Alignment = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom'

/** Moves chosen rectangles to one edge, or to the middle, of the rectangle around them. */
export function aligned(
  placed: readonly Placed[],
  ids: ReadonlySet<NodeId>,
  alignment: Alignment,
): readonly Placed[] {
  const chosen = placed.filter(({ id }) => ids.has(id))
  if (chosen.length < 2) return placed
  const box = around(chosen)
  const moved: Readonly<Record<Alignment, (one: Placed) => Partial<Placed>>> = {
    left: () => ({ column: box.column }),
    right: ({ columns }) => ({ column: columnEnd(box) - columns }),
    centre: ({ columns }) => ({ column: box.column + Math.floor((box.columns - columns) / 2) }),
    top: () => ({ row: box.row }),
    bottom: ({ rows }) => ({ row: rowEnd(box) - rows }),
    middle: ({ rows }) => ({ row: box.row + Math.floor((box.rows - rows) / 2) }),
  }
  return placed.map((one) => (ids.has(one.id) ? { ...one, ...moved[alignment](one) } : one))
}

/** Moves chosen rectangles so that the gaps between them are as even as whole columns, or rows, allow. The outermost stay. */
export function distributed(
  placed: readonly Placed[],
  ids: ReadonlySet<NodeId>,
  axis: 'column' | 'row',
): readonly Placed[] {
  const span = axis === 'column' ? 'columns' : 'rows'
  const chosen = placed
    .filter(({ id }) => ids.has(id))
    .toSorted((a, b) => a[axis] + a[span] / 2 - (b[axis] + b[span] / 2))
  if (chosen.length < 3) return placed
  const [first, last] = [chosen[0]!, chosen.at(-1)!]
  const taken = chosen.reduce((sum, one) => sum + one[span], 0)
  const free = last[axis] + last[span] - first[axis] - taken
  let at = first[axis]
  const starts = new Map(
    chosen.map((one, i): [NodeId, number] => {
      const start = i === chosen.length - 1 ? last[axis] : at + Math.round((free * i) / (chosen.length - 1))
      at += one[span]
      return [one.id, Math.max(1, start)]
    }),
  )
  return placed.map((one) => {
    const start = starts.get(one.id)
    return start === undefined ? one : { ...one, [axis]: start }
  })
}

/**
 * Chosen rectangles resized as one: sides of the rectangle around them move by whole columns and rows, and each line of
 * theirs goes as far as its share. Where one would be left without a column or a row, the side goes less far.
 */
export function resizedTogether(
  placed: readonly Placed[],
  ids: ReadonlySet<NodeId>,
  { sides, across, down }: { readonly sides: readonly Side[] } & Steps,
  columns: number,
): readonly Placed[] {
  const chosen = placed.filter(({ id }) => ids.has(id))
  if (chosen.length === 0) return placed
  const box = around(chosen)
  const by = (steps: Steps): readonly Placed[] => fittedInto(chosen, resized(box, sides, steps, columns))
  let steps = { across, down }
  while (steps.across !== 0 && by(steps).some((one) => one.columns < 1))
    steps = { ...steps, across: nearer(steps.across) }
  while (steps.down !== 0 && by(steps).some((one) => one.rows < 1))
    steps = { ...steps, down: nearer(steps.down) }
  const next = new Map(by(steps).map((one) => [one.id, one]))
  return placed.map((one) => next.get(one.id) ?? one)
}

/** By how many columns and rows sides move. */
interface Steps {
  readonly across: number
  readonly down: number
}

function nearer(steps: number): number {
  return steps - Math.sign(steps)
}

export type LayerStep = 'forward' | 'backward' | 'front' | 'back'

/** Puts chosen rectangles one layer nearer or farther, or before or behind all. Layers count from 0. */
export function relayered(
  placed: readonly Placed[],
  ids: ReadonlySet<NodeId>,
  step: LayerStep,
): readonly Placed[] {
  const others = placed.filter(({ id }) => !ids.has(id)).map(({ layer }) => layer)
  const [lowest, highest] = [Math.min(...others), Math.max(...others)]
  if (others.length === 0) return placed
  const layerOf = ({ layer }: Placed): number => {
    if (step === 'forward') return layer + 1
    if (step === 'backward') return layer - 1
    return step === 'front' ? highest + 1 : lowest - 1
  }
  const moved = placed.map((one) => (ids.has(one.id) ? { ...one, layer: layerOf(one) } : one))
  const least = Math.min(...moved.map(({ layer }) => layer))
  // There is nothing behind layer 0: instead, all others come nearer.
  return least >= 0 ? moved : moved.map((one) => ({ ...one, layer: one.layer - least }))
}
