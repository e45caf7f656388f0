import { createContext, useCallback, useContext, useMemo, useSyncExternalStore } from 'react'
import {
  findNode,
  getKind,
  getNode,
  layoutOf,
  Resolver,
  sharedRoot,
  type NodeId,
  type Page,
  type Registry,
  type SessionPart,
  type ShownNode,
} from '@gullyline/core'
import { useStore } from '../session/editor-store.ts'
import { useRenderer } from '../session/site-view.ts'

export type Audience = 'editor' | 'visitor'

/** In their order on the page. */
export const PARTS: readonly SessionPart[] = ['header', 'page', 'footer']

/** The documents that are edited together, each resolved by itself, for as long as the site around them is the same. */
export class ShownPage {
  readonly audience: Audience
  readonly #resolvers: Readonly<Record<SessionPart, Resolver>>
  readonly #known = new Map<SessionPart, { readonly page: Page; readonly resolver: Resolver | undefined }>()

  constructor(audience: Audience, resolver: () => Resolver) {
    this.audience = audience
    this.#resolvers = { header: resolver(), page: resolver(), footer: resolver() }
  }

  /** A part of the page as it is shown now; undefined where it has none. */
  part(page: Page, part: SessionPart): Resolver | undefined {
    const known = this.#known.get(part)
    if (known?.page === page) return known.resolver
    const resolver = this.#resolved(page, part)
    this.#known.set(part, { page, resolver })
    return resolver
  }

  #resolved(page: Page, part: SessionPart): Resolver | undefined {
    const root = part === 'page' ? page.root : sharedRoot(page, part)
    if (root === undefined) return undefined
    const isBare = part === 'header' && layoutOf(getNode(page, page.root).content).header === 'bare'
    this.#resolvers[part].update({ page, root, isBare })
    return this.#resolvers[part]
  }

  /** All that is shown, part by part. */
  nodes(page: Page): ShownNode[] {
    return PARTS.flatMap((part) => [...(this.part(page, part)?.nodes() ?? [])])
  }
}

/** What is shown to whom, made anew when the site around the page changes. */
export function useResolvedPage(audience: Audience): ShownPage {
  const { registry } = useStore()
  const { look } = useRenderer().context
  return useMemo(
    () => new ShownPage(audience, () => new Resolver({ registry, look, audience })),
    [audience, registry, look],
  )
}

interface ShownPart {
  readonly shown: ShownPage
  readonly part: SessionPart
}

const PartContext = createContext<ShownPart | undefined>(undefined)
export const ShownPartProvider = PartContext.Provider

/** A node as it is shown, or undefined when it is not, or no longer. Renders again when that is another object. */
export function useShownNode(id: NodeId): ShownNode | undefined {
  const store = useStore()
  const at = useContext(PartContext)
  if (!at) throw new Error('useShownNode is used outside of a shown page')
  const { shown, part } = at
  const isOwn = isItsOwn(store.state.page, id, store.registry, shown.audience)
  const subscribe = useCallback(
    (listener: () => void) => (isOwn ? store.subscribeNode(id, listener) : store.subscribePage(listener)),
    [store, id, isOwn],
  )
  return useSyncExternalStore(subscribe, () => shown.part(store.state.page, part)?.get(id))
}

/** Whether what is shown of a node changes with the node alone: a letter concerns one of a thousand. */
function isItsOwn(page: Page, id: NodeId, registry: Registry, audience: Audience): boolean {
  const node = findNode(page, id)
  return audience === 'editor' && node !== undefined && !getKind(registry, node.kind).usesSpot
}
