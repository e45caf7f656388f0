/**
 * One shown node becomes one element, with outlets where its children go. Nothing here depends on other nodes, so that
 * what was rendered can be kept for as long as the shown node is the same.
 */
import { getKind, type Registry } from '../blocks/registry.ts'
import type { BlockDefinition } from '../blocks/define-block.ts'
import type { RenderContext } from '../kit/render-context.ts'
import { isAskedFor, isWordless, promptAt } from '../blocks/prompts.ts'
import { surfaceClass } from '../look/own-values.ts'
import { isFileLink, isPageLink, type Link } from '../page/link.ts'
import type { NodeId } from '../page/page.ts'
import { safeHref } from '../kit/allow-list.ts'
import { arrangeNode } from './arranged-rules.ts'
import type { CssRule } from '../kit/css-rules.ts'
import { slotOutlet, type Element, type Properties } from '../kit/element.ts'
import type { Picture, SiteContext } from '../kit/site-context.ts'
import type { Spot } from '../kit/spot.ts'
import type { ShownId } from '../resolve/expand.ts'
import type { ShownNode } from '../resolve/resolve.ts'

/** What one node gives. */
export interface RenderedNode {
  /** Holds a `gl-slot` element for each slot. */
  readonly element: Element
  readonly kind: string
  readonly surface: string | undefined
  /** How this node is arranged; see `arrangeNode`. The same list for nodes that are arranged alike. */
  readonly rules: readonly CssRule[]
  /** The name of the script that visitors need for it. */
  readonly behaviour: string | undefined
}

export interface NodeRenderer {
  readonly registry: Registry
  readonly context: SiteContext
  /** Renders a node, or gives what it gave last time for the same shown node. */
  render(shown: ShownNode): RenderedNode
}

interface Kept {
  readonly shown: ShownNode
  readonly rendered: RenderedNode
}

/** A renderer for one site as it is now. Keeps its results for as long as it lives, so make a new one when the site changes. */
export function createNodeRenderer(registry: Registry, context: SiteContext): NodeRenderer {
  const kept = new Map<ShownId, Kept>()
  return {
    registry,
    context,
    render(shown) {
      const last = kept.get(shown.id)
      if (last?.shown === shown) return last.rendered
      const rendered = renderNode(registry, context, shown)
      kept.set(shown.id, { shown, rendered })
      return rendered
    },
  }
}

/** Renders one node, and keeps nothing. */
export function renderNode(registry: Registry, site: SiteContext, shown: ShownNode): RenderedNode {
  const { id, node } = shown
  const definition = getKind(registry, node.kind)
  // Several copies of one node may stand on a page, each with an id of its own in HTML, too.
  const typed = {
    id: id.includes('/') ? id.replaceAll('/', '-') : id,
    content: node.content,
    look: node.look,
  }
  const element = definition.render(typed, new NodeContext(site, definition, shown))
  const arranged = arrangeNode(registry, node, shown.spot.children)
  const surface = typeof node.look.surface === 'string' ? node.look.surface : undefined
  const behaviour = definition.behaviour?.needs(typed) ? definition.behaviour.name : undefined
  const classes = surface === undefined ? [] : [surfaceClass(surface)]
  if (arranged.className !== undefined) classes.push(arranged.className)
  const marked = withMarks(element, classes, site.purpose === 'publish' ? undefined : id)
  return { element: marked, kind: node.kind, surface, rules: arranged.rules, behaviour }
}

/** The element with more classes, and the id of its node where it is to be selected. Most get neither, and stay what they are. */
function withMarks(element: Element, classes: readonly string[], nodeId: NodeId | undefined): Element {
  if (classes.length === 0 && nodeId === undefined) return element
  const properties = { ...element.properties }
  const own = (properties.className ?? []) as readonly string[]
  if (classes.length > 0) properties.className = [...own, ...classes]
  if (nodeId !== undefined) properties.dataNode = nodeId
  return { ...element, properties }
}

/** What a kind is given while one node of it is rendered. A class, since one is made for every node. */
class NodeContext implements RenderContext {
  readonly site: SiteContext['site']
  readonly page: SiteContext['page']
  readonly tree: SiteContext['tree']
  readonly spot: Spot
  readonly #context: SiteContext
  readonly #definition: BlockDefinition
  readonly #shown: ShownNode

  constructor(context: SiteContext, definition: BlockDefinition, shown: ShownNode) {
    this.site = context.site
    this.page = context.page
    this.tree = context.tree
    this.spot = shown.spot
    this.#context = context
    this.#definition = definition
    this.#shown = shown
  }

  /** Asked for only by those that show it, where it is shown: what reads it changes with it. */
  get navigation(): SiteContext['navigation'] {
    return this.spot.bare ? [] : this.#context.navigation
  }

  slot(name: string): Element {
    return slotOutlet(this.#shown.id, name)
  }

  count(name: string): number {
    return this.#shown.slots[name]?.length ?? 0
  }

  wordsOf(field: string): Properties {
    if (this.#context.purpose !== 'canvas') return {}
    const prompt = promptAt(this.#definition, this.#shown.node, field)
    return { dataWords: field, ...(prompt === undefined ? {} : { dataPrompt: prompt }) }
  }

  hasPlace(field: string): boolean {
    if (!isWordless(this.#shown.node.content[field])) return true
    return this.#context.purpose === 'canvas' && isAskedFor(this.#definition, this.#shown.node, field)
  }

  href(link: Link | undefined): string | undefined {
    return resolveHref(this.#context, link)
  }

  asksForPart(id: string): void {
    Object.hasOwn(this.#context.parts, id)
  }

  picture(pictureId: string): Picture | undefined {
    const { pictures } = this.#context
    return Object.hasOwn(pictures, pictureId) ? pictures[pictureId] : undefined
  }
}

/** The address a link stands for: of the page or file as it is now, or the one it names when that is allowed. */
function resolveHref(site: Pick<SiteContext, 'paths' | 'files'>, link: Link | undefined): string | undefined {
  if (!link) return undefined
  if (isFileLink(link)) return Object.hasOwn(site.files, link.file) ? site.files[link.file]!.path : undefined
  if (!isPageLink(link)) return safeHref(link.href)
  const path = Object.hasOwn(site.paths, link.page) ? site.paths[link.page] : undefined
  return path === undefined ? undefined : path + (link.anchor ? `#${link.anchor}` : '')
}
