/**
 * Replaces the instances on a page by the blocks of their parts, so that everything after it (headings, widths, checks,
 * rendering) works on a page of plain blocks.
 */
import {
  FIELDS_KEY,
  filledIn,
  VARIANT_KEY,
  VARIANTS_KEY,
  valuesByNode,
  type FilledIn,
} from '../blocks/component-fields.ts'
import { filledSlot, fillsOf, shownInSlot, slotsOf, SLOTS_KEY } from '../blocks/component-slots.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { sameJson } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { changedIds, withNodes } from '../page/with-nodes.ts'
import { JOINED_PARTS } from '../page/joined.ts'
import { handedOn, joinedSizes, sameHandedOn, withHandedOn, type HandedOn } from './handed-on.ts'

/**
 * The id of a node as it is shown: its own on its own page; inside an instance, the id of that, a slash and its own, to
 * any depth.
 */
export type ShownId = NodeId

/** The id of a shown node in the document where it is stored. */
export function originOf(shown: ShownId): NodeId {
  return shown.slice(shown.lastIndexOf('/') + 1)
}

/** Documents by their ids, as rendering asks for them. */
export type Parts = Readonly<Record<string, Page>>

/** So many nodes at most are shown on a page: parts in parts multiply. Instances beyond show nothing, and checks say so. */
export const MOST_SHOWN = 20_000

/** A part: the document that holds its blocks, and the id of its root there. */
export interface PartIn {
  readonly root: NodeId
  readonly nodes: Nodes
}

/** A node that is shown as another one than it is stored. */
interface Made {
  readonly source: PageNode
  /** What the instance that it stands in has for it. */
  readonly filled: FilledIn | undefined
  /** What the instance in whose place it stands hands on to it. */
  readonly handed: HandedOn | undefined
  readonly node: PageNode
}

/** The id of the document that a node is an instance of; undefined for all others. */
export function linkedPart(node: PageNode, registry: Registry): string | undefined {
  return getKind(registry, node.kind).linksTo?.(node.content)
}

/** The document that is shown in the place of an instance, as a part joined to the page or one of those given. */
function sourceOf(page: Page, parts: Parts, id: string): PartIn | undefined {
  const isJoined = getNode(page, page.root).slots[JOINED_PARTS]?.includes(id) ?? false
  if (isJoined) return { root: id, nodes: page.nodes }
  return Object.hasOwn(parts, id) ? parts[id] : undefined
}

/** What parts and instances say that decides what is shown. */
const SHAPING = [FIELDS_KEY, VARIANTS_KEY, SLOTS_KEY, VARIANT_KEY]

/**
 * Expands one document again and again as it is edited.
 *
 * Invariant: `update` gives what a first `update` with the same would give, and a node of which nothing changed is the
 * same object as before. A document without instances is given back as it is.
 */
export class Expander {
  readonly #registry: Registry
  readonly #parts: Parts
  #last: { readonly page: Page; readonly expanded: Page } | undefined
  #hasLinks = false
  #worked: ShownId = ''
  #made = new Map<ShownId, Made>()
  /** Where nodes of the page are shown that are shown elsewhere, or otherwise, than they are stored. */
  #shownAs = new Map<NodeId, ShownId[]>()
  #foreign = new Map<string, PartIn | undefined>()

  /** `parts` are the documents that are not joined to the page. */
  constructor(registry: Registry, parts: Parts = {}) {
    this.#registry = registry
    this.#parts = parts
  }

