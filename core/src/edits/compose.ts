/** Acts that are made of edits. They make no change themselves: they give the edits to apply. */
import type { Registry } from '../blocks/registry.ts'
import { slotOfFill } from '../resolve/instance-slots.ts'
import { shownSlots } from '../resolve/shown.ts'
import { newNode, slotAllows, type BlockDefinition, type SlotDefinition } from '../blocks/define-block.ts'
import { getKind } from '../blocks/registry.ts'
import { getNode, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { ancestry, childIds, findPlace, subtreeIds } from '../page/walk.ts'
import { sharedIds } from '../site/session-page.ts'
import type { Edit, Insert, Move } from './edit-shapes.ts'
import { placingRefusal, type Target } from './placing.ts'

/** Makes a new id; handed in, since core has no chance. */
export type NewId = () => NodeId

/** A part of a page that can be placed: nodes and the one that holds the others. */
export interface Fragment {
  readonly rootId: NodeId
  readonly nodes: Nodes
}

/** A copy of a node and all inside it, with new ids. */
export function copyFragment(source: Pick<Page, 'nodes'>, rootId: NodeId, newId: NewId): Fragment {
  const ids = new Map(subtreeIds(source, rootId).map((id) => [id, newId()]))
  const nodes: Record<NodeId, PageNode> = {}
  for (const [oldId, id] of ids) {
    const node = getNode(source, oldId)
    const slots = Object.entries(node.slots).map(([slot, children]) => [
      slot,
      children.map((child) => ids.get(child)!),
    ])
    nodes[id] = { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }
  }
  return { rootId: ids.get(rootId)!, nodes }
}

/** Puts a copy of a node right after it. Undefined for the root, which stands alone. */
export function duplicateEdit(page: Page, id: NodeId, newId: NewId): Insert | undefined {
  const place = findPlace(page, id)
  return place && { edit: 'insert', ...place, index: place.index + 1, ...copyFragment(page, id, newId) }
}

/** Moves a node one place up or down among its siblings; undefined when it already stands first or last. */
export function stepMoveEdit(page: Page, id: NodeId, direction: 'up' | 'down'): Move | undefined {
  const place = findPlace(page, id)
  if (!place) return undefined
  const toIndex = place.index + (direction === 'up' ? -1 : 1)
  const siblings = getNode(page, place.parentId).slots[place.slot]!
  if (toIndex < 0 || toIndex >= siblings.length) return undefined
  return { edit: 'move', nodeId: id, toParentId: place.parentId, toSlot: place.slot, toIndex }
}

/** The edit that puts a node where one of its siblings is, which gives way; undefined where they are no siblings, or one and the same. */
export function siblingMoveEdit(page: Page, id: NodeId, siblingId: NodeId): Move | undefined {
  const [place, at] = [findPlace(page, id), findPlace(page, siblingId)]
  if (!place || !at || id === siblingId || place.parentId !== at.parentId || place.slot !== at.slot)
    return undefined
  return { edit: 'move', nodeId: id, toParentId: at.parentId, toSlot: at.slot, toIndex: at.index }
}

/**
 * Places fragments at a target, one after another. Blocks dropped where only sections or items stand get one of those around
 * them, since that is what the person meant.
 */
export function placeEdits(
  page: Page,
  target: Target,
  fragments: readonly Fragment[],
  registry: Registry,
  newId: NewId,
): readonly Insert[] {
  const [first] = fragments
  if (!first) return []
  const kind = first.nodes[first.rootId]!.kind
  const holder = holderFor(slotAt(page, target, registry), kind, registry)
  if (!holder)
    return fragments.map((fragment, i) => ({
      edit: 'insert',
      ...target,
      index: target.index + i,
      ...fragment,
    }))
  const rootId = newId()
  const inside = fragments.map((fragment) => fragment.rootId)
  const around = newNode(holder, { slots: { [slotsOf(holder)[0]!]: inside } })
  const nodes = Object.assign({}, ...fragments.map((one) => one.nodes)) as Nodes
  return [{ edit: 'insert', ...target, rootId, nodes: { ...nodes, [rootId]: around } }]
}

/** The same for one fragment. */
export function placeEdit(
  page: Page,
  target: Target,
  fragment: Fragment,
  registry: Registry,
  newId: NewId,
): Insert {
  return placeEdits(page, target, [fragment], registry, newId)[0]!
}

/** What a slot of a node takes: of an instance, what its part says. Undefined where the node has no such slot. */
export function slotAt(
  page: Page,
  { parentId, slot }: Pick<Target, 'parentId' | 'slot'>,
  registry: Registry,
): SlotDefinition | undefined {
  const filled = slotOfFill(page, parentId, registry)
  return filled ? filled.taking : getKind(registry, getNode(page, parentId).kind).slots[slot]
}

/** What a block needs around it to stand in a slot that does not take it by itself: a section, a column, a panel. */
export function holderFor(
  allow: SlotDefinition | undefined,
  kind: string,
  registry: Registry,
): BlockDefinition | undefined {
  const child = registry.kinds.get(kind)
  if (!allow || !child || slotAllows(allow, child)) return undefined
  return [...registry.kinds.values()].find((holder) => {
    const [inner] = slotsOf(holder)
    const isSimple = holder.isHolder === true || (holder.group === 'item' && !holder.fillsSlot)
    return (
      isSimple && inner !== undefined && slotAllows(allow, holder) && slotAllows(holder.slots[inner]!, child)
    )
  })
}

function slotsOf(definition: BlockDefinition): string[] {
  return Object.keys(definition.slots)
}

/**
 * Where something new goes when a person has selected a node and says "add": the nearest place after it that takes
 * the kind, from the inside out; at the end of the page when nothing is selected.
 */
export function placeAfter(
  page: Page,
  selectedId: NodeId | undefined,
  kind: string,
  registry: Registry,
): Target {
  for (const id of selectedId === undefined ? [] : ancestry(page, selectedId)) {
    const place = findPlace(page, id)
    const node = getNode(page, id)
    const [slot] = Object.keys(node.slots)
    if (id === selectedId && slot && takes(page, id, slot, kind, registry)) {
      return { parentId: id, slot, index: node.slots[slot]!.length }
    }
    if (place && takes(page, place.parentId, place.slot, kind, registry)) {
      return { parentId: place.parentId, slot: place.slot, index: place.index + 1 }
    }
  }
  const root = getNode(page, page.root)
  const shown = shownSlots(root, registry)
  const slot = shown.find((one) => takes(page, page.root, one, kind, registry)) ?? shown[0] ?? 'sections'
  return { parentId: page.root, slot, index: root.slots[slot]?.length ?? 0 }
}

function takes(page: Page, parentId: NodeId, slot: string, kind: string, registry: Registry): boolean {
  return placingRefusal(page, { parentId, slot, index: 0 }, kind, registry) === undefined
}

/**
 * Puts siblings, in the order they stand in, into a new container where the first of them stands. `ids` are in that
 * order; `kind` has one slot. Whether the container may stand there and take them, the edits find out.
 */
export function wrapEdits(
  page: Page,
  ids: readonly NodeId[],
  kind: string,
  registry: Registry,
  newId: NewId,
): { readonly edits: readonly Edit[]; readonly containerId: NodeId } | undefined {
  const place = ids[0] === undefined ? undefined : findPlace(page, ids[0])
  const definition = getKind(registry, kind)
  const [toSlot] = Object.keys(definition.slots)
  if (!place || toSlot === undefined) return undefined
  const containerId = newId()
  const insert: Insert = {
    edit: 'insert',
    ...place,
    rootId: containerId,
    nodes: { [containerId]: newNode(definition) },
  }
  const moves = ids.map((nodeId, toIndex): Move => ({
    edit: 'move',
    nodeId,
    toParentId: containerId,
    toSlot,
    toIndex,
  }))
  return { edits: [insert, ...moves], containerId }
}

/** Puts what a container holds where the container stands, and takes the container away. Undefined for what holds nothing. */
export function unwrapEdits(page: Page, id: NodeId): readonly Edit[] | undefined {
  const place = findPlace(page, id)
  const children = childIds(getNode(page, id))
  if (!place || children.length === 0) return undefined
  const moves = children.map((nodeId, i): Move => ({
    edit: 'move',
    nodeId,
    toParentId: place.parentId,
    toSlot: place.slot,
    toIndex: place.index + 1 + i,
  }))
  return [...moves, { edit: 'remove', nodeId: id }]
}

/**
 * Edits that turn one page into another that has the same root: all its sections go, the other's come. What stands in a
 * shared section of both is replaced in the same way; the section itself stays.
 */
export function replaceEdits(from: Page, to: Page): Edit[] {
  const staying = sharedIds(from).filter((id) => sharedIds(to).includes(id))
  const isMoved = (id: NodeId): boolean => !staying.includes(id)
  const goes = childIds(getNode(from, from.root))
    .filter(isMoved)
    .map((nodeId): Edit => ({ edit: 'remove', nodeId }))
  const comes = Object.entries(getNode(to, to.root).slots).flatMap(([slot, children]) =>
    children.filter(isMoved).map((rootId, index): Edit => {
      const nodes = Object.fromEntries(subtreeIds(to, rootId).map((id) => [id, getNode(to, id)]))
      return { edit: 'insert', parentId: from.root, slot, index, rootId, nodes }
    }),
  )
  const inShared = staying.flatMap((root) => replaceEdits({ ...from, root }, { ...to, root }))
  return [...goes, ...comes, ...inShared]
}
