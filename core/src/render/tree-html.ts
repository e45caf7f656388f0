/**
 * The HTML of a resolved document, kept part by part, so that after an edit only what it changed is made again.
 *
 * Invariant: after `update`, `strings` are what a first `update` of the same document would give. A part is what one shown
 * node and all below it give; it is made again when the shown node or a part below it changed.
 */
import type { Registry } from '../blocks/registry.ts'
import type { SiteContext } from '../kit/site-context.ts'
import { Expander, type ShownId } from '../resolve/expand.ts'
import { Resolver, type Resolved, type ResolveOptions, type ShownNode } from '../resolve/resolve.ts'
import { renderNode, type RenderedNode } from './render-node.ts'
import { serializeHtml, type SerializedHtml } from './serialize-html.ts'

/** What one node gives, as HTML. Its element is not kept: those of a page take more memory than all else. */
export interface WrittenNode extends Omit<RenderedNode, 'element'> {
  readonly html: SerializedHtml
}

interface Part {
  readonly shown: ShownNode
  readonly written: WrittenNode
  readonly parentId: ShownId | undefined
  /** Empty for the root, which is put together only when it is asked for: it is as long as the page. */
  readonly html: string
}

const NONE: readonly ShownId[] = []

let nextId = 0

export class TreeHtml {
  /** Different for every tree of a program. */
  readonly id = nextId++
  readonly #registry: Registry
  readonly #context: SiteContext
  readonly #expander: Expander
  readonly #resolver: Resolver
  readonly #parts = new Map<ShownId, Part>()
  /** Counts up when what the stylesheet depends on may have changed. */
  #styleState = 0

  constructor(registry: Registry, context: SiteContext, options: Pick<ResolveOptions, 'audience'>) {
    this.#registry = registry
    this.#context = context
    this.#expander = new Expander(registry, context.parts)
    this.#resolver = new Resolver({ registry, look: context.look, ...options })
  }

  /** Makes the parts that differ from the document before. */
  update(given: Resolved): void {
    const page = this.#expander.update(given.page)
    const { changed, gone } = this.#resolver.update({ ...given, page })
    if (changed.length === 0 && gone.length === 0) return
    const { root } = this.#resolver
    const isKnown = this.#parts.has(root)
    const dirty = new Set<ShownId>()
    if (isKnown) for (const id of [...changed, ...gone]) this.#markUp(id, dirty)
    for (const id of gone) this.#parts.delete(id)
    if (gone.length > 0) this.#styleState++
    if (isKnown) this.#rebuild(root, dirty)
    else this.#build(root, undefined)
  }

  /** The HTML in pieces, to be joined with what stands around it. */
  strings(): readonly string[] {
    const { root } = this.#resolver
    return this.#stringsOf(this.#part(root))
  }

  /** What went into the page, in no certain order. */
  written(): WrittenNode[] {
    return [...this.#parts.values()].map((part) => part.written)
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
    const { slots } = this.#resolver.get(id)!
    let children = NONE
    for (const slot in slots) children = children.length === 0 ? slots[slot]! : [...children, ...slots[slot]!]
    return children
  }

  #make(id: ShownId, parentId: ShownId | undefined): void {
    const shown = this.#resolver.get(id)!
    const before = this.#parts.get(id)
    const written = before?.shown === shown ? before.written : this.#write(shown)
    if (before?.written !== written && !(before && sameNames(before.written, written))) this.#styleState++
    const html = parentId === undefined ? '' : this.#htmlOf({ shown, written })
    this.#parts.set(id, { shown, written, parentId, html })
  }

  #write(shown: ShownNode): WrittenNode {
    const { element, kind, surface, rules, behaviour } = renderNode(this.#registry, this.#context, shown)
    return { kind, surface, rules, behaviour, html: serializeHtml(element) }
  }

  #htmlOf(part: Pick<Part, 'shown' | 'written'>): string {
    const { pieces } = part.written.html
    // Most nodes hold no others.
    return pieces.length === 1 ? (pieces[0] as string) : this.#stringsOf(part).join('')
  }

  /** To be joined and not added up: a string that is put together by adding is only walked through, piece by piece, at its end. */
  #stringsOf({ shown, written }: Pick<Part, 'shown' | 'written'>): readonly string[] {
    const strings: string[] = []
    for (const piece of written.html.pieces) {
      if (typeof piece === 'string') strings.push(piece)
      else for (const child of shown.slots[piece.slot] ?? NONE) strings.push(this.#part(child).html)
    }
    return strings
  }
}

/** Whether two states of a node use the same tags and classes. */
function sameNames(a: WrittenNode, b: WrittenNode): boolean {
  const [inA, inB] = [a.html.names, b.html.names]
  return a.rules === b.rules && inA.length === inB.length && inA.every((name, i) => name === inB[i])
}
