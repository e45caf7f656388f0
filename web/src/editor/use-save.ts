import { useCallback, useState } from 'react'
import { mutate } from 'swr'
import type { Choose, PageSummary, PublishResult, VersionInfo } from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { unsavedCount } from './editor-state.ts'
import type { EditorStore } from './editor-store.ts'
import type { JournalSender } from './journal-sender.ts'
import { conflictsOf, mergeIn, readNewer, type Newer } from './merge-in.ts'

/** What has become of the last save. `unsaved` and `saved` are read off the page itself. */
export type SaveState =
  | { readonly type: 'idle' }
  | { readonly type: 'saving' }
  | { readonly type: 'failed'; readonly message: string }
  /** Someone saved in between and both changed the same spots: the person chooses for each. */
  | { readonly type: 'conflicts'; readonly newer: Newer; readonly thenSave: boolean }

export interface Saving {
  readonly state: SaveState
  /** True when the page on the server is the page on the screen. */
  readonly save: () => Promise<boolean>
  /** Brings in what someone else saved, asking where both changed the same. */
  readonly takeIn: (current: VersionInfo) => Promise<void>
  /** Settles the spots that were asked about. */
  readonly settle: (choose: Choose) => void
  readonly publish: () => Promise<PublishResult | undefined>
  readonly dismiss: () => void
}

/** Others may save again while theirs is being brought in; after so many times the person is told. */
const MOST_ROUNDS = 5

/** Saves and publishes a page. A failure changes nothing on the screen: every edit is kept and can be saved again. */
export function useSave(store: EditorStore, pageId: string, sender: JournalSender): Saving {
  const [state, setState] = useState<SaveState>({ type: 'idle' })
  const fail = useCallback((error: unknown): void => {
    setState({ type: 'failed', message: error instanceof Error ? error.message : String(error) })
  }, [])

  /** True when theirs is in the page; false when the person is being asked. */
  const bringIn = useCallback(
    async (current: VersionInfo, thenSave: boolean): Promise<boolean> => {
      const newer = await readNewer(store, pageId, current)
      if (conflictsOf(store, newer, store.registry).length === 0) return mergeIn(store, newer, () => 'ours')
      setState({ type: 'conflicts', newer, thenSave })
      return false
    },
    [store, pageId],
  )

  const save = useCallback(async (): Promise<boolean> => {
    setState({ type: 'saving' })
    try {
      for (let round = 0; round < MOST_ROUNDS; round++) {
        if (unsavedCount(store.state) === 0) {
          setState({ type: 'idle' })
          return true
        }
        const stale = await saveOnce(store, pageId, sender)
        if (stale && !(await bringIn(stale, true))) return false
      }
      throw new ApiError('Others keep saving this page. Your edits are kept; save again in a moment.')
    } catch (error) {
      fail(error)
      return false
    }
  }, [store, pageId, sender, bringIn, fail])

  const takeIn = useCallback(
    async (current: VersionInfo): Promise<void> => {
      try {
        await bringIn(current, false)
      } catch (error) {
        fail(error)
      }
    },
    [bringIn, fail],
  )

  const settle = useCallback(
    (choose: Choose): void => {
      if (state.type !== 'conflicts') return
      const isIn = mergeIn(store, state.newer, choose)
      setState({ type: 'idle' })
      if (isIn && state.thenSave) void save()
    },
    [state, store, save],
  )

  const publish = useCallback(async (): Promise<PublishResult | undefined> => {
    try {
      const path = `/api/pages/${pageId}/publish`
      const result = await request<PublishResult>(path, { method: 'POST', body: {} })
      void mutate('/api/pages')
      return result
    } catch (error) {
      fail(error)
      return undefined
    }
  }, [pageId, fail])
  const dismiss = useCallback(() => setState({ type: 'idle' }), [])
  return { state, save, takeIn, settle, publish, dismiss }
}

/** Saves the page as it is now. Gives the version that is newer than ours when there is one; then nothing was saved. */
async function saveOnce(
  store: EditorStore,
  pageId: string,
  sender: JournalSender,
): Promise<VersionInfo | undefined> {
  await sender.hold()
  const { page, saved, history } = store.state
  const step = history.done.at(-1)
  const { journal } = store
  const mark = journal.mark()
  try {
    const body = { base: saved.version, document: page, journal: { tab: journal.owner.tab, until: mark } }
    const summary = await request<PageSummary>(`/api/pages/${pageId}/document`, { method: 'PUT', body })
    store.dispatch({ type: 'saved', version: summary.version, step })
    journal.dropUntil(mark, summary.version)
    store.dispatch({ type: 'tell', words: `Saved as version ${summary.version}`, tone: 'done' })
    void mutate('/api/pages')
    return undefined
  } catch (error) {
    const refused = error instanceof ApiError ? error.body : undefined
    if (refused?.code === 'stale-save' && refused.current) return refused.current
    throw error
  } finally {
    sender.release()
  }
}
