/**
 * Which documents show which parts, as a graph. A line leads from a part to a document that shows it. The graph around a
 * document has everything that shows it, also through other parts, and all parts that it shows.
 */

/** One document that shows a part itself. */
export interface PartUse {
  readonly part: string
  /** The document that shows it. */
  readonly by: string
  readonly type: ShowerType
  /** How many times it stands there. */
  readonly count: number
}

export type ShowerType = 'page' | 'shared' | 'pattern' | 'header' | 'footer'

export interface ReachNode {
  readonly id: string
  readonly type: ShowerType
  /** How many lines end in it or begin at it that are not drawn. */
  readonly hidden: number
}

export interface ReachGraph {
  /** Each once; parts before what shows them. */
  readonly nodes: readonly ReachNode[]
  readonly lines: readonly PartUse[]
}

/** So many nodes can be told apart in a chart. */
export const MOST_REACH_NODES = 60

/**
 * The graph around a part or a page: everything that shows it, through however many parts, and all parts that it shows. All of
 * the site where nothing is named. Where that is too much to draw, what has the fewest lines is left out, and counted.
 */
export function reachGraph(
  uses: readonly PartUse[],
  focus?: string,
  most: number = MOST_REACH_NODES,
): ReachGraph {
  const around = focus === undefined ? uses : usesAround(uses, focus)
  const counts = lineCounts(around)
  const kept = new Set(
    [...counts.keys()]
      .map((id) => ({ id, rank: id === focus ? Infinity : counts.get(id)! }))
      .sort((a, b) => b.rank - a.rank || (a.id < b.id ? -1 : 1))
      .slice(0, most)
      .map(({ id }) => id),
  )
  const lines = around.filter(({ part, by }) => kept.has(part) && kept.has(by))
  const drawn = lineCounts(lines)
  const types = new Map<string, ShowerType>(around.map(({ part }) => [part, 'shared']))
  for (const { by, type } of around) types.set(by, type)
  const nodes = [...types]
    .filter(([id]) => drawn.has(id) || id === focus)
    .map(([id, type]) => ({ id, type, hidden: counts.get(id)! - (drawn.get(id) ?? 0) }))
  return { nodes, lines }
}

/** The lines that lead to or from one of the things that are above or below another. */
function usesAround(uses: readonly PartUse[], focus: string): readonly PartUse[] {
  const found = new Set<PartUse>()
  const follow = (ends: (use: PartUse) => readonly [from: string, to: string]): void => {
    const byStart = new Map<string, PartUse[]>()
    for (const use of uses) {
      const [from] = ends(use)
      byStart.set(from, [...(byStart.get(from) ?? []), use])
    }
    const seen = new Set([focus])
    for (const id of seen)
      for (const use of byStart.get(id) ?? []) {
        found.add(use)
        seen.add(ends(use)[1])
      }
  }
  follow(({ part, by }) => [part, by])
  follow(({ part, by }) => [by, part])
  return uses.filter((use) => found.has(use))
}

function lineCounts(lines: readonly PartUse[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>()
  for (const { part, by } of lines) for (const id of [part, by]) counts.set(id, (counts.get(id) ?? 0) + 1)
  return counts
}
