/** Bringing what somebody else saved into the page that is being edited, without losing anything of either. */
import {
  diffPages,
  mergePages,
  type Choose,
  type Conflict,
  type Page,
  type Registry,
  type VersionInfo,
  type Versions,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import type { EditorStore } from './editor-store.ts'

/** A newer version, and the one that both pages were made from. */
export interface Newer {
  readonly current: VersionInfo
  readonly base: Page
  readonly theirs: Page
}

export async function readNewer(store: EditorStore, pageId: string, current: VersionInfo): Promise<Newer> {
  const read = (number: number): Promise<Page> =>
    request<Page>(`/api/pages/${encodeURIComponent(pageId)}/versions/${number}`)
  const [base, theirs] = await Promise.all([read(store.state.saved.version), read(current.number)])
  return { current, base, theirs }
}

/** The three pages that are merged: ours is the one on the screen. */
export function versionsOf(store: EditorStore, { base, theirs }: Newer): Versions {
  return { base, theirs, ours: store.state.page }
}

export function conflictsOf(store: EditorStore, newer: Newer, registry: Registry): readonly Conflict[] {
  return mergePages(versionsOf(store, newer), registry).conflicts
}

/** Makes the page on the screen the sum of both, as one step that can be undone. False when that was refused; the reason is told. */
export function mergeIn(store: EditorStore, newer: Newer, choose: Choose): boolean {
  store.dispatch({ type: 'stop-typing' })
  const { current, theirs } = newer
  const { registry } = store
  const before = store.state.page
  const { page } = mergePages(versionsOf(store, newer), registry, choose)
  const edits = diffPages(before, page, registry)
  if (edits.length > 0) {
    store.do(`Took in what ${current.savedBy} saved`, edits, { origin: 'merge' })
    if (store.state.page === before) return false
  }
  const isTheirs = diffPages(page, theirs, registry).length === 0
  store.dispatch({ type: 'rebased', version: current.number, saved: isTheirs })
  return true
}
