/** Shared sections: made of blocks that are selected, and shown by instances. */
import { FILLS_SLOT, slotsOf } from '../blocks/component-slots.ts'
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { slotRefusal } from '../blocks/slots.ts'
import { copyFragment, type Fragment, type NewId } from '../edits/compose.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { findPlace } from '../page/walk.ts'
import type { PartType } from './part-facts.ts'

/** The kinds that go together: what a shared section of whole sections, or of blocks, is stored and shown as. */
const KINDS = {
  section: { root: 'shared-sections', instance: 'linked-sections' },
  flow: { root: 'shared-blocks', instance: 'linked-blocks' },
} as const

/** The kinds that a shared section can be stored as. */
export const SHARED_ROOTS: readonly string[] = Object.values(KINDS).map(({ root }) => root)

/** The kinds that the root of each type of part may be of. */
export const PART_ROOTS: Readonly<Record<PartType, readonly string[]>> = {
  pattern: ['pattern'],
  shared: SHARED_ROOTS,
  template: ['page'],
}

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
