/**
 * The order in which placed rectangles are read: by recursive X-Y cut (Nagy and Seth, "Hierarchical Representation of
 * Optically Scanned Documents", ICPR 1984). A set of rectangles is cut where a straight line goes through none of them, the
 * way that the widest gap lies; where gaps are as wide both ways, into rows before columns.
 */
import type { NodeId } from '../page/page.ts'
import { around, columnEnd, rowEnd, type Placed } from './placed.ts'

/** How a set of rectangles falls apart. */
export type CutTree =
  | { readonly cut: 'none'; readonly child: Placed }
  /** Parts one below the other, with so many empty rows before each. */
  | { readonly cut: 'rows'; readonly parts: readonly CutPart[] }
  /** Parts beside each other, from left to right, with so many empty columns before each. */
  | { readonly cut: 'columns'; readonly parts: readonly CutPart[] }
  /** Rectangles that no line parts, since they overlap: from the lowest layer to the highest. */
  | { readonly cut: 'layered'; readonly children: readonly Placed[] }

export interface CutPart {
  readonly tree: CutTree
  /** Empty rows or columns between it and the part before. */
  readonly gap: number
}

/** How rectangles fall apart; undefined for none. */
export function cutTree(children: readonly Placed[]): CutTree | undefined {
  return children.length === 0 ? undefined : cut(children)
}

/** The ids of rectangles in the order in which they are read. */
export function readingOrder(children: readonly Placed[]): readonly NodeId[] {
  const tree = cutTree(children)
  return tree ? orderOf(tree).map(({ id }) => id) : []
}

/** What is in a tree, in the order in which it is read. */
export function orderOf(tree: CutTree): readonly Placed[] {
  switch (tree.cut) {
    case 'none':
      return [tree.child]
    case 'layered':
      return tree.children
    default:
      return tree.parts.flatMap((part) => orderOf(part.tree))
  }
}

/** One of the two ways in which a line can part rectangles. */
interface Axis {
  readonly cut: 'rows' | 'columns'
  readonly startOf: (one: Placed) => number
  readonly endOf: (one: Placed) => number
}
const ROWS: Axis = { cut: 'rows', startOf: ({ row }) => row, endOf: rowEnd }
const COLUMNS: Axis = { cut: 'columns', startOf: ({ column }) => column, endOf: columnEnd }

interface Slice {
  readonly children: readonly Placed[]
  /** Before it. */
  readonly gap: number
}

function cut(children: readonly Placed[]): CutTree {
  if (children.length === 1) return { cut: 'none', child: children[0]! }
  const rows = slices(children, ROWS)
  const columns = slices(children, COLUMNS)
  if (rows.length === 1 && columns.length === 1) return { cut: 'layered', children: layered(children) }
  const isRows = columns.length === 1 || (rows.length > 1 && widest(rows) >= widestBeside(columns))
  const parts = isRows ? joined(rows, COLUMNS) : joined(columns, ROWS)
  return {
    cut: isRows ? 'rows' : 'columns',
    parts: parts.map(({ children: inside, gap }) => ({ tree: cut(inside), gap })),
  }
}

/** Sets of rectangles that lines part one way, in their order: what touches or overlaps in that direction is in one. */
function slices(children: readonly Placed[], { startOf, endOf }: Axis): readonly Slice[] {
  const sorted = children.toSorted((a, b) => startOf(a) - startOf(b))
  const found: { children: Placed[]; gap: number }[] = []
  let end = -Infinity
  for (const one of sorted) {
    const gap = startOf(one) - end
    if (gap >= 0) found.push({ children: [one], gap: found.length === 0 ? 0 : gap })
    else found.at(-1)!.children.push(one)
    end = Math.max(end, endOf(one))
  }
  return found
}

function widest(all: readonly Slice[]): number {
  return all.slice(1).reduce((most, { gap }) => Math.max(most, gap), -1)
}

/** The widest gap between columns that stand beside each other: one that begins below the end of another is read after it. */
function widestBeside(columns: readonly Slice[]): number {
  const isBeside = ({ children }: Slice, i: number): boolean => {
    const before = around(columns[i]!.children)
    const after = around(children)
    return before.row < rowEnd(after) && after.row < rowEnd(before)
  }
  return columns
    .slice(1)
    .reduce((most, slice, i) => (isBeside(slice, i) ? Math.max(most, slice.gap) : most), -1)
}

/**
 * Slices with those joined that the other way parts by a wider gap than lies between them: columns with room between are
 * read one after the other, however many rows of theirs line up.
 */
function joined(all: readonly Slice[], other: Axis): readonly Slice[] {
  const found: Slice[] = []
  for (const slice of all) {
    const before = found.at(-1)
    const both = before && [...before.children, ...slice.children]
    if (before && both && gapIn(both, other) > slice.gap)
      found[found.length - 1] = { ...before, children: both }
    else found.push(slice)
  }
  if (found.length > 1) return found
  const most = widest(all)
  const apart: Slice[] = []
  for (const slice of all) {
    const before = apart.at(-1)
    if (!before || slice.gap === most) apart.push(slice)
    else apart[apart.length - 1] = { ...before, children: [...before.children, ...slice.children] }
  }
  return apart
}

function gapIn(children: readonly Placed[], axis: Axis): number {
  const found = slices(children, axis)
  return axis === COLUMNS ? widestBeside(found) : widest(found)
}

/** Overlapping rectangles are read from the lowest layer up: what lies behind, before what is written over it. */
function layered(children: readonly Placed[]): readonly Placed[] {
  return children.toSorted(
    (a, b) => a.layer - b.layer || a.row - b.row || a.column - b.column || (a.id < b.id ? -1 : 1),
  )
}
