/**
 * Two pages that were made from one, merged. What only one side changed is taken; what both changed in different ways
 * is a conflict, for which someone has to choose a side. Nothing is dropped in silence.
 *
 * Vocabulary: a *place* is the slot of a parent that a node stands in, without its order there. A side *touched* a node
 * when it changed a value of it, its place, or which children it has.
 */
import type { Registry } from '../blocks/registry.ts'
import { validateSlots } from '../blocks/validate-page.ts'
import { readValue } from '../edits/set.ts'
import type { ValueAddress } from '../edits/edit-shapes.ts'
import { findTreeFault } from '../page/assert-page.ts'
import { sameJson, type Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { findPlace, subtreeIds } from '../page/walk.ts'
import type { Conflict, SlotPlace, Side, Versions } from './conflict.ts'
import { mergeLists } from './merge-lists.ts'
import { mergeTexts } from './merge-texts.ts'
import { addressesOf, changedAddresses, withValues, type AddressedValue } from './values.ts'

export interface MergedPage {
  readonly page: Page
  readonly conflicts: readonly Conflict[]
}

/** Says which side a conflict is settled by. */
export type Choose = (conflict: Conflict) => Side

/**
 * The page with the changes of both sides, and every conflict with the side it was settled by applied. The three pages
 * must have the same root. Without `choose`, a side is picked by what it says and not by whose it is, so that
 * swapping the sides gives the same page.
 */
export function mergePages(
  versions: Versions,
  registry: Registry,
  choose: Choose = chooseByContent,
): MergedPage {
  const merge = new Merge(versions, choose)
  const page = merge.run()
  const isValid =
    findTreeFault(page.nodes, page.root) === undefined && validateSlots(page.nodes, registry).length === 0
  if (isValid) return { page, conflicts: merge.conflicts }
  const whole: Conflict = { key: 'page', type: 'page', nodeId: versions.base.root }
  return { page: versions[choose(whole)], conflicts: [whole] }
}

function chooseByContent(conflict: Conflict): Side {
  switch (conflict.type) {
    case 'deleted':
      // What was changed is kept.
      return conflict.by === 'ours' ? 'theirs' : 'ours'
    case 'page':
      return 'ours'
    default:
      return JSON.stringify(conflict.ours ?? null) <= JSON.stringify(conflict.theirs ?? null)
        ? 'ours'
        : 'theirs'
  }
}

const SIDES = ['ours', 'theirs'] as const
const other = (side: Side): Side => (side === 'ours' ? 'theirs' : 'ours')

class Merge {
  readonly conflicts: Conflict[] = []
  readonly #versions: Versions
  readonly #choose: Choose
  /** Nodes of the merged page, in reading order of the side that has them. */
  readonly #kept = new Set<NodeId>()
  readonly #places = new Map<NodeId, SlotPlace>()
  /** Nodes that one side deleted and that stay, since the other changed them. */
  readonly #rescued = new Set<NodeId>()

  constructor(versions: Versions, choose: Choose) {
    this.#versions = versions
    this.#choose = choose
  }

  run(): Page {
    const { base, ours } = this.#versions
    this.#keepNodes()
    for (const id of this.#kept) this.#settleHome(id)
    this.#breakLoops()
    const nodes: Record<NodeId, PageNode> = {}
    for (const id of this.#kept) nodes[id] = this.#mergeValues(id)
    const lists = this.#childLists()
    for (const id of this.#kept) {
      const slots = Object.keys(nodes[id]!.slots).map((slot) => [slot, this.#order(id, slot, lists)] as const)
      nodes[id] = { ...nodes[id]!, slots: Object.fromEntries(slots) }
    }
    return { format: ours.format, root: base.root, nodes }
  }

  /** Settles a conflict and remembers it; gives the side it was settled by. */
  #settle(conflict: Conflict): Side {
    this.conflicts.push(conflict)
    return this.#choose(conflict)
  }

  #keepNodes(): void {
    const { base, ours, theirs } = this.#versions
    const dropped = this.#droppedNodes()
    for (const page of [ours, theirs, base]) {
      for (const id of subtreeIds(page, page.root)) {
        const isDeleted = findNode(base, id) && !(findNode(ours, id) && findNode(theirs, id))
        if (dropped.has(id) || (isDeleted && !this.#rescued.has(id))) continue
        this.#kept.add(id)
      }
    }
  }

  /** What goes because one side deleted it, or added it inside what the other deleted. Fills `#rescued`. */
  #droppedNodes(): Set<NodeId> {
    const { base } = this.#versions
    const dropped = new Set<NodeId>()
    for (const by of SIDES) {
      const deleting = this.#versions[by]
      const keeping = this.#versions[other(by)]
      for (const id of subtreeIds(base, base.root)) {
        const parentId = findPlace(base, id)?.parentId
        const isTop = !findNode(deleting, id) && parentId !== undefined && findNode(deleting, parentId)
        if (!isTop || !findNode(keeping, id)) continue
        const gone = subtreeIds(base, id).filter((one) => !findNode(deleting, one))
        const isTouched = gone.some((one) => this.#isTouched(one, keeping))
        const keeps =
          isTouched && this.#settle({ key: `deleted/${id}`, type: 'deleted', nodeId: id, by }) !== by
        for (const one of gone) {
          if (keeps) this.#rescued.add(one)
          else {
            dropped.add(one)
            for (const inside of this.#addedInside(one, keeping)) dropped.add(inside)
          }
        }
      }
    }
    return dropped
  }

  #addedInside(id: NodeId, page: Page): NodeId[] {
    if (!findNode(page, id)) return []
    return subtreeIds(page, id).filter((one) => !findNode(this.#versions.base, one))
  }

  #isTouched(id: NodeId, page: Page): boolean {
    const { base } = this.#versions
    const node = findNode(page, id)
    if (!node) return false
    const before = getNode(base, id)
    if (node !== before && changedAddresses(before, node).length > 0) return true
    if (!samePlace(findPlace(base, id), findPlace(page, id))) return true
    return !sameJson(node.slots, before.slots)
  }

  #settleHome(id: NodeId): void {
    const { base, ours, theirs } = this.#versions
    if (id === base.root) return
    const [b, o, t] = [base, ours, theirs].map<SlotPlace | undefined>((page) => placeIn(page, id))
    const chosen = this.#chooseHome(id, { b, o, t })
    const place = [chosen, o, t, b].find((one) => one && this.#kept.has(one.parentId))
    // A node whose every place is gone goes to the nearest of its ancestors that is kept.
    this.#places.set(id, place ?? this.#nearestPlace(id))
  }

  #chooseHome(
    id: NodeId,
    { b, o, t }: { b?: SlotPlace | undefined; o?: SlotPlace | undefined; t?: SlotPlace | undefined },
  ): SlotPlace | undefined {
    if (!o || !t) return o ?? t ?? b
    if (samePlace(o, t) || samePlace(t, b)) return o
    if (samePlace(o, b)) return t
    return this.#settle({ key: `place/${id}`, type: 'place', nodeId: id, ours: o, theirs: t }) === 'ours'
      ? o
      : t
  }

  #nearestPlace(id: NodeId): SlotPlace {
    const { base, ours, theirs } = this.#versions
    for (const page of [ours, theirs, base]) {
      for (let at = findPlace(page, id); at; at = findPlace(page, at.parentId)) {
        if (this.#kept.has(at.parentId)) return { parentId: at.parentId, slot: at.slot }
      }
    }
    return { parentId: base.root, slot: Object.keys(getNode(base, base.root).slots)[0]! }
  }

  /** Two moves that are fine alone can put two blocks inside each other: then all of the loop is placed as one side has it. */
  #breakLoops(): void {
    for (let loop = this.#findLoop(); loop; loop = this.#findLoop()) {
      const nodeId = [...loop].sort()[0]!
      const { ours, theirs } = this.#versions
      const conflict: Conflict = {
        key: `place/${nodeId}`,
        type: 'place',
        nodeId,
        ours: placeIn(ours, nodeId),
        theirs: placeIn(theirs, nodeId),
      }
      const known = this.conflicts.find((one) => one.key === conflict.key)
      const side = known ? this.#choose(known) : this.#settle(conflict)
      let changed = false
      for (const id of loop) {
        const place = placeIn(this.#versions[side], id)
        if (!place || !this.#kept.has(place.parentId) || samePlace(place, this.#places.get(id))) continue
        this.#places.set(id, place)
        changed = true
      }
      if (!changed) return
    }
  }

  #findLoop(): NodeId[] | undefined {
    const clear = new Set<NodeId>([this.#versions.base.root])
    for (const id of this.#kept) {
      const path: NodeId[] = []
      for (
        let at: NodeId | undefined = id;
        at !== undefined && !clear.has(at);
        at = this.#places.get(at)?.parentId
      ) {
        if (path.includes(at)) return path.slice(path.indexOf(at))
        path.push(at)
      }
      for (const one of path) clear.add(one)
    }
    return undefined
  }

  #childLists(): Map<string, NodeId[]> {
    const lists = new Map<string, NodeId[]>()
    for (const [id, place] of this.#places) {
      const key = `${place.parentId}/${place.slot}`
      lists.set(key, [...(lists.get(key) ?? []), id])
    }
    return lists
  }

  #order(parentId: NodeId, slot: string, lists: Map<string, NodeId[]>): readonly NodeId[] {
    const members = lists.get(`${parentId}/${slot}`) ?? []
    const { base, ours, theirs } = this.#versions
    const [b, o, t] = [base, ours, theirs].map((page) =>
      (findNode(page, parentId)?.slots[slot] ?? []).filter((id) => members.includes(id)),
    ) as [NodeId[], NodeId[], NodeId[]]
    const { list } = mergeLists({ base: b, ours: o, theirs: t }, (contradiction) => {
      const conflict = {
        key: `order/${parentId}/${slot}`,
        type: 'order',
        nodeId: parentId,
        slot,
        ...contradiction,
      } as const
      return this.#settle(conflict) === 'ours'
    })
    // What no side lists here any more, such as a block kept though its holder was deleted, comes last.
    return [...list, ...members.filter((id) => !list.includes(id))]
  }

  #mergeValues(id: NodeId): PageNode {
    const [b, o, t] = (['base', 'ours', 'theirs'] as const).map((one) => findNode(this.#versions[one], id))
    if (!o || !t) return (o ?? t ?? b)!
    if (o === t || o === b) return t
    if (t === b) return o
    const values = addressesOf(b, o, t).flatMap((at): AddressedValue[] => {
      const value = this.#mergeValue(id, at, {
        b: b && readValue(b, at),
        o: readValue(o, at),
        t: readValue(t, at),
      })
      return value === undefined || value === null ? [] : [[at, value]]
    })
    return withValues(o, values)
  }

  #mergeValue(
    nodeId: NodeId,
    at: ValueAddress,
    { b, o, t }: Readonly<Record<'b' | 'o' | 't', Json | undefined>>,
  ): Json | undefined {
    if (sameJson(o, t) || sameJson(t, b)) return o
    if (sameJson(o, b)) return t
    const text = mergeTexts(b, o, t)
    if (text) return text
    const conflict = {
      key: `value/${nodeId}/${at.join('/')}`,
      type: 'value',
      nodeId,
      at,
      ours: o,
      theirs: t,
    } as const
    return this.#settle(conflict) === 'ours' ? o : t
  }
}

function placeIn(page: Page, id: NodeId): SlotPlace | undefined {
  const place = findPlace(page, id)
  return place && { parentId: place.parentId, slot: place.slot }
}

function samePlace(a: SlotPlace | undefined, b: SlotPlace | undefined): boolean {
  return a?.parentId === b?.parentId && a?.slot === b?.slot
}
