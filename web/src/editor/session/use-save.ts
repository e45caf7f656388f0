import { useCallback, useEffect, useRef, useState } from 'react'
import {
  type Look,
  changedParts,
  isFrameName,
  type Choose,
  type PublishRequest,
  type PublishResult,
  type SharedName,
  type StaleDocument,
  type VersionInfo,
} from '@gullyline/core'
import { ApiError, request } from '../../api/client.ts'
import { refreshPages, refreshParts, refreshSite } from '../../api/hooks.ts'
import type { Watch } from '../../api/long-act.ts'
import { inSite } from '../../api/site-address.ts'
import { useSessionEnded } from '../../api/person.ts'
import { drafts } from '../../ui/drafts.ts'
import { later } from '../../ui/later.ts'
import { messageOf } from '../../ui/message-of.ts'
import { unsavedCount } from './editor-state.ts'
import type { EditorStore } from './editor-store.ts'
import type { JournalSender } from './journal-sender.ts'
import type { Newer } from './merge-in.ts'
import type { Saver as SaverType } from './saver.ts'
import { documentIn, type SessionDocuments } from './session.ts'

/** What brings in somebody else's version. */
export const merging = later(() => import('./merge-in.ts'))
/** What sends saves. */
export const sending = later(
  () => import('./saver.ts'),
  'Can’t reach the server. The page is not saved yet; saving is tried again automatically.',
)

/** What sends a request that takes long: opening a page needs none of it. */
const longActs = later(() => import('../../api/long-act.ts'))

/** What has become of the last save. `unsaved` and `saved` are read off the page itself. */
export type SaveState =
  | { readonly type: 'idle' }
  | { readonly type: 'saving' }
  /** `isRetried`: the server could not be reached, or the session had ended, and it is tried again by itself. */
  | { readonly type: 'failed'; readonly message: string; readonly isRetried: boolean }
  /** Someone saved in between and both changed the same spots: the person chooses for each. */
  | { readonly type: 'conflicts'; readonly newer: Newer; readonly thenSave: boolean }
  /** Shared sections were changed that other pages show, too: the person sees which before they are saved. */
  | { readonly type: 'reach'; readonly parts: readonly SharedName[] }
  /** Someone deleted the page: nothing can be saved until it is restored. */
  | { readonly type: 'deleted' }

export interface Saving {
  readonly state: SaveState
  /**
   * True when the page on the server is the page on the screen, or was when the save began. Where shared sections changed
   * that other pages show, the person is asked first, once for each of them, unless `isToldReach`.
   */
  readonly save: (isToldReach?: boolean) => Promise<boolean>
  /** Brings in what someone else saved, asking where both changed the same. */
  readonly takeIn: (current: VersionInfo) => Promise<void>
  /** Settles the spots that were asked about. */
  readonly settle: (choose: Choose) => Promise<void>
  /** Publishes the version that is on the screen, as it was last saved, and these shared sections with it. */
  readonly publish: (alsoLive: readonly SharedName[], watch: Watch) => Promise<PublishResult | undefined>
  readonly dismiss: () => void
  /** Tells that the page was deleted. */
  readonly deleted: () => void
  /** Takes the page out of the bin, and saves. */
  readonly restore: () => Promise<void>
}

/** Others may save again while theirs is being merged; after so many times the person is told. */
const MOST_ROUNDS = 5
/** The pause before a save that failed is tried again, and the longest one. */
const RETRY_MS = 2_000
const LONGEST_RETRY_MS = 30_000

