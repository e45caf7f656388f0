/**
 * The HTML of a page, kept part by part, so that after an edit only what it changed is made again.
 *
 * Invariant: after `update(page)`, `html` is what a first `update` of the same page would give. A part is what one node
 * and all below it give; it is made again when the node, its spot or a part below it changed.
 */
import { getKind } from '../blocks/registry.ts'
import type { SpotFact } from '../blocks/define-block.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { changedIds } from '../page/with-nodes.ts'
import { shownIds, shownSlots } from '../blocks/shown.ts'
import { anchorsChanged, outlineOf } from './outline.ts'
import type { NodeRenderer, RenderedNode } from './render-node.ts'
import { ANY_SPOT, spotOf } from './spots.ts'

interface Part {
  readonly node: PageNode
  readonly rendered: RenderedNode
  readonly parentId: NodeId | undefined
  html: string
}

const NONE: readonly NodeId[] = []

let nextId = 0

export class TreeHtml {
  /** Different for every tree of a program. */
  readonly id = nextId++
  readonly #renderer: NodeRenderer
  readonly #parts = new Map<NodeId, Part>()
  /** Nodes that show the page's headings. */
  readonly #outlined = new Set<NodeId>()
  #page: Page | undefined
  /** Counts up when what the stylesheet depends on may have changed. */
  #styleState = 0

  constructor(renderer: NodeRenderer) {
    this.#renderer = renderer
  }

  /** Makes the parts that differ from the page before. */
  update(page: Page): void {
    const before = this.#page
    if (page === before) return
    this.#page = page
    if (before?.root !== page.root) {
      this.#parts.clear()
      this.#outlined.clear()
      this.#styleState++
      this.#build(page, page.root, undefined)
      return
    }
    const changed = changedIds(before.nodes, page.nodes)
    if (changed.length === 0) return
    const movesThings = changed.some(
      (id) => !isOnlyContent(before.nodes[id], page.nodes[id]) || this.#showsOther(before, page, id),
    )
    const dirty = new Set<NodeId>()
    for (const id of changed) this.#markUp(id, dirty)
    for (const id of movesThings ? this.#placed(page) : this.#dependents(before, page, changed))
      this.#markUp(id, dirty)
    if (movesThings) this.#styleState++
    this.#rebuild(page, page.root, dirty)
    if (movesThings) this.#dropHidden(page)
  }

  get html(): string {
    return this.#part(this.#page!.root).html
  }

  /** What went into the page, in no certain order. */
  rendered(): RenderedNode[] {
    return [...this.#parts.values()].map((part) => part.rendered)
  }

  /** Equal as long as the same rules, tags and classes are in use, as far as can be told without looking at all of them. */
  get styleState(): number {
    return this.#styleState
  }

  #part(id: NodeId): Part {
    return this.#parts.get(id)!
  }

  /** Nodes whose output depends on where they stand. */
  #placed(page: Page): NodeId[] {
    const { registry } = this.#renderer
    return Object.keys(page.nodes).filter(
      (id) => getKind(registry, page.nodes[id]!.kind).usesSpot !== undefined,
    )
  }

  /** Nodes that give something else because others changed in what they say, and in nothing else. */
  #dependents(before: Page, page: Page, changed: readonly NodeId[]): NodeId[] {
    const { registry } = this.#renderer
    const uses = (id: NodeId, fact: SpotFact): boolean =>
      getKind(registry, getNode(page, id).kind).usesSpot?.includes(fact) ?? false
    const inHolders = changed.flatMap((id) =>
      this.#shownChildren(getNode(page, id)).filter((child) => uses(child, 'holder')),
    )
    if (outlineOf(before, registry) === outlineOf(page, registry)) return inHolders
    const named = anchorsChanged(before, page, registry).filter((id) => uses(id, 'anchor'))
    return [...inHolders, ...named, ...this.#outlined]
  }

  /** Marks a node and all that hold it, as they stood before. */
  #markUp(id: NodeId, dirty: Set<NodeId>): void {
    for (
      let at: NodeId | undefined = id;
      at !== undefined && !dirty.has(at);
      at = this.#parts.get(at)?.parentId
    )
      dirty.add(at)
  }

  #rebuild(page: Page, id: NodeId, dirty: ReadonlySet<NodeId>): void {
    const part = this.#parts.get(id)
    if (!part) return this.#build(page, id, undefined)
    const node = getNode(page, id)
    for (const child of this.#shownChildren(node)) {
      if (this.#parts.get(child)?.parentId !== id) this.#build(page, child, id)
      else if (dirty.has(child)) this.#rebuild(page, child, dirty)
    }
    this.#make(page, id, node, part.parentId)
  }

  #build(page: Page, id: NodeId, parentId: NodeId | undefined): void {
    const node = getNode(page, id)
    for (const child of this.#shownChildren(node)) this.#build(page, child, id)
    this.#make(page, id, node, parentId)
  }

  #shownChildren(node: PageNode): readonly NodeId[] {
    const slots = shownSlots(node, this.#renderer.registry)
    return slots.length === 1
      ? (node.slots[slots[0]!] ?? NONE)
      : slots.flatMap((slot) => node.slots[slot] ?? NONE)
  }

  #showsOther(before: Page, page: Page, id: NodeId): boolean {
    const { registry } = this.#renderer
    const [was, is] = [before.nodes[id]!, page.nodes[id]!]
    return shownSlots(was, registry).join() !== shownSlots(is, registry).join()
  }

  /** Forgets what is gone or stands aside. */
  #dropHidden(page: Page): void {
    const shown = new Set(shownIds(page, page.root, this.#renderer.registry))
    for (const id of this.#parts.keys()) {
      if (shown.has(id)) continue
      this.#parts.delete(id)
      this.#outlined.delete(id)
    }
  }

  #make(page: Page, id: NodeId, node: PageNode, parentId: NodeId | undefined): void {
    const { registry, context } = this.#renderer
    const { usesSpot } = getKind(registry, node.kind)
    const spot = usesSpot ? spotOf(page, id, registry, context.look) : ANY_SPOT
    const rendered = this.#renderer.render(id, node, spot)
    if (usesSpot?.includes('outline')) this.#outlined.add(id)
    const before = this.#parts.get(id)?.rendered
    if (before !== rendered && !(before && sameNames(before, rendered))) this.#styleState++
    // Joined and not added up: a string that is put together by adding is only walked through, piece by piece, at its end.
    const strings: string[] = []
    for (const piece of rendered.html().pieces) {
      if (typeof piece === 'string') strings.push(piece)
      else for (const child of node.slots[piece.slot] ?? NONE) strings.push(this.#part(child).html)
    }
    const html = strings.join('')
    this.#parts.set(id, { node, rendered, parentId, html })
  }
}

/** Whether two states of a node differ in what they say and in nothing that places or styles anything. */
function isOnlyContent(before: PageNode | undefined, after: PageNode | undefined): boolean {
  return (
    before !== undefined &&
    after !== undefined &&
    before.kind === after.kind &&
    before.slots === after.slots &&
    before.sizes === after.sizes &&
    before.look === after.look
  )
}

/** Whether two states of a node use the same tags and classes. */
function sameNames(a: RenderedNode, b: RenderedNode): boolean {
  const [inA, inB] = [a.html().names, b.html().names]
  return a.rules === b.rules && inA.length === inB.length && inA.every((name, i) => name === inB[i])
}
