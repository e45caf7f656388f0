/** Shared sections: made of blocks that are selected, shown by instances, and turned into copies again. */
import { filledIn, valuesByNode } from '../blocks/component-fields.ts'
import { newNode } from '../blocks/define-block.ts'
import { FILLS_SLOT, fillsOf, shownInSlot, slotsOf } from '../blocks/component-slots.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { slotRefusal } from '../blocks/slots.ts'
import { copyFragment, type Fragment, type NewId } from '../edits/compose.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import { findNode, getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { childIds, findPlace, subtreeIds } from '../page/walk.ts'
import { linkedPart, type ShownId } from '../resolve/expand.ts'
import { JOINED_PARTS } from '../page/joined.ts'
import { partAt } from '../site/session-page.ts'
import { slotOfFill } from '../resolve/instance-slots.ts'

/** The kinds that go together: what a shared section of whole sections, or of blocks, is stored and shown as. */
const KINDS = {
  section: { root: 'shared-sections', instance: 'linked-sections' },
  flow: { root: 'shared-blocks', instance: 'linked-blocks' },
} as const

/** The kinds that a shared section can be stored as. */
export const SHARED_ROOTS: readonly string[] = Object.values(KINDS).map(({ root }) => root)

/** Whether one shared section can stand where another does: both are made of whole sections, or of blocks. */
export function canStandFor(one: Page, other: Page): boolean {
  return getNode(one, one.root).kind === getNode(other, other.root).kind
}

/** Why these blocks can't become a shared section, as a sentence; undefined when they can. */
export function sharedRefusal(page: Page, ids: readonly NodeId[], registry: Registry): string | undefined {
  if (ids.length === 0) return 'Select the blocks or sections first that are to be shared'
  const groups = new Set(ids.map((id) => getKind(registry, getNode(page, id).kind).group))
  if (groups.has('root')) return 'A header or a footer stands on every page already'
  if (groups.has('item')) return 'Select the whole block: an item alone can’t be shared'
  if (groups.size > 1) return 'Select blocks or sections, not both'
  const place = findPlace(page, ids[0]!)
  const { instance } = KINDS[groups.has('section') ? 'section' : 'flow']
  // Where only pictures stand, or buttons, nothing stands for one of them.
  return (
    place && slotRefusal(registry, getNode(page, place.parentId), place.slot, { kind: instance, present: 0 })
  )
}

/** A shared section with a copy of some blocks of a page, in the order given, with ids of its own. They stay as they are. */
export function sharedPartOf(page: Page, ids: readonly NodeId[], registry: Registry, newId: NewId): Page {
  const copies = ids.map((id) => copyFragment(page, id, newId))
  const nodes = Object.assign({}, ...copies.map((one) => one.nodes)) as Record<NodeId, PageNode>
  const isSections = getKind(registry, getNode(page, ids[0]!).kind).group === 'section'
  const root = newId()
  const blocks = copies.map(({ rootId }) => rootId)
  nodes[root] = newNode(getKind(registry, KINDS[isSections ? 'section' : 'flow'].root), { slots: { blocks } })
  return { format: PAGE_FORMAT, root, nodes }
}

/** The document with this id for its root, as parts are stored. */
export function withRootId(document: Page, root: NodeId): Page {
  const { [document.root]: old, ...nodes } = document.nodes
  return { ...document, root, nodes: { ...nodes, [root]: old! } }
}

/** An instance of a shared section. */
export function instanceFragment(part: string, document: Page, registry: Registry, newId: NewId): Fragment {
  const { kind } = getNode(document, document.root)
  const level = Object.values(KINDS).find(({ root }) => root === kind)
  if (!level) throw new RangeError(`A "${kind}" is not shown by instances`)
  const rootId = newId()
  const fills = slotsOf(getNode(document, document.root)).map(
    ({ id }) => [newId(), newNode(getKind(registry, 'slot-fill'), { content: { slot: id } })] as const,
  )
  const slots = { [FILLS_SLOT]: fills.map(([id]) => id) }
  const node = newNode(getKind(registry, level.instance), { content: { part }, slots })
  return { rootId, nodes: { ...Object.fromEntries(fills), [rootId]: node } }
}

