/** The headings of a page with their anchors: what links point to and what jump lists are made of. */
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { shownIds } from './shown.ts'
import { lastStep } from '../page/with-nodes.ts'
import type { OutlineEntry } from '../kit/spot.ts'
import { anchorFrom } from '../kit/anchor-from.ts'
import { CONTENT_ID } from '../kit/ids.ts'

/** What a node is to the outline: a heading, a place with a name, or both. */
interface Mark {
  readonly heading?: { readonly level: number; readonly text: string }
  readonly anchor?: string
  /** What the anchor of a heading without its own begins with. */
  readonly wanted?: string
}

interface Known {
  /** Every node that has one, in reading order. */
  readonly marks: ReadonlyMap<NodeId, Mark>
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

/** Headings whose anchor differs between two pages on which the same headings stand. */
export function anchorsChanged(before: Page, page: Page, registry: Registry): readonly NodeId[] {
  const [was, is] = [find(before, registry).byId, find(page, registry).byId]
  if (was === is) return []
  const changed: NodeId[] = []
  for (const [id, entry] of is) if (was.get(id)?.anchor !== entry.anchor) changed.push(id)
  for (const id of was.keys()) if (!is.has(id)) changed.push(id)
  return changed
}

function find(page: Page, registry: Registry): Known {
  const found = known.get(page.nodes) ?? fromStep(page, registry) ?? number(readMarks(page, registry))
  known.set(page.nodes, found)
  return found
}

/** From the page before, when the last step moved nothing: a keystroke in a heading must not read the whole page. */
function fromStep({ nodes }: Page, registry: Registry): Known | undefined {
  const step = lastStep(nodes)
  const before = step && known.get(step.from)
  if (!before) return undefined
  const changed = new Map<NodeId, Mark>()
  for (const id of step.ids) {
    const [was, is] = [step.from[id], nodes[id]]
    if (!was || !is || was.kind !== is.kind || was.slots !== is.slots) return undefined
    if (was.content.layout !== is.content.layout) return undefined
    if (was.content === is.content) continue
    const [old, mark] = [before.marks.get(id), markOf(is, registry)]
    if (!old !== !mark) return undefined
    if (old && mark && !sameMark(old, mark)) changed.set(id, mark)
  }
  return changed.size === 0 ? before : number(new Map([...before.marks, ...changed]), before)
}

function readMarks(page: Page, registry: Registry): ReadonlyMap<NodeId, Mark> {
  return new Map(
    shownIds(page, page.root, registry).flatMap((id) => {
      const mark = markOf(getNode(page, id), registry)
      return mark ? [[id, mark] as const] : []
    }),
  )
}

/** What was read off a node: moving a section reads no other heading again. */
const marksOf = new WeakMap<PageNode, { readonly registry: Registry; readonly mark: Mark | undefined }>()

function markOf(node: PageNode, registry: Registry): Mark | undefined {
  const read = marksOf.get(node)
  if (read?.registry === registry) return read.mark
  const mark = readMark(node, registry)
  marksOf.set(node, { registry, mark })
  return mark
}

function readMark(node: PageNode, registry: Registry): Mark | undefined {
  const { heading, anchor, anchored } = getKind(registry, node.kind).facts?.(node.content) ?? {}
  const isAnchored = heading !== undefined && anchored === true
  if (!isAnchored && anchor === undefined) return undefined
  const wanted = isAnchored && anchor === undefined ? anchorFrom(heading.text) : undefined
  return {
    ...(isAnchored ? { heading } : {}),
    ...(anchor === undefined ? {} : { anchor }),
    ...(wanted === undefined ? {} : { wanted }),
  }
}

function sameMark(a: Mark, b: Mark): boolean {
  return a.anchor === b.anchor && a.heading?.text === b.heading?.text && a.heading?.level === b.heading?.level
}

/** Gives every heading an anchor that no other has. */
function number(marks: ReadonlyMap<NodeId, Mark>, before?: Known): Known {
  const taken = new Set([CONTENT_ID])
  for (const { anchor } of marks.values()) if (anchor !== undefined) taken.add(anchor)
  const free = freeNames(taken)
  const entries: OutlineEntry[] = []
  const byId = new Map<NodeId, OutlineEntry>()
  for (const [id, { heading, anchor: own, wanted }] of marks) {
    if (!heading) continue
    const anchor = own ?? (wanted === undefined ? undefined : free(wanted))
    if (anchor === undefined) continue
    taken.add(anchor)
    const old = before?.byId.get(id)
    const isSame = old?.anchor === anchor && before!.marks.get(id) === marks.get(id)
    const entry = isSame ? old : { id, ...heading, anchor }
    entries.push(entry)
    byId.set(id, entry)
  }
  return { marks, entries, byId }
}

/** Gives names that are not taken yet: the one that is wanted, or it with the first number from 2 on that makes it free. */
function freeNames(taken: Set<string>): (wanted: string) => string {
  // No name becomes free again, so that the search for one goes on where the last one for it ended.
  const next = new Map<string, number>()
  return (wanted) => {
    let n = next.get(wanted) ?? 1
    const name = (): string => (n === 1 ? wanted : `${wanted}-${n}`)
    while (taken.has(name())) n++
    next.set(wanted, n + 1)
    return name()
  }
}
