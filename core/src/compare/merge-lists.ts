/** Three lists of things that are known by name, merged: one list, and what both sides put in another order. */

export interface ListSides {
  readonly base: readonly string[]
  readonly ours: readonly string[]
  readonly theirs: readonly string[]
}

export interface MergedList {
  readonly list: readonly string[]
  /** What both sides reordered, each in its own way; absent when they do not contradict each other. */
  readonly contradiction?: { readonly ours: readonly string[]; readonly theirs: readonly string[] }
}

/**
 * All members in one order. Each list holds only members, none twice. What stands in all three keeps the order of the
 * side that changed it; `preferOurs` says whose order it is when both did. What one side added follows whatever it
 * followed there; additions of both at one spot are both kept, in an order that does not depend on whose is whose.
 */
export function mergeLists(
  { base, ours, theirs }: ListSides,
  preferOurs: (contradiction: NonNullable<MergedList['contradiction']>) => boolean,
): MergedList {
  const common = new Set(base.filter((id) => ours.includes(id) && theirs.includes(id)))
  const [b, o, t] = [base, ours, theirs].map((list) => list.filter((id) => common.has(id))) as [
    string[],
    string[],
    string[],
  ]
  const contradicts = !same(o, b) && !same(t, b) && !same(o, t)
  const contradiction = contradicts ? { ours: o, theirs: t } : undefined
  const backbone = contradiction ? (preferOurs(contradiction) ? o : t) : same(o, b) ? t : o
  const [first, second] = [additions(ours, common), additions(theirs, common)]
  const placed = new Set<string>(common)
  const list: string[] = []
  for (const anchor of [START, ...backbone]) {
    if (anchor !== START) list.push(anchor)
    for (const id of inStableOrder(first.get(anchor) ?? [], second.get(anchor) ?? [])) {
      if (placed.has(id)) continue
      placed.add(id)
      list.push(id)
    }
  }
  return { list, ...(contradiction ? { contradiction } : {}) }
}

const START = ''

/** What a side has besides, by the common thing that it follows. */
function additions(list: readonly string[], common: ReadonlySet<string>): Map<string, string[]> {
  const found = new Map<string, string[]>()
  let anchor = START
  for (const id of list) {
    if (common.has(id)) anchor = id
    else found.set(anchor, [...(found.get(anchor) ?? []), id])
  }
  return found
}

function inStableOrder(a: readonly string[], b: readonly string[]): string[] {
  return a.join() <= b.join() ? [...a, ...b] : [...b, ...a]
}

function same(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((id, at) => id === b[at])
}