/** Edits that put an instance in the place of the blocks that its part was made of. */
export function becomeInstanceEdits(page: Page, ids: readonly NodeId[], instance: Fragment): readonly Edit[] {
  const place = findPlace(page, ids[0]!)
  if (!place) return []
  return [
    ...ids.map((nodeId): Edit => ({ edit: 'remove', nodeId })),
    { edit: 'insert', ...place, ...instance },
  ]
}

/**
 * Edits that put copies of what an instance shows in its place, with ids of their own: visitors see what they saw. None
 * where it shows nothing. `copies` are the ids of the copies of what stands first in the part.
 */
export function ownCopyEdits(
  session: Page,
  instanceId: NodeId,
  registry: Registry,
  newId: NewId,
): { readonly edits: readonly Edit[]; readonly copies: readonly NodeId[] } {
  const part = linkedPart(getNode(session, instanceId), registry)
  const source = part === undefined ? undefined : findNode(session, part)
  const place = findPlace(session, instanceId)
  if (!source || !place) return { edits: [], copies: [] }
  const { nodes } = session
  const shown = { instance: getNode(session, instanceId), nodes, root: source, partNodes: nodes }
  const fragments = shownCopies(shown, registry, newId)
  const inserts = fragments.map((fragment, i): Edit => ({
    edit: 'insert',
    ...place,
    index: place.index + i,
    ...fragment,
  }))
  return {
    edits: [{ edit: 'remove', nodeId: instanceId }, ...inserts],
    copies: fragments.map(({ rootId }) => rootId),
  }
}

/** Where an instance stands, and the part that it shows. */
interface Shown {
  readonly instance: PageNode
  readonly nodes: Page['nodes']
  readonly root: PageNode
  readonly partNodes: Page['nodes']
}

/** Copies of what an instance shows, with ids of their own, in their order. */
function shownCopies(shown: Shown, registry: Registry, newId: NewId): readonly Fragment[] {
  const nodes = { ...shown.partNodes }
  for (const [id, values] of valuesByNode(shown.root, shown.instance) ?? [])
    if (Object.hasOwn(nodes, id)) nodes[id] = filledIn(nodes[id]!, values, registry)
  const fills = fillsOf(shown.instance, shown.nodes, registry)
  for (const slot of slotsOf(shown.root)) {
    const fill = fills.get(slot.id)
    const blocks = fill === undefined ? [] : shownInSlot(shown.nodes[fill]!, slot, { ...shown, registry })
    if (blocks.length === 0) continue
    // The document may have the ids of the part, too.
    const copies = blocks.map((id) => copyFragment(shown, id, newId))
    Object.assign(nodes, ...copies.map((one) => one.nodes))
    const holder = nodes[slot.node]!
    nodes[slot.node] = {
      ...holder,
      slots: { ...holder.slots, [slot.slot]: copies.map(({ rootId }) => rootId) },
    }
  }
  return childIds(shown.root).map((id) => copyFragment({ nodes }, id, newId))
}

/** A document with copies of what a part shows in the place of its instances, each with ids of its own. */
export function withCopies(
  document: Page,
  part: string,
  source: Page,
  registry: Registry,
  newId: NewId,
): Page {
  const nodes: Record<NodeId, PageNode> = {}
  const isInstance = (id: NodeId): boolean => linkedPart(getNode(document, id), registry) === part
  const root = getNode(source, source.root)
  const copies = (id: NodeId): NodeId[] => {
    const instance = getNode(document, id)
    const shown = { instance, nodes: document.nodes, root, partNodes: source.nodes }
    return shownCopies(shown, registry, newId).map((fragment) => {
      Object.assign(nodes, fragment.nodes)
      return fragment.rootId
    })
  }
  const gone = new Set(
    Object.keys(document.nodes).flatMap((id) => (isInstance(id) ? subtreeIds(document, id) : [])),
  )
  for (const [id, node] of Object.entries(document.nodes)) {
    if (gone.has(id)) continue
    const slots = Object.entries(node.slots).map(([slot, children]) => [
      slot,
      children.some(isInstance)
        ? children.flatMap((child) => (isInstance(child) ? copies(child) : [child]))
        : children,
    ])
    nodes[id] = { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }
  }
  // What filled a slot of an instance may show the same part.
  const next = { ...document, nodes }
  return gone.size > 0 ? withCopies(next, part, source, registry, newId) : next
}

