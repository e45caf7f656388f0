/**
 * The HTML of a resolved document, kept part by part, so that after an edit only what it changed is made again.
 *
 * Invariant: after `update`, `html` is what a first `update` of the same document would give. A part is what one shown
 * node and all below it give; it is made again when the shown node or a part below it changed.
 */
import { Expander, type ShownId } from '../resolve/expand.ts'
import { Resolver, type Resolved, type ResolveOptions } from '../resolve/resolve.ts'
import type { NodeRenderer, RenderedNode } from './render-node.ts'

interface Part {
  readonly rendered: RenderedNode
  readonly parentId: ShownId | undefined
  html: string
}

const NONE: readonly ShownId[] = []

let nextId = 0

export class TreeHtml {
  /** Different for every tree of a program. */
  readonly id = nextId++
  readonly #renderer: NodeRenderer
  readonly #expander: Expander
  readonly #resolver: Resolver
  readonly #parts = new Map<ShownId, Part>()
  /** Counts up when what the stylesheet depends on may have changed. */
  #styleState = 0

  constructor(renderer: NodeRenderer, options: Pick<ResolveOptions, 'audience'>) {
    this.#renderer = renderer
    const { registry, context } = renderer
    this.#expander = new Expander(registry, context.parts)
    this.#resolver = new Resolver({ registry, look: context.look, ...options })
  }

  /** Makes the parts that differ from the document before. */
  update(given: Resolved): void {
    const page = this.#expander.update(given.page)
    const { changed, gone } = this.#resolver.update({ ...given, page })
    if (changed.length === 0 && gone.length === 0) return
    const dirty = new Set<ShownId>()
    for (const id of changed) this.#markUp(id, dirty)
    for (const id of gone) this.#markUp(id, dirty)
    for (const id of gone) this.#parts.delete(id)
    if (gone.length > 0) this.#styleState++
    const { root } = this.#resolver
    if (this.#parts.has(root)) this.#rebuild(root, dirty)
    else this.#build(root, undefined)
  }

  get html(): string {
    return this.#part(this.#resolver.root).html
  }

  /** What went into the page, in no certain order. */
  rendered(): RenderedNode[] {
    return [...this.#parts.values()].map((part) => part.rendered)
  }

  /** Equal as long as the same rules, tags and classes are in use, as far as can be told without looking at all of them. */
  get styleState(): number {
    return this.#styleState
  }

  #part(id: ShownId): Part {
    return this.#parts.get(id)!
  }

  /** Marks a node and all that hold it, as they stood before. */
  #markUp(id: ShownId, dirty: Set<ShownId>): void {
    for (
      let at: ShownId | undefined = id;
      at !== undefined && !dirty.has(at);
      at = this.#parts.get(at)?.parentId
    )
      dirty.add(at)
  }

  #rebuild(id: ShownId, dirty: ReadonlySet<ShownId>): void {
    const { parentId } = this.#part(id)
    for (const child of this.#children(id)) {
      if (this.#parts.get(child)?.parentId !== id) this.#build(child, id)
      else if (dirty.has(child)) this.#rebuild(child, dirty)
    }
    this.#make(id, parentId)
  }

  #build(id: ShownId, parentId: ShownId | undefined): void {
    for (const child of this.#children(id)) this.#build(child, id)
    this.#make(id, parentId)
  }

  #children(id: ShownId): readonly ShownId[] {
    const lists = Object.values(this.#resolver.get(id)!.slots)
    return lists.length === 1 ? lists[0]! : lists.flat()
  }

  #make(id: ShownId, parentId: ShownId | undefined): void {
    const shown = this.#resolver.get(id)!
    const rendered = this.#renderer.render(shown)
    const before = this.#parts.get(id)?.rendered
    if (before !== rendered && !(before && sameNames(before, rendered))) this.#styleState++
    // Joined and not added up: a string that is put together by adding is only walked through, piece by piece, at its end.
    const strings: string[] = []
    for (const piece of rendered.html().pieces) {
      if (typeof piece === 'string') strings.push(piece)
      else for (const child of shown.slots[piece.slot] ?? NONE) strings.push(this.#part(child).html)
    }
    this.#parts.set(id, { rendered, parentId, html: strings.join('') })
  }
}

/** Whether two states of a node use the same tags and classes. */
function sameNames(a: RenderedNode, b: RenderedNode): boolean {
  const [inA, inB] = [a.html().names, b.html().names]
  return a.rules === b.rules && inA.length === inB.length && inA.every((name, i) => name === inB[i])
}
