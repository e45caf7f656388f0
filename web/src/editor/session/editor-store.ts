import { createContext, useCallback, useContext, useSyncExternalStore } from 'react'
import {
  applyEdits,
  changedIds,
  findNode,
  lockRefusal,
  originOf,
  partsShownBy,
  ringIn,
  type Edit,
  type LinkedPart,
  type NodeId,
  type Nodes,
  type Page,
  type PageNode,
  type Registry,
  type SharedName,
  type ShownId,
  validatePage,
} from '@gullyline/core'
import { afterPaint } from '../../ui/after-paint.ts'
import { Value } from '../../ui/value.ts'
import type { LinkedParts } from './session.ts'
import { shownPlace, typedField } from './typed-field.ts'
import { TypingClock } from './typing-clock.ts'
import { editsOf, type Journal } from './journal.ts'
import { reduceEditor, type EditorAction, type EditorState, type Typing } from './editor-state.ts'

interface StoreOptions {
  readonly mayChange?: boolean
  readonly onKept?: () => void
  readonly later?: (work: () => void) => () => void
  /** The parts that the page was opened with. */
  readonly linked?: LinkedParts
}

interface ActOptions {
  readonly select?: NodeId
  readonly also?: readonly NodeId[]
  /** Edits with the same key in a row are undone together, and not announced one by one. */
  readonly joinKey?: string
  readonly origin?: string
  /** The caller shows the change already, so that everything else can be drawn once that was painted. */
  readonly isDrawn?: boolean
  /** What may change locked blocks: a merge brings in what others did, and does not ask; a person is refused. */
  readonly locks?: 'respected' | 'passed'
}

/** Where an instance names what it shows. */
const PART = 'content.part'

const CHANGES: ReadonlySet<EditorAction['type']> = new Set(['do', 'undo', 'redo', 'start-typing'])
const NOT_ALLOWED: EditorAction = {
  type: 'tell',
  words: 'Reviewers can preview and publish pages. Changing a page needs the role of editor',
  tone: 'refused',
}

const NOT_VALID =
  'Your last edits were undone, because the page can’t hold what they set. Nothing else was changed'

/** Holds the editor's state outside React, so that a component is rendered only when what it reads has changed. */
export class EditorStore {
  readonly registry: Registry
  readonly journal: Journal
  /** False for those who look and publish. */
  readonly mayChange: boolean
  #state: EditorState
  readonly #listeners = new Set<() => void>()
  readonly #afterPaint = new Set<() => void>()
  readonly #pageListeners = new Set<() => void>()
  readonly #nodeListeners = new Map<NodeId, Set<() => void>>()
  /** What is known of the parts that are joined to the page. */
  readonly linked: Value<LinkedParts>
  /** The parts of the site, those that the page does not show among them. */
  #offered: LinkedParts = {}
  readonly #onKept: () => void
  readonly #later: (work: () => void) => () => void
  /** The state that listeners know, while they have not been told of what is drawn already. */
  #known: EditorState | undefined
  #callOff: (() => void) | undefined
  #isTelling = false
  readonly #typing = new TypingClock()

  /** `onKept` is called for every act that went into the journal; `later` is how to wait until something was painted. */
  constructor(state: EditorState, registry: Registry, journal: Journal, more: StoreOptions = {}) {
    this.#state = state
    this.registry = registry
    this.journal = journal
    this.mayChange = more.mayChange ?? true
    this.#onKept = more.onKept ?? (() => undefined)
    this.#later = more.later ?? afterPaint
    this.linked = new Value(more.linked ?? {})
  }

  get state(): EditorState {
    return this.#state
  }

