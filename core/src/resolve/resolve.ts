/**
 * The one step from a document to what is drawn and published: it says which nodes are shown, which others stand in each
 * of them, and what each reads of its place.
 */
import type { Look } from '../look/look.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Spot, SpotFact } from '../kit/spot.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { changedIds } from '../page/with-nodes.ts'
import type { ShownId } from './expand.ts'
import { withoutSilent } from './left-out.ts'
import { anchorsChanged, outlineOf } from './outline.ts'
import { shownSlots } from './shown.ts'
import { ANY_SPOT, sameSpot, spotOf } from './spots.ts'

/** A node of a document as it is shown. The same object for as long as nothing of it changes. */
export interface ShownNode {
  readonly id: ShownId
  /** As it is stored. */
  readonly node: PageNode
  /** What of it is shown, slot by slot, in the order on the page. */
  readonly slots: Readonly<Record<string, readonly ShownId[]>>
  readonly spot: Spot
}

export interface ResolveOptions {
  readonly registry: Registry
  readonly look: Look
  /** Visitors get nothing that says nothing; those who edit see all of it, to fill it. */
  readonly audience: 'editor' | 'visitor'
}

/** What is resolved: a document with its instances expanded, or a part of one that was joined to others (see site/session-page.ts). */
export interface Resolved {
  readonly page: Page
  /** The root of what is shown; the page's where it is left out. */
  readonly root?: NodeId
  /** See `Spot`. */
  readonly isBare?: boolean
  /** A node that is shown to visitors even if it says nothing, since it is being typed in. */
  readonly kept?: ShownId | undefined
}

/** What became of shown nodes since the document before. */
export interface ResolveStep {
  /** New ones, and those that are other objects now. */
  readonly changed: readonly ShownId[]
  readonly gone: readonly ShownId[]
}

const NONE: ResolveStep = { changed: [], gone: [] }

/**
 * Resolves one document again and again as it is edited.
 *
 * Invariant: after `update`, the shown nodes are what a first `update` with the same would give, and a node of which
 * nothing changed is the same object as before. A document in which all is shown is resolved by reading it once.
 */
export class Resolver {
  readonly #options: ResolveOptions
  readonly #shown = new Map<ShownId, ShownNode>()
  /** Nodes that show the page's headings. */
  readonly #outlined = new Set<ShownId>()
  #given: Resolved | undefined
  #page: Page | undefined
  #root: NodeId | undefined

  constructor(options: ResolveOptions) {
    this.#options = options
  }

  /** The root of what is shown. */
  get root(): ShownId {
    if (this.#root === undefined) throw new Error('Nothing was resolved yet')
    return this.#root
  }

  /** A shown node; undefined for one that is not shown. */
  get(id: ShownId): ShownNode | undefined {
    return this.#shown.get(id)
  }

  /** All shown nodes, in no certain order. */
  nodes(): Iterable<ShownNode> {
    return this.#shown.values()
  }

  update(given: Resolved): ResolveStep {
    const last = this.#given
    const root = given.root ?? given.page.root
    const isBare = given.isBare ?? false
    const isAlike = root === this.#root && isBare === (last?.isBare ?? false)
    if (isAlike && last?.page === given.page && last.kept === given.kept) return NONE
    const { registry, audience } = this.#options
    const before = this.#page
    const page = audience === 'visitor' ? withoutSilent(given.page, root, registry, given.kept) : given.page
    this.#given = given
    this.#page = page
    this.#root = root
    if (!before || !isAlike) return this.#walk(page, root)
    const changed = changedIds(before.nodes, page.nodes)
    if (changed.length === 0) return NONE
    if (changed.some((id) => this.#movesThings(before.nodes[id], page.nodes[id])))
      return this.#walk(page, root)
    const dirty = new Set([...changed, ...this.#dependents(before, page, changed)])
    return { changed: [...dirty].filter((id) => this.#shown.has(id) && this.#make(page, id)), gone: [] }
  }

  /** Goes through all that is shown, and forgets what no longer is. */
  #walk(page: Page, root: NodeId): ResolveStep {
    const changed: ShownId[] = []
    const seen = new Set<ShownId>()
    const pending = [root]
    for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
      seen.add(id)
      if (this.#make(page, id)) changed.push(id)
      const { slots } = this.#shown.get(id)!
      for (const slot in slots) for (const child of slots[slot]!) pending.push(child)
    }
    // All that was seen is shown by now.
    const gone = this.#shown.size === seen.size ? [] : [...this.#shown.keys()].filter((id) => !seen.has(id))
    for (const id of gone) {
      this.#shown.delete(id)
      this.#outlined.delete(id)
    }
    return { changed, gone }
  }

  /** Makes a shown node; false where it is what it was. */
  #make(page: Page, id: NodeId): boolean {
    const { registry, look } = this.#options
    const node = getNode(page, id)
    const { usesSpot } = getKind(registry, node.kind)
    const was = this.#shown.get(id)
    const now = usesSpot
      ? spotOf({ page, registry, look, isBare: this.#given?.isBare ?? false }, id)
      : ANY_SPOT
    const spot = was && sameSpot(was.spot, now) ? was.spot : now
    if (usesSpot?.includes('outline')) this.#outlined.add(id)
    if (was?.node === node && was.spot === spot) return false
    this.#shown.set(id, { id, node, slots: shownSlotsOf(node, registry), spot })
    return true
  }

  /** Whether a change is of more than what a node says: others may be shown, or shown elsewhere. */
  #movesThings(before: PageNode | undefined, after: PageNode | undefined): boolean {
    const { registry } = this.#options
    return (
      before === undefined ||
      after === undefined ||
      before.kind !== after.kind ||
      before.slots !== after.slots ||
      before.sizes !== after.sizes ||
      before.look !== after.look ||
      shownSlots(before, registry).join() !== shownSlots(after, registry).join()
    )
  }

  /** Nodes that are shown in another way because others changed in what they say, and in nothing else. */
  #dependents(before: Page, page: Page, changed: readonly NodeId[]): readonly NodeId[] {
    const { registry } = this.#options
    const uses = (id: NodeId, fact: SpotFact): boolean => {
      const node = findNode(page, id)
      return node !== undefined && (getKind(registry, node.kind).usesSpot?.includes(fact) ?? false)
    }
    const inHolders = changed.flatMap((id) =>
      Object.values(getNode(page, id).slots).flatMap((children) =>
        children.filter((child) => uses(child, 'holder')),
      ),
    )
    if (outlineOf(before, registry) === outlineOf(page, registry)) return inHolders
    const named = anchorsChanged(before, page, registry).filter((id) => uses(id, 'anchor'))
    return [...inHolders, ...named, ...this.#outlined]
  }
}

/** The slots that are shown. The node's own where all of them are, which costs nothing. */
function shownSlotsOf(node: PageNode, registry: Registry): ShownNode['slots'] {
  if (!getKind(registry, node.kind).shows) return node.slots
  return Object.fromEntries(shownSlots(node, registry).map((slot) => [slot, node.slots[slot] ?? []]))
}

/** Resolves a document once. */
export function resolve(given: Resolved, options: ResolveOptions): Resolver {
  const resolver = new Resolver(options)
  resolver.update(given)
  return resolver
}
