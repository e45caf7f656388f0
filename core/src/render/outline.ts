/** The headings of a page with their anchors: what links point to and what jump lists are made of. */
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Nodes, type Page } from '../page/page.ts'
import { shownIds } from '../blocks/shown.ts'
import { lastStep } from '../page/with-nodes.ts'
import { anchorFrom } from './anchor-from.ts'
import { CONTENT_ID } from './ids.ts'

/** A heading that can be linked to. */
export interface OutlineEntry {
  readonly id: NodeId
  readonly level: number
  readonly text: string
  /** Unique on the page unless somebody gave two places one name by hand. */
  readonly anchor: string
}

interface Known {
  readonly entries: readonly OutlineEntry[]
  readonly byId: ReadonlyMap<NodeId, OutlineEntry>
}

const known = new WeakMap<Nodes, Known>()

/** The headings of a page in reading order. Made once for a page, and kept over edits that touch no heading and move nothing. */
export function outlineOf(page: Page, registry: Registry): readonly OutlineEntry[] {
  return find(page, registry).entries
}

/** The anchor of a heading: its own, or the one made from its words. Undefined for what is not a heading, and for one without words. */
export function anchorAt(page: Page, id: NodeId, registry: Registry): string | undefined {
  return find(page, registry).byId.get(id)?.anchor
}

function find(page: Page, registry: Registry): Known {
  let found = known.get(page.nodes) ?? unchanged(page, registry)
  if (!found) {
    const entries = readOutline(page, registry)
    found = { entries, byId: new Map(entries.map((entry) => [entry.id, entry])) }
  }
  known.set(page.nodes, found)
  return found
}

function unchanged({ nodes }: Page, registry: Registry): Known | undefined {
  const step = lastStep(nodes)
  const before = step && known.get(step.from)
  const isSame = (id: NodeId): boolean => {
    const [was, is] = [step!.from[id], nodes[id]]
    return (
      was !== undefined &&
      is !== undefined &&
      was.slots === is.slots &&
      was.content.frame === is.content.frame &&
      (was.content === is.content || !getKind(registry, is.kind).usesSpot?.includes('anchor')) &&
      was.content.anchor === is.content.anchor
    )
  }
  return before && step.ids.every(isSame) ? before : undefined
}

function readOutline(page: Page, registry: Registry): OutlineEntry[] {
  const ids = shownIds(page, page.root, registry)
  const facts = ids.map((id) => {
    const node = getNode(page, id)
    return { id, facts: getKind(registry, node.kind).facts?.(node.content) ?? {} }
  })
  const taken = new Set([CONTENT_ID, ...facts.flatMap(({ facts: { anchor } }) => anchor ?? [])])
  return facts.flatMap(({ id, facts: { heading, anchor, anchored } }): OutlineEntry[] => {
    if (!heading || !anchored) return []
    if (anchor !== undefined) return [{ id, ...heading, anchor }]
    const wanted = anchorFrom(heading.text)
    if (wanted === undefined) return []
    let free = wanted
    for (let n = 2; taken.has(free); n++) free = `${wanted}-${n}`
    taken.add(free)
    return [{ id, ...heading, anchor: free }]
  })
}
