/**
 * A page with its site's header and footer as one tree, so that one selection, one undo line and one save go over all of
 * them. They hang from the page's root, in slots of their own that no page is stored with and no layout shows: what is
 * asked of the page alone, such as its outline, goes on without them.
 */
import type { BlockDefinition } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { ancestry, childIds } from '../page/walk.ts'

/** What stands on every page, in its order on the page; also the slots that they hang in. */
export const SHARED_NAMES = ['header', 'footer'] as const
export type SharedName = (typeof SHARED_NAMES)[number]

/** The documents that are edited together. */
export type SessionPart = 'page' | SharedName
export type SessionParts = Readonly<Record<SessionPart, Page>>

/** The registry with which such a tree is edited: a page has a slot for each shared section. */
export function sessionRegistry(registry: Registry): Registry {
  const page = getKind(registry, 'page')
  const shared = Object.fromEntries(
    SHARED_NAMES.map((name) => {
      const { title, kind } = getKind(registry, `site-${name}`)
      return [name, { title, allow: [kind], max: 1 }]
    }),
  )
  const withShared: BlockDefinition = { ...page, slots: { ...page.slots, ...shared } }
  const kinds = new Map([...registry.kinds, ['page', withShared]])
  return { kinds, check: (kind, part, value) => registry.check(kind, part, value) }
}

/**
 * Joins documents to one tree. A shared section's node whose id a node of the page has, too, gets a new one: it may have
 * come from that page.
 */
export function joinSession({ page, header, footer }: SessionParts, newId: () => NodeId): Page {
  const nodes: Record<NodeId, PageNode> = Object.assign(Object.create(null) as object, page.nodes)
  const roots: Partial<Record<SharedName, NodeId>> = {}
  for (const [name, shared] of [
    ['header', header],
    ['footer', footer],
  ] as const) {
    const free = withFreeIds(shared, nodes, newId)
    Object.assign(nodes, free.nodes)
    roots[name] = free.root
  }
  const root = getNode(page, page.root)
  // In the order in which they stand on the page.
  const slots = { header: [roots.header!], ...root.slots, footer: [roots.footer!] }
  nodes[page.root] = { ...root, slots }
  return { ...page, nodes }
}

function withFreeIds(shared: Page, taken: Readonly<Record<NodeId, unknown>>, newId: () => NodeId): Page {
  const ids = Object.keys(shared.nodes)
  if (!ids.some((id) => Object.hasOwn(taken, id))) return shared
  const renamed = new Map(ids.map((id) => [id, Object.hasOwn(taken, id) ? newId() : id]))
  const nodes = Object.entries(shared.nodes).map(([id, node]) => {
    const slots = Object.entries(node.slots).map(([slot, children]) => [
      slot,
      children.map((child) => renamed.get(child)!),
    ])
    return [renamed.get(id)!, { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }]
  })
  return { ...shared, root: renamed.get(shared.root)!, nodes: Object.fromEntries(nodes) as Page['nodes'] }
}

/** Whether a slot of a page holds a shared section. */
export function isSharedSlot(slot: string): slot is SharedName {
  return SHARED_NAMES.includes(slot as SharedName)
}

/** The root of a shared section; undefined in a page that none was joined to. */
export function sharedRoot(session: Page, name: SharedName): NodeId | undefined {
  return getNode(session, session.root).slots[name]?.[0]
}

/** The roots of the shared sections that are joined to a page. */
export function sharedIds(session: Page): readonly NodeId[] {
  return SHARED_NAMES.flatMap((name) => sharedRoot(session, name) ?? [])
}

/** Returns the ids of the sections and blocks directly on the page, without its header and its footer. */
export function pageChildIds(session: Page): readonly NodeId[] {
  return childIds(withoutShared(getNode(session, session.root)))
}

/** Which of the documents a node belongs to. */
export function partAt(session: Page, id: NodeId): SessionPart {
  const top = ancestry(session, id).at(-2)
  return SHARED_NAMES.find((name) => top !== undefined && sharedRoot(session, name) === top) ?? 'page'
}

/** The root of a page as it is stored, without what was joined to it. */
export function withoutShared(root: PageNode): PageNode {
  const slots = Object.entries(root.slots).filter(([slot]) => !isSharedSlot(slot))
  return { ...root, slots: Object.fromEntries(slots) }
}