  dispatch = (action: EditorAction, isDrawn = false): void => {
    const before = this.#state
    const next = reduceEditor(before, this.#allowed(action), this.registry)
    if (next === before) return
    this.#state = next
    if (next.page !== before.page) this.#journalAct(before, action)
    this.#known ??= before
    if (isDrawn) this.#callOff ??= this.#later(this.#tell)
    else this.#tell()
  }

  /** The action, or what is told instead where the person may not do it: to this page, or to a locked block. */
  #allowed(action: EditorAction): EditorAction {
    if (!this.mayChange && CHANGES.has(action.type)) return NOT_ALLOWED
    if (action.type !== 'start-typing') return action
    const { id, field } = action.typing
    const typed = typedField({ state: this.#state, registry: this.registry }, { id, field })
    const words = typed && this.lockRefusal([typed.edit('')])
    return words === undefined ? action : { type: 'tell', words, tone: 'refused' }
  }

  #tell = (): void => {
    const [before, next] = [this.#known, this.#state]
    this.#callOff?.()
    this.#callOff = this.#known = undefined
    if (!before) return
    if (this.#afterPaint.size > 0 && !this.#isTelling) {
      this.#isTelling = true
      this.#later(this.#tellAfterPaint)
    }
    for (const listener of this.#listeners) listener()
    // What is worked in shows what its part says, and not what it fills in itself.
    if (before.page !== next.page || before.around !== next.around)
      for (const listener of this.#pageListeners) listener()
    this.#tellNodes(before, next)
  }

  #tellAfterPaint = (): void => {
    this.#isTelling = false
    for (const listener of this.#afterPaint) listener()
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }

  /** Calls `listener` once a change has been painted: for what stands beside the page, and may follow it by a frame. */
  subscribeAfterPaint = (listener: () => void): (() => void) => {
    this.#afterPaint.add(listener)
    return () => this.#afterPaint.delete(listener)
  }

  /** Calls `listener` when the page changed, or what of it is worked in: most of what stands on the canvas has nothing to do with what is selected. */
  subscribePage = (listener: () => void): (() => void) => {
    this.#pageListeners.add(listener)
    return () => this.#pageListeners.delete(listener)
  }

  /** Calls `listener` when this node changed, or when typing in it began or ended: a letter concerns one node of a thousand. */
  subscribeNode = (id: NodeId, listener: () => void): (() => void) => {
    const listeners = this.#nodeListeners.get(id) ?? new Set()
    this.#nodeListeners.set(id, listeners)
    listeners.add(listener)
    return () => {
      listeners.delete(listener)
      if (listeners.size === 0) this.#nodeListeners.delete(id)
    }
  }

  #tellNodes(before: EditorState, next: EditorState): void {
    const ids = new Set(before.page === next.page ? [] : changedIds(before.page.nodes, next.page.nodes))
    if (before.typing !== next.typing)
      for (const state of [before, next])
        if (state.typing) ids.add(shownPlace(state, state.typing, this.registry).origin)
    for (const id of ids) for (const listener of this.#nodeListeners.get(id) ?? []) listener()
  }

  /** Every change of the page goes into the journal in the same turn. */
  #journalAct(before: EditorState, action: EditorAction): void {
    const edits = editsOf(before, action)
    if (!edits) return
    const wasOverfull = this.journal.isOverfull
    const { version, shared } = before.saved
    this.journal.keep(version, Date.now(), edits, shared)
    this.#onKept()
    if (wasOverfull || !this.journal.isOverfull) return
    const words = 'This browser’s storage is full: your edits go to the server alone. Save soon'
    this.#state = reduceEditor(this.#state, { type: 'tell', words, tone: 'refused' }, this.registry)
  }

  /**
   * Does edits as one step, and gives whether they were done. `select` is selected afterwards. What does not fit the page
   * or a lock changes nothing but the notice, which says why.
   */
  do(
    label: string,
    edits: readonly Edit[],
    { select, also, joinKey, origin = 'editor', isDrawn = false, locks = 'respected' }: ActOptions = {},
  ): boolean {
    const refusal = locks === 'respected' ? this.lockRefusal(edits) : undefined
    if (refusal !== undefined) {
      this.dispatch({ type: 'tell', words: refusal, tone: 'refused' })
      return false
    }
    for (const edit of edits) if (edit.edit === 'insert') this.#joinShownBy(edit.nodes)
    const ring = this.#ringRefusal(edits)
    if (ring !== undefined) {
      this.dispatch({ type: 'tell', words: ring, tone: 'refused' })
      return false
    }
    const before = this.#state
    const action: EditorAction = {
      type: 'do',
      transaction:
        joinKey === undefined
          ? { label, origin, at: Date.now(), edits }
          : { label, origin, at: this.#typing.now(), edits, joinKey },
      ...(select === undefined ? {} : { select }),
      ...(also === undefined ? {} : { also }),
    }
    this.dispatch(action, isDrawn)
    // What changes nothing is no refusal; a refusal changes nothing but the notice, which may be of an act before this.
    const { page, notice } = this.#state
    return page !== before.page || notice === before.notice || notice.tone === 'done'
  }

  /** Takes back what was done before the registry had its checks, until the page passes them. */
  recheck(): void {
    const isValid = () => validatePage(this.#state.page, this.registry).length === 0
    if (this.#state.history.done.length === 0 || isValid()) return
    while (this.#state.history.done.length > 0 && !isValid()) this.dispatch({ type: 'undo' })
    this.dispatch({ type: 'tell', words: NOT_VALID, tone: 'refused' })
  }

  /** Joins a part that the page shows, to be edited with it. */
  join(id: string, part: LinkedPart): void {
    this.linked.set({ ...this.linked.get(), [id]: part })
    const { document, version } = part
    this.dispatch({ type: 'join', part: id, document, version })
  }

  /** Joins a part of the site that the page is about to show, and what stands in it. */
  joinPart(id: string): void {
    const part = this.#offered[id]
    if (!part || this.linked.get()[id]) return
    this.join(id, part)
    this.#joinShownBy(part.document.nodes)
  }

  /** Joins what these nodes show, and what stands in that, as far as it is known. */
  #joinShownBy(nodes: Nodes): void {
    for (const id of partsShownBy({ nodes }, Object.keys(nodes), this.registry)) this.joinPart(id)
  }

  /**
   * Takes in the parts of the site: what those that are joined are called by now, and where they stand. Others that the
   * page shows are joined, such as one that came with somebody else's version.
   */
  knowParts(parts: LinkedParts): void {
    this.#offered = parts
    this.#joinShownBy(this.#state.page.nodes)
    const known = this.linked.get()
    const news = Object.keys(known).filter((id) => parts[id] && !isKnown(known[id]!, parts[id]))
    if (news.length === 0) return
    // Its document is as it was when it was joined: edits since are in the session.
    const next = news.map((id) => [id, { ...parts[id]!, document: known[id]!.document }] as const)
    this.linked.set({ ...known, ...Object.fromEntries(next) })
  }

  /** Visitors see the newest versions of these. */
  wentLive(names: readonly SharedName[]): void {
    const known = this.linked.get()
    const { shared } = this.#state.saved
    const live = names.flatMap((name) => {
      const part = known[name]
      return part ? [[name, { ...part, liveVersion: shared[name] ?? part.liveVersion }] as const] : []
    })
    if (live.length > 0) this.linked.set({ ...known, ...Object.fromEntries(live) })
  }

  /** Why these edits can't be made because a part would stand in itself, or undefined. */
  #ringRefusal(edits: readonly Edit[]): string | undefined {
    const { page } = this.#state
    const mayClose = edits.some(
      (one) =>
        one.edit === 'insert' || one.edit === 'move' || (one.edit === 'set' && one.at.join('.') === PART),
    )
    if (!mayClose || Object.keys(this.linked.get()).length === 0) return undefined
    const result = applyEdits(page, edits, this.registry)
    const ring = result.ok ? ringIn(result.page, this.registry) : undefined
    if (!ring) return undefined
    const names = [...ring, ring[0]!].map((id) => `“${this.linked.get()[id]?.name ?? id}”`)
    return `A shared section can’t stand in itself: ${names.join(' shows ')}`
  }

  /** Why a person can't make these edits because of a lock, or undefined. */
  lockRefusal(edits: readonly Edit[]): string | undefined {
    for (const edit of edits) {
      const refusal = lockRefusal(this.#state.page, edit, this.registry)
      if (refusal !== undefined) return refusal
    }
    return undefined
  }
}

function isKnown(known: LinkedPart, now: LinkedPart): boolean {
  const { reach } = known
  return (
    known.name === now.name &&
    known.liveVersion === now.liveVersion &&
    reach.pages === now.reach.pages &&
    reach.live === now.reach.live
  )
}

const StoreContext = createContext<EditorStore | undefined>(undefined)
export const EditorProvider = StoreContext.Provider

export function useStore(): EditorStore {
  const store = useContext(StoreContext)
  if (!store) throw new Error('useStore is used outside of the editor')
  return store
}

/** A part of the editor's state. `select` must give the same value for the same state: no new objects. */
export function useEditor<T>(select: (state: EditorState) => T): T {
  const store = useStore()
  return useSyncExternalStore(store.subscribe, () => select(store.state))
}

/**
 * A part of the editor's state, followed once its change was painted on the page. Rendering for any other reason, such
 * as a block that is there no more, shows the state of that moment. `select` as in `useEditor`.
 */
export function useEditorAfterPaint<T>(select: (state: EditorState) => T): T {
  const store = useStore()
  return useSyncExternalStore(store.subscribeAfterPaint, () => select(store.state))
}

/** A part of the page, or what is made of it. `select` must give the same value for the same page: no new objects. */
export function usePage<T>(select: (page: Page) => T): T {
  const store = useStore()
  return useSyncExternalStore(store.subscribePage, () => select(store.state.page))
}

/** A part of the page as it is seen, with the instance that is worked in. `select` as in `usePage`. */
export function useSeen<T>(select: (state: EditorState) => T): T {
  const store = useStore()
  return useSyncExternalStore(store.subscribePage, () => select(store.state))
}

/** A node as it is now, or undefined when it is no longer on the page. */
export function useNode(id: NodeId): PageNode | undefined {
  return useNodeState(id, (state) => findNode(state.page, id))
}

/** What is being typed in what is shown here, or undefined. */
export function useTypingAt(shown: ShownId): Typing | undefined {
  const { registry } = useStore()
  return useNodeState(originOf(shown), (state) => {
    if (!state.typing) return undefined
    return shownPlace(state, state.typing, registry).shown === shown ? state.typing : undefined
  })
}

function useNodeState<T>(id: NodeId, select: (state: EditorState) => T): T {
  const store = useStore()
  const subscribe = useCallback((listener: () => void) => store.subscribeNode(id, listener), [store, id])
  return useSyncExternalStore(subscribe, () => select(store.state))
}
