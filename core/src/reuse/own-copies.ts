/** Instances turned into copies of what they show. */
import { filledIn, valuesByNode } from '../blocks/component-fields.ts'
import { fillsOf, shownInSlot, slotsOf } from '../blocks/component-slots.ts'
import type { Registry } from '../blocks/registry.ts'
import { copyFragment, type Fragment, type NewId } from '../edits/compose.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { childIds, findPlace, subtreeIds } from '../page/walk.ts'
import { linkedPart } from '../resolve/expand.ts'
import { handedOn, withHandedOn } from '../resolve/handed-on.ts'

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
    const blocks = fill ? shownInSlot(fill, slot, { ...shown, registry }) : []
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
  return childIds(shown.root).map((id, i) => {
    const { rootId, nodes: copied } = copyFragment({ nodes }, id, newId)
    const handed = handedOn(shown.instance.sizes, i === 0)
    return { rootId, nodes: { ...copied, [rootId]: withHandedOn(copied[rootId]!, handed) } }
  })
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