  /** `worked` is the instance in which its part is edited: it shows what the part says, and not what it fills in itself. */
  update(page: Page, worked: ShownId = ''): Page {
    const last = this.#last
    const isSameWorked = worked === this.#worked
    this.#worked = worked
    if (last?.page === page && isSameWorked && this.#areSameParts()) return last.expanded
    const changed = last ? changedIds(last.page.nodes, page.nodes) : Object.keys(page.nodes)
    this.#hasLinks ||= changed.some((id) => this.#linkOf(findNode(page, id)) !== undefined)
    const expanded = this.#hasLinks ? this.#expand(page, changed, isSameWorked) : page
    this.#last = { page, expanded }
    return expanded
  }

  #linkOf(node: PageNode | undefined): string | undefined {
    return node && linkedPart(node, this.#registry)
  }

  #areSameParts(): boolean {
    for (const [id, source] of this.#foreign) {
      const now = Object.hasOwn(this.#parts, id) ? this.#parts[id] : undefined
      if (now?.nodes !== source?.nodes) return false
    }
    return true
  }

  #expand(page: Page, changed: readonly NodeId[], isSameWorked: boolean): Page {
    const last = this.#last
    const isAlike = last && isSameWorked && last.expanded !== last.page && this.#areSameParts()
    if (isAlike && !changed.some((id) => this.#movesThings(last.page.nodes[id], page.nodes[id])))
      return this.#withContent(last.expanded, page, changed)
    const before = this.#made
    this.#walk(page)
    const next: Record<NodeId, PageNode> = {}
    const from = last?.expanded.nodes ?? page.nodes
    const put = (id: NodeId, node: PageNode): void => {
      if (from[id] !== node) next[id] = node
    }
    for (const id of changed) {
      const node = findNode(page, id)
      if (node && !this.#made.has(id)) put(id, node)
    }
    for (const [id, { node }] of this.#made) put(id, node)
    const gone = changed.filter((id) => !findNode(page, id))
    for (const id of before.keys()) {
      if (this.#made.has(id)) continue
      const own = findNode(page, id)
      if (own) put(id, own)
      else gone.push(id)
    }
    return { ...page, nodes: withNodes(from, next, gone) }
  }

  /** Whether a change is of more than what a node says: others may be shown, or shown elsewhere. */
  #movesThings(before: PageNode | undefined, after: PageNode | undefined): boolean {
    return (
      before === undefined ||
      after === undefined ||
      before.slots !== after.slots ||
      before.kind !== after.kind ||
      this.#linkOf(before) !== this.#linkOf(after) ||
      (this.#linkOf(after) !== undefined && before.sizes !== after.sizes) ||
      before.values !== after.values ||
      filledSlot(before, this.#registry) !== filledSlot(after, this.#registry) ||
      // The root of a part says which of its blocks are filled in or are slots, and an instance of which variant it is.
      SHAPING.some((key) => before.content[key] !== after.content[key])
    )
  }

  /** The same nodes, each shown where it was, some of which say something else. */
  #withContent(expanded: Page, page: Page, changed: readonly NodeId[]): Page {
    const next: Record<NodeId, PageNode> = {}
    for (const id of changed) {
      const source = getNode(page, id)
      next[id] = source
      for (const shown of this.#shownAs.get(id) ?? []) {
        const { filled, handed, node: was } = this.#made.get(shown)!
        const node = { ...this.#madeOf(source, filled, handed), slots: was.slots }
        this.#made.set(shown, { source, filled, handed, node })
        next[shown] = node
      }
    }
    return { ...page, nodes: withNodes(expanded.nodes, next) }
  }

  #madeOf(source: PageNode, filled: FilledIn | undefined, handed: HandedOn | undefined): PageNode {
    return withHandedOn(filled === undefined ? source : filledIn(source, filled, this.#registry), handed)
  }

  #walk(page: Page): void {
    const before = this.#made
    const made = (this.#made = new Map<ShownId, Made>())
    const shownAs = (this.#shownAs = new Map<NodeId, ShownId[]>())
    const foreign = (this.#foreign = new Map<string, PartIn | undefined>())
    let count = 0
    const find = (id: string): PartIn | undefined => {
      const source = sourceOf(page, this.#parts, id)
      if (source?.nodes !== page.nodes) foreign.set(id, source)
      return source
    }
    const visit = (nodes: Nodes, id: NodeId, within: string, at: Within, handed?: HandedOn): ShownId => {
      const shown = within + id
      const source = nodes[id]!
      const filled = at.values?.get(id)
      count++
      /** The slots whose lists are other ones than stored. */
      let others: Record<string, readonly ShownId[]> | undefined
      for (const slot in source.slots) {
        const children = source.slots[slot]!
        const fill = at.fills?.get(id)?.get(slot)
        if ((children.length === 0 && !fill) || (id === page.root && slot === JOINED_PARTS)) continue
        const list: ShownId[] = []
        // What fills a slot stands where its instance does, and is shown there under the ids that it has there.
        if (fill) for (const child of fill.children) show(list, fill.nodes, child, fill.within, fill.at)
        else for (const child of children) show(list, nodes, child, within, at)
        if (!sameIds(list, children)) (others ??= {})[slot] = list
      }
      if (within === '' && others === undefined) return shown
      const was = before.get(shown)
      const isKept =
        was?.source === source &&
        sameValues(was.filled, filled) &&
        sameHandedOn(was.handed, handed) &&
        hasLists(was.node, source, others)
      const own = isKept ? was.node : this.#madeOf(source, filled, handed)
      const node = isKept || !others ? own : { ...own, slots: { ...source.slots, ...others } }
      made.set(shown, { source, filled, handed, node })
      if (nodes === page.nodes) {
        const places = shownAs.get(id)
        if (places) places.push(shown)
        else shownAs.set(id, [shown])
      }
      return shown
    }
    /** Adds a node to the list or, where it is an instance, the blocks of its part. */
    const show = (
      list: ShownId[],
      nodes: Nodes,
      id: NodeId,
      within: string,
      at: Within,
      handed?: HandedOn,
    ): void => {
      const instance = nodes[id]!
      const part = this.#linkOf(instance)
      // Parts that stand in each other would never end.
      const isFollowed = part !== undefined && !at.ring.includes(part) && count <= MOST_SHOWN
      const source = isFollowed ? find(part) : undefined
      const root = source?.nodes[source.root]
      const inside = root ? Object.values(root.slots).flat() : NONE
      if (!source || inside.length === 0) return void list.push(visit(nodes, id, within, at, handed))
      const isFilledIn = within + id !== this.#worked
      const values = isFilledIn ? valuesByNode(root!, instance) : undefined
      const fills = isFilledIn ? this.#fillsFor(source, instance, { nodes, within, at }) : undefined
      const next = { ring: [...at.ring, part!], values, fills }
      const inner = `${within}${id}/`
      for (const [i, one] of inside.entries()) {
        const more = joinedSizes(handedOn(instance.sizes, i === 0), handed && handedOn(handed, i === 0))
        show(list, source.nodes, one, inner, next, more)
      }
    }
    visit(page.nodes, page.root, '', { ring: [], values: undefined, fills: undefined })
  }

  /** What an instance puts in the slots of its part, by the block and the slot; undefined where it puts nothing. */
  #fillsFor(source: PartIn, instance: PageNode, place: Omit<Fill, 'children'>): Within['fills'] {
    const filled = fillsOf(instance, place.nodes, this.#registry)
    if (filled.size === 0) return undefined
    const fills = new Map<NodeId, Map<string, Fill>>()
    for (const slot of slotsOf(source.nodes[source.root]!)) {
      const fill = filled.get(slot.id)
      if (!fill) continue
      const where = { nodes: place.nodes, partNodes: source.nodes, registry: this.#registry }
      const children = shownInSlot(fill, slot, where)
      const ofBlock = fills.get(slot.node) ?? new Map<string, Fill>()
      if (children.length > 0 && !ofBlock.has(slot.slot))
        fills.set(slot.node, ofBlock.set(slot.slot, { ...place, children }))
    }
    return fills
  }
}

/** What the nodes stand in that are gone through. */
interface Within {
  /** The parts around them, from the outside in. */
  readonly ring: readonly string[]
  /** What the innermost instance has for them. */
  readonly values: ReadonlyMap<NodeId, FilledIn> | undefined
  /** What it has for their slots. */
  readonly fills: ReadonlyMap<NodeId, ReadonlyMap<string, Fill>> | undefined
}

/** Blocks in a slot of a part that stand in another document, and what those stand in. */
interface Fill {
  readonly children: readonly NodeId[]
  readonly nodes: Nodes
  readonly within: string
  readonly at: Within
}

function sameValues(one: FilledIn | undefined, other: FilledIn | undefined): boolean {
  return sameJson(one?.content, other?.content) && sameJson(one?.look, other?.look)
}

/** Whether a node has these lists in its slots, and in the others those that are stored. */
function hasLists(node: PageNode, source: PageNode, others: PageNode['slots'] | undefined): boolean {
  for (const slot in source.slots)
    if (!sameIds(node.slots[slot]!, others?.[slot] ?? source.slots[slot]!)) return false
  return true
}

const NONE: readonly NodeId[] = []

function sameIds(one: readonly NodeId[], other: readonly NodeId[]): boolean {
  return one.length === other.length && one.every((id, i) => id === other[i])
}

/** A document with its instances as what they show, once. */
export function expandParts(page: Page, registry: Registry, parts?: Parts): Page {
  return new Expander(registry, parts).update(page)
}
