import { createContext, useCallback, useContext, useMemo, useSyncExternalStore } from 'react'
import {
  Expander,
  findNode,
  getKind,
  getNode,
  layoutOf,
  originOf,
  Resolver,
  sharedRoot,
  type FrameName,
  type Look,
  type Page,
  type Registry,
  type ShownId,
  type ShownNode,
} from '@gullyline/core'
import type { EditorState } from '../session/editor-state.ts'
import { useStore } from '../session/editor-store.ts'
import { componentAround, shownPlace } from '../session/typed-field.ts'
import { useRenderer } from '../session/site-view.ts'
import { beginningOf } from './beginning.ts'

export type Audience = 'editor' | 'visitor'

/** What a page is shown as: itself, between what stands on every page. */
export type Piece = 'page' | FrameName

/** In their order on the page. */
export const PIECES: readonly Piece[] = ['header', 'page', 'footer']

/** The page, the instance that is worked in, and what is being typed. */
export type Seen = Pick<EditorState, 'page' | 'around' | 'typing'>

interface KnownPiece extends Seen {
  readonly resolver: Resolver | undefined
}

/** The page with what stands on every page, each resolved by itself, for as long as the site around them is the same. */
export class ShownPage {
  readonly audience: Audience
  readonly #most: number
  #beginning: { readonly of: Page; readonly page: Page } | undefined
  readonly #resolvers: Readonly<Record<Piece, Resolver>>
  readonly #known = new Map<Piece, KnownPiece>()

  readonly #registry: Registry
  readonly #expander: Expander

  constructor(audience: Audience, registry: Registry, look: Look, most = Infinity) {
    this.#most = most
    this.#registry = registry
    const resolver = (): Resolver => new Resolver({ registry, look, audience })
    this.audience = audience
    this.#expander = new Expander(registry)
    this.#resolvers = { header: resolver(), page: resolver(), footer: resolver() }
  }

  /** Visitors see what instances fill in; those who work in one see what its part says. */
  seen({ page: all, around, typing }: Seen): Seen {
    const page = this.#most === Infinity ? all : this.#beginningOf(all)
    return this.audience === 'editor' ? { page, around, typing: undefined } : { page, around: '', typing }
  }

  /** A piece of the page as it is shown now; undefined where it has none. */
  piece(seen: Seen, piece: Piece): Resolver | undefined {
    const { page, around, typing } = seen
    const known = this.#known.get(piece)
    if (known?.page === page && known.around === around && known.typing === typing) return known.resolver
    const resolver = this.#resolved(seen, piece)
    this.#known.set(piece, { page, around, typing, resolver })
    return resolver
  }

  #beginningOf(page: Page): Page {
    if (this.#beginning?.of !== page) this.#beginning = { of: page, page: beginningOf(page, this.#most) }
    return this.#beginning.page
  }

  #resolved({ page, around, typing }: Seen, piece: Piece): Resolver | undefined {
    const root = piece === 'page' ? page.root : sharedRoot(page, piece)
    if (root === undefined) return undefined
    const isBare = piece === 'header' && layoutOf(getNode(page, page.root).content).header === 'bare'
    const kept = typing && shownPlace({ page, around }, typing, this.#registry).shown
    this.#resolvers[piece].update({ page: this.#expander.update(page, around), root, isBare, kept })
    return this.#resolvers[piece]
  }

  /** All that is shown, piece by piece. */
  nodes(seen: Seen): ShownNode[] {
    return PIECES.flatMap((piece) => [...(this.piece(seen, piece)?.nodes() ?? [])])
  }
}

/**
 * What is shown to whom, made anew when the site around the page changes. Of `most` blocks, it is the page's beginning,
 * which is drawn sooner.
 */
export function useResolvedPage(audience: Audience, most = Infinity): ShownPage {
  const { registry } = useStore()
  const { look } = useRenderer().context
  return useMemo(() => new ShownPage(audience, registry, look, most), [audience, registry, look, most])
}

interface ShownPiece {
  readonly shown: ShownPage
  readonly piece: Piece
}

const PieceContext = createContext<ShownPiece | undefined>(undefined)
export const ShownPieceProvider = PieceContext.Provider

/** A node as it is shown, or undefined when it is not, or no longer. Renders again when that is another object. */
export function useShownNode(id: ShownId): ShownNode | undefined {
  const store = useStore()
  const at = useContext(PieceContext)
  if (!at) throw new Error('useShownNode is used outside of a shown page')
  const { shown, piece } = at
  const isOwn = isItsOwn(store.state.page, id, store.registry, shown.audience)
  const subscribe = useCallback(
    (listener: () => void) =>
      isOwn ? store.subscribeNode(originOf(id), listener) : store.subscribePage(listener),
    [store, id, isOwn],
  )
  return useSyncExternalStore(subscribe, () => shown.piece(shown.seen(store.state), piece)?.get(id))
}

/**
 * Whether what is shown of a node changes with the node alone: a letter concerns one of a thousand. What holds an instance
 * changes with what is in that.
 */
function isItsOwn(page: Page, shown: ShownId, registry: Registry, audience: Audience): boolean {
  const node = findNode(page, originOf(shown))
  if (audience !== 'editor' || node === undefined || getKind(registry, node.kind).usesSpot) return false
  // What an instance says in its fields changes what is in it.
  if (shown.includes('/') && componentAround({ state: { page, around: '' }, registry }, shown)) return false
  const inside = Object.values(node.slots).flat()
  return !inside.some((id) => getKind(registry, getNode(page, id).kind).linksTo)
}