/** Saves and publishes a page. A failure changes nothing on the screen: every edit is journaled and can be saved again. */
export function useSave(
  store: EditorStore,
  documents: SessionDocuments,
  sender: JournalSender,
  look: Look,
): Saving {
  const pageId = documents.page
  const [state, setState] = useState<SaveState>({ type: 'idle' })
  const underWay = useRef<Promise<boolean>>(undefined)
  const saver = useRef<SaverType>(undefined)
  /** The shared sections of which the person was told where they stand. */
  const told = useRef(new Set<SharedName>())
  const fail = useCallback(
    (error: unknown): void => {
      const failed = failure(error)
      setState(failed)
      if (failed.type === 'failed') store.dispatch({ type: 'tell', words: failed.message, tone: 'refused' })
    },
    [store],
  )

  /** True when theirs is in the page; false when the person is being asked. */
  const bringIn = useCallback(
    async (stale: readonly StaleDocument[], thenSave: boolean): Promise<boolean> => {
      const { conflictsOf, mergeIn, readNewer } = await merging.load()
      const newer = await readNewer(store, documents, stale)
      if (conflictsOf(store, newer, store.registry).length === 0)
        return mergeIn(store, documents, newer, () => 'ours')
      setState({ type: 'conflicts', newer, thenSave })
      return false
    },
    [store, documents],
  )

  const saveNow = useCallback(async (): Promise<boolean> => {
    setState({ type: 'saving' })
    try {
      const refused = await drafts.saveAll()
      const { Saver } = await sending.load()
      saver.current ??= new Saver(store, documents, sender, (shared) => readAgain(shared, store))
      for (let round = 0; round < MOST_ROUNDS; round++) {
        const stale = unsavedCount(store.state) === 0 ? undefined : await saver.current.saveOnce()
        if (!stale) {
          if (refused.length > 0)
            throw new ApiError(`Not saved: ${refused.join(', ')}. Look at what it says there.`)
          setState({ type: 'idle' })
          return true
        }
        if (!(await bringIn(stale, true))) return false
      }
      throw new ApiError('Others keep saving this page. Your edits are not lost; save again in a moment.')
    } catch (error) {
      fail(error)
      return false
    }
  }, [store, documents, sender, bringIn, fail])

  /** One save at a time. What was typed since the one under way began is saved by another one after it. */
  const save = useCallback(
    (isToldReach = false): Promise<boolean> => {
      const reaching = isToldReach ? [] : reachingParts(store).filter((part) => !told.current.has(part))
      if (reaching.length > 0) {
        setState({ type: 'reach', parts: reaching })
        return Promise.resolve(false)
      }
      for (const part of reachingParts(store)) told.current.add(part)
      const before = underWay.current
      const next = before ? before.then(saveNow) : saveNow()
      underWay.current = next
      const done = (): void => {
        if (underWay.current === next) underWay.current = undefined
      }
      next.then(done, done)
      return next
    },
    [saveNow, store],
  )

  useRetry(state, save, sender)

  const takeIn = useCallback(
    async (current: VersionInfo): Promise<void> => {
      try {
        await bringIn([{ documentId: pageId, current }], false)
      } catch (error) {
        fail(error)
      }
    },
    [bringIn, fail, pageId],
  )

  const settle = useCallback(
    async (choose: Choose): Promise<void> => {
      if (state.type !== 'conflicts') return
      const { newer, thenSave } = state
      try {
        const { conflictsOf, mergeIn, setAsideLosers, versionsOf } = await merging.load()
        setAsideLosers(store, conflictsOf(store, newer, store.registry), {
          choose,
          versions: versionsOf(store, newer),
          savedBy: newer.current.savedBy,
          look,
        })
        const isIn = mergeIn(store, documents, newer, choose)
        setState({ type: 'idle' })
        if (isIn && thenSave) void save()
      } catch (error) {
        fail(error)
      }
    },
    [state, store, documents, save, fail, look],
  )

  const publish = useCallback(
    async (alsoLive: readonly SharedName[], watch: Watch): Promise<PublishResult | undefined> => {
      try {
        const path = inSite(`/pages/${pageId}/publish`)
        const { version, shared } = store.state.saved
        const going = Object.fromEntries(alsoLive.map((name) => [documentIn(documents, name), shared[name]!]))
        const body: PublishRequest = { version, shared: going }
        const { requestLong } = await longActs.load()
        const result = await requestLong<PublishResult>(path, { body, ...watch })
        store.wentLive(alsoLive)
        readAgain(alsoLive, store)
        return result
      } catch (error) {
        if (watch.signal.aborted) {
          // It may have been done already: the list says what visitors see.
          readAgain(alsoLive, store)
          store.dispatch({ type: 'tell', words: 'Publishing was cancelled', tone: 'done' })
          return undefined
        }
        // Publishing is asked for again by the person, and not by itself.
        setState({ type: 'failed', message: messageOf(error), isRetried: false })
        store.dispatch({ type: 'tell', words: messageOf(error), tone: 'refused' })
        return undefined
      }
    },
    [documents, pageId, store],
  )
  const dismiss = useCallback(() => setState({ type: 'idle' }), [])
  const deleted = useCallback(() => setState({ type: 'deleted' }), [])
  const restore = useCallback(async (): Promise<void> => {
    try {
      await request(inSite(`/pages/${pageId}/restore`), { method: 'POST', body: {} })
      void refreshPages()
      await save()
    } catch (error) {
      store.dispatch({ type: 'tell', words: messageOf(error), tone: 'refused' })
    }
  }, [pageId, save, store])
  return { state, save, takeIn, settle, publish, dismiss, deleted, restore }
}

/** The shared sections that were changed here and stand on other pages, too. */
function reachingParts({ state, linked }: EditorStore): readonly SharedName[] {
  const { page, saved } = state
  if (page === saved.page) return []
  const parts = linked.get()
  const isReaching = (name: SharedName): boolean => (parts[name]?.reach.pages ?? 0) > 1
  return changedParts(saved.page, page).filter(isReaching)
}

function failure(error: unknown): SaveState {
  const body = error instanceof ApiError ? error.body : undefined
  if (body?.code === 'page-deleted') return { type: 'deleted' }
  const isRetried = body?.code === 'not-signed-in' || (error instanceof ApiError && error.isUnreachable)
  return { type: 'failed', message: messageOf(error), isRetried }
}

/** Tries a save again that failed because the server could not be reached: after a while, and once it can be again. */
function useRetry(state: SaveState, save: () => Promise<boolean>, sender: JournalSender): void {
  const pause = useRef(RETRY_MS)
  const isIdle = state.type === 'idle'
  useEffect(() => {
    if (isIdle) pause.current = RETRY_MS
  }, [isIdle])
  const isSignedOut = useSessionEnded()
  const isWaiting = state.type === 'failed' && state.isRetried && !isSignedOut
  useEffect(() => {
    if (!isWaiting) return
    // Once, however many signs come that the server is there again: a second save would hold what was typed since.
    let isTried = false
    const again = (): void => {
      if (isTried) return
      isTried = true
      void save()
    }
    const timer = setTimeout(again, pause.current)
    pause.current = Math.min(LONGEST_RETRY_MS, pause.current * 2)
    const isBack = sender.state.subscribe(() => sender.state.get() === 'sent' && again())
    window.addEventListener('online', again)
    return () => {
      clearTimeout(timer)
      isBack()
      window.removeEventListener('online', again)
    }
  }, [isWaiting, state, save, sender])
}

/** What is shown of the pages, and of what they share where something of it changed, is asked for again. */
function readAgain(shared: readonly SharedName[], { linked }: EditorStore): void {
  void refreshPages()
  if (shared.some(isFrameName)) void refreshSite()
  // Where they stand may have changed with the page.
  if (Object.keys(linked.get()).length > 0) void refreshParts()
}
