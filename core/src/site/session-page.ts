/**
 * A page with its site's header and footer, and with the parts that they show, as one tree, so that one selection, one undo
 * line and one save go over all of them. They hang from the page's root, in slots of their own that no page is stored with
 * and no layout shows: what is asked of the page alone, such as its outline, goes on without them. The root of a part has
 * the id of its document there.
 */
import { FIELDS_KEY } from '../blocks/component-fields.ts'
import { SLOTS_KEY } from '../blocks/component-slots.ts'
import type { BlockDefinition } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { JsonObject } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { JOINED_PARTS } from '../page/joined.ts'
import { withNodes } from '../page/with-nodes.ts'
import { ancestry, childIds } from '../page/walk.ts'

/** What stands on every page, in its order on the page; also the slots that they hang in. */
export const FRAME_NAMES = ['header', 'footer'] as const
export type FrameName = (typeof FRAME_NAMES)[number]

/** A document that a page shares with others: its header, its footer, or a part by the id of its document. */
export type SharedName = string

/** A document that is edited with others: the page itself, or what it shares. */
export type SessionPart = string

/** What is joined to one tree. */
export interface SessionParts extends Readonly<Record<'page' | FrameName, Page>> {
  /** By the ids of their documents. */
  readonly parts?: Readonly<Record<string, Page>>
}

/** The registry with which such a tree is edited: a page has a slot for each shared section. */
export function sessionRegistry(registry: Registry): Registry {
  const page = getKind(registry, 'page')
  const shared = Object.fromEntries(
    FRAME_NAMES.map((name) => {
      const { title, kind } = getKind(registry, `site-${name}`)
      return [name, { title, allow: [kind], max: 1 }]
    }),
  )
  const parts = { title: 'Shared sections', allow: ['shared-blocks', 'shared-sections'] }
  const slots = { ...page.slots, ...shared, [JOINED_PARTS]: parts }
  const withShared: BlockDefinition = { ...page, slots }
  const kinds = new Map([...registry.kinds, ['page', withShared]])
  return { kinds, check: (kind, part, value) => registry.check(kind, part, value) }
}

/**
 * Joins documents to one tree. A shared section's node whose id a node of the page has, too, gets a new one: it may have
 * come from that page.
 */
export function joinSession({ page, header, footer, parts = {} }: SessionParts, newId: () => NodeId): Page {
  const nodes: Record<NodeId, PageNode> = Object.assign(Object.create(null) as object, page.nodes)
  const join = (shared: Page, rootId?: NodeId): NodeId => {
    const free = withFreeIds(shared, nodes, newId, rootId)
    Object.assign(nodes, free.nodes)
    return free.root
  }
  const root = getNode(page, page.root)
  // In the order in which they stand on the page.
  const slots = {
    header: [join(header)],
    ...root.slots,
    footer: [join(footer)],
    [JOINED_PARTS]: Object.entries(parts).map(([id, part]) => join(part, id)),
  }
  nodes[page.root] = { ...root, slots }
  return { ...page, nodes }
}

/** A session with one more part joined to it; the same one where it has that part already. */
export function joinPart(session: Page, id: string, part: Page, newId: () => NodeId): Page {
  const root = getNode(session, session.root)
  const joined = root.slots[JOINED_PARTS] ?? []
  if (joined.includes(id)) return session
  const free = withFreeIds(part, session.nodes, newId, id)
  const slots = { ...root.slots, [JOINED_PARTS]: [...joined, id] }
  return {
    ...session,
    nodes: withNodes(session.nodes, { ...free.nodes, [session.root]: { ...root, slots } }),
  }
}

/** The document with ids that are not taken, and with this one for its root. */
function withFreeIds(
  shared: Page,
  taken: Readonly<Record<NodeId, unknown>>,
  newId: () => NodeId,
  rootId = shared.root,
): Page {
  const ids = Object.keys(shared.nodes)
  const isFree = (id: NodeId): boolean => !Object.hasOwn(taken, id)
  if (rootId === shared.root && ids.every(isFree)) return shared
  const renamed = new Map(ids.map((id) => [id, isFree(id) && id !== rootId ? id : newId()]))
  if (isFree(rootId)) renamed.set(shared.root, rootId)
  const nodes = Object.entries(shared.nodes).map(([id, node]) => {
    const slots = Object.entries(node.slots).map(([slot, children]) => [
      slot,
      children.map((child) => renamed.get(child)!),
    ])
    const next = { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }
    return [renamed.get(id)!, id === shared.root ? withFieldsOf(next, renamed) : next]
  })
  return { ...shared, root: renamed.get(shared.root)!, nodes: Object.fromEntries(nodes) as Page['nodes'] }
}

/** The root of a part whose fields and slots point at blocks by their new ids. */
function withFieldsOf(root: PageNode, renamed: ReadonlyMap<NodeId, NodeId>): PageNode {
  const pointing = [FIELDS_KEY, SLOTS_KEY].filter((key) => root.content[key] !== undefined)
  if (pointing.length === 0) return root
  const lists = pointing.map((key) => {
    const list = root.content[key] as unknown as readonly { readonly node: NodeId }[]
    return [key, list.map((one) => ({ ...one, node: renamed.get(one.node) ?? one.node }))]
  })
  return { ...root, content: { ...root.content, ...(Object.fromEntries(lists) as JsonObject) } }
}

/** Whether a slot of a page holds what it shares with others. */
export function isSharedSlot(slot: string): boolean {
  return slot === JOINED_PARTS || isFrameName(slot)
}

export function isFrameName(name: string): name is FrameName {
  return FRAME_NAMES.includes(name as FrameName)
}

/** The root of what a page shares; undefined where it is not joined to it. */
export function sharedRoot(session: Page, name: SharedName): NodeId | undefined {
  const { slots } = getNode(session, session.root)
  if (isFrameName(name)) return slots[name]?.[0]
  return slots[JOINED_PARTS]?.includes(name) ? name : undefined
}

/** What is joined to a page, by name: header and footer first. */
export function sharedNames(session: Page): readonly SharedName[] {
  const { slots } = getNode(session, session.root)
  return [...FRAME_NAMES.filter((name) => slots[name]?.[0] !== undefined), ...(slots[JOINED_PARTS] ?? [])]
}

/** The roots of all that is joined to a page. */
export function sharedIds(session: Page): readonly NodeId[] {
  return sharedNames(session).flatMap((name) => sharedRoot(session, name) ?? [])
}

/** Returns the ids of the sections and blocks directly on the page, without what it shares. */
export function pageChildIds(session: Page): readonly NodeId[] {
  return childIds(withoutShared(getNode(session, session.root)))
}

/** Which of the documents a node belongs to. */
export function partAt(session: Page, id: NodeId): SessionPart {
  const top = ancestry(session, id).at(-2)
  return sharedNames(session).find((name) => top !== undefined && sharedRoot(session, name) === top) ?? 'page'
}

/** The root of a page as it is stored, without what was joined to it. */
export function withoutShared(root: PageNode): PageNode {
  const slots = Object.entries(root.slots).filter(([slot]) => !isSharedSlot(slot))
  return { ...root, slots: Object.fromEntries(slots) }
}