/** The parts that a document shows itself, each once. */
export function partsShownBy(
  document: Pick<Page, 'nodes'>,
  ids: Iterable<NodeId>,
  registry: Registry,
): readonly string[] {
  const parts = new Set<string>()
  for (const id of ids) {
    const part = linkedPart(getNode(document, id), registry)
    if (part !== undefined) parts.add(part)
  }
  return [...parts]
}

/**
 * The parts of a ring, each shown by the one before it and the first by the last, or undefined where there is none.
 * `shows` gives the parts that a part shows.
 */
export function findRing(
  parts: Iterable<string>,
  shows: (part: string) => readonly string[],
): readonly string[] | undefined {
  const done = new Set<string>()
  const follow = (part: string, way: readonly string[]): readonly string[] | undefined => {
    const at = way.indexOf(part)
    if (at >= 0) return way.slice(at)
    if (done.has(part)) return undefined
    for (const next of shows(part)) {
      const ring = follow(next, [...way, part])
      if (ring) return ring
    }
    done.add(part)
    return undefined
  }
  for (const part of parts) {
    const ring = follow(part, [])
    if (ring) return ring
  }
  return undefined
}

/** The ring that parts joined to a session would stand in; undefined where there is none. */
export function ringIn(session: Page, registry: Registry): readonly string[] | undefined {
  const joined = getNode(session, session.root).slots[JOINED_PARTS] ?? []
  return findRing(joined, (part) =>
    joined.includes(part) ? partsShownBy(session, subtreeIds(session, part), registry) : [],
  )
}

/** The parts that a session's page, header and footer show now, at whatever depth. */
export function shownParts(session: Page, registry: Registry): readonly string[] {
  return [...instancesIn(session, registry).keys()]
}

/** The ids of the instances that a shown node stands in, from the outside in, and then its own. */
export function stepsOf(shown: ShownId): readonly NodeId[] {
  return shown.split('/')
}

/** The id of a shown node in the document where it is stored. */
export function originOf(shown: ShownId): NodeId {
  return shown.slice(shown.lastIndexOf('/') + 1)
}

/** What a shown node stands in, as the shown id of the innermost instance; empty for what stands on the page itself. */
export function instanceAround(shown: ShownId): ShownId {
  return shown.slice(0, Math.max(0, shown.lastIndexOf('/')))
}

/**
 * The shown id of a node of a session. Where its part is shown several times, it is the one in the instance `around`, or
 * else the first on the page; its own id where it is not shown at all.
 */
export function shownIdOf(session: Page, id: NodeId, around: ShownId, registry: Registry): ShownId {
  const part = partAt(session, id)
  if (!getNode(session, session.root).slots[JOINED_PARTS]?.includes(part)) return id
  const last = around === '' ? undefined : findNode(session, originOf(around))
  const instance =
    last && linkedPart(last, registry) === part ? around : firstInstance(session, part, registry)
  return instance === undefined ? id : `${instance}/${id}`
}

/** The shown id of the block that a node of a session is seen as: of what fills a slot, the block that the slot is. */
export function seenIdOf(session: Page, id: NodeId, around: ShownId, registry: Registry): ShownId {
  const filled = slotOfFill(session, id, registry)
  if (!filled) return shownIdOf(session, id, around, registry)
  const instance = shownIdOf(session, findPlace(session, id)!.parentId, around, registry)
  return `${instance}/${filled.slot.node}`
}

const firsts = new WeakMap<Page['nodes'], Map<string, ShownId>>()

/** The shown id of the first instance of a part; undefined where there is none on the page. */
function firstInstance(session: Page, part: string, registry: Registry): ShownId | undefined {
  return instancesIn(session, registry).get(part)
}

function instancesIn(session: Page, registry: Registry): ReadonlyMap<string, ShownId> {
  const known = firsts.get(session.nodes) ?? listInstances(session, registry)
  firsts.set(session.nodes, known)
  return known
}

function listInstances(session: Page, registry: Registry): Map<string, ShownId> {
  const found = new Map<string, ShownId>()
  const { [JOINED_PARTS]: joined = [], ...slots } = getNode(session, session.root).slots
  const look = (id: NodeId, within: string): void => {
    for (const one of subtreeIds(session, id)) {
      const part = linkedPart(getNode(session, one), registry)
      if (part === undefined || found.has(part)) continue
      found.set(part, within + one)
      if (joined.includes(part)) look(part, `${within}${one}/`)
    }
  }
  for (const id of Object.values(slots).flat()) look(id, '')
  return found
}
