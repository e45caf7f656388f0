/** Bringing what somebody else saved into the page that is being edited, without losing anything of either. */
import {
  describeConflict,
  diffPages,
  findNode,
  isFrameName,
  joinSession,
  mergePages,
  partOf,
  sharedNames,
  sharedRoot,
  type Choose,
  type Conflict,
  type Look,
  type NodeId,
  type Page,
  type Registry,
  type SessionPart,
  type StaleDocument,
  type VersionInfo,
  type Versions,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import type { EditorState } from './editor-state.ts'
import type { EditorStore } from './editor-store.ts'
import { newId } from './new-id.ts'
import { documentIn, versionPath, type SessionDocuments } from './session.ts'
import { addSetAside } from './set-aside.ts'

/** Newer versions of documents of the session, and what both were made from. */
export interface Newer {
  /** Who saved last, and when. */
  readonly current: VersionInfo
  /** The documents that have a newer version. */
  readonly stale: readonly StaleDocument[]
  readonly base: Page
  readonly theirs: Page
}

/** A document of the session as both sides have it. */
interface Sides {
  readonly base: Page
  readonly theirs: Page
}

/** Reads newer versions, and the versions that ours were made from. Documents without a newer one count as unchanged by others. */
export async function readNewer(
  store: EditorStore,
  documents: SessionDocuments,
  stale: readonly StaleDocument[],
): Promise<Newer> {
  const { page: ours, saved } = store.state
  const sidesOf = async (part: SessionPart): Promise<Sides> => {
    const id = documentIn(documents, part)
    const newer = stale.find(({ documentId }) => documentId === id)
    if (!newer) {
      const unchanged = partOf(saved.page, part)
      return { base: unchanged, theirs: unchanged }
    }
    const number = part === 'page' ? saved.version : saved.shared[part]!
    const [base, theirs] = await Promise.all([
      request<Page>(versionPath(id, number)),
      request<Page>(versionPath(id, newer.current.number)),
    ])
    return { base, theirs }
  }
  const current = stale.toSorted((a, b) => b.current.savedAt.localeCompare(a.current.savedAt))[0]!.current
  const page = await sidesOf('page')
  // A page that nothing is joined to, as in tests of it alone.
  if (sharedRoot(ours, 'header') === undefined) return { current, stale, ...page }
  const [header, footer] = [await sidesOf('header'), await sidesOf('footer')]
  const parts = new Map<string, Sides>()
  for (const name of sharedNames(ours)) if (!isFrameName(name)) parts.set(name, await sidesOf(name))
  const join = (side: keyof Sides): Page => {
    const joined = Object.fromEntries([...parts].map(([id, sides]) => [id, sides[side]]))
    const both = { page: page[side], header: header[side], footer: footer[side], parts: joined }
    return joinSession(both, newId)
  }
  return { current, stale, base: join('base'), theirs: join('theirs') }
}

/** The three pages that are merged: ours is the one on the screen. */
export function versionsOf(store: EditorStore, { base, theirs }: Newer): Versions {
  return { base, theirs, ours: store.state.page }
}

export function conflictsOf(store: EditorStore, newer: Newer, registry: Registry): readonly Conflict[] {
  return mergePages(versionsOf(store, newer), registry).conflicts
}

/**
 * Makes the page on the screen the sum of both. What was asked about is a step of its own: undoing it brings the other
 * side's version back. Typing goes on. False when it was refused; the reason is told.
 */
export function mergeIn(
  store: EditorStore,
  documents: SessionDocuments,
  newer: Newer,
  choose: Choose,
): boolean {
  const { current, stale, theirs } = newer
  const { registry } = store
  const versions = versionsOf(store, newer)
  const { selection, also, typing } = store.state
  const chosen = mergePages(versions, registry, choose)
  const other = mergePages(versions, registry, (conflict) =>
    choose(conflict) === 'ours' ? 'theirs' : 'ours',
  )
  const hasChoice = chosen.conflicts.length > 0 && diffPages(other.page, chosen.page, registry).length > 0
  const label = `Merged the version of ${current.savedBy}`
  if (!bring(store, hasChoice ? other.page : chosen.page, label)) return false
  if (hasChoice && !bring(store, chosen.page, 'Chose between two versions')) return false
  resume(store, { selection, also, typing })
  const isTheirs = diffPages(chosen.page, theirs, registry).length === 0
  const { saved } = store.state
  const newest = (part: SessionPart): number | undefined =>
    stale.find(({ documentId }) => documentId === documentIn(documents, part))?.current.number
  const shared = { ...saved.shared }
  for (const name of sharedNames(chosen.page)) {
    const number = newest(name)
    if (number !== undefined) shared[name] = number
  }
  const base = { version: newest('page') ?? saved.version, shared, page: theirs }
  store.dispatch({ type: 'rebased', base, isSaved: isTheirs })
  return true
}

function bring(store: EditorStore, page: Page, label: string): boolean {
  const before = store.state.page
  const edits = diffPages(before, page, store.registry)
  return edits.length === 0 || store.do(label, edits, { origin: 'merge', locks: 'passed' })
}

/** Goes on with what was selected and typed in, where it still is on the page. */
function resume(store: EditorStore, before: Pick<EditorState, 'selection' | 'also' | 'typing'>): void {
  const { page, selection, typing } = store.state
  const isThere = (id: NodeId | undefined): id is NodeId =>
    id !== undefined && findNode(page, id) !== undefined
  if (typing === before.typing && selection === before.selection) return
  if (before.typing && isThere(before.typing.id))
    store.dispatch({ type: 'start-typing', typing: before.typing })
  else if (isThere(before.selection))
    store.dispatch({ type: 'select', id: before.selection, also: before.also.filter(isThere) })
}

/** Sets aside what loses by these choices. Where the browser has no room for it, undo still brings it back. */
export function setAsideLosers(
  store: EditorStore,
  conflicts: readonly Conflict[],
  { choose, versions, savedBy, look }: { choose: Choose; versions: Versions; savedBy: string; look: Look },
): void {
  const items = conflicts.map((conflict) => {
    const words = describeConflict(conflict, versions, store.registry, look)
    const isOursLost = choose(conflict) === 'theirs'
    const whose = isOursLost ? 'your version' : `${savedBy}’s version`
    return { title: `${words.title}: ${whose}`, text: isOursLost ? words.ours : words.theirs }
  })
  addSetAside(
    store.journal.owner,
    items.filter(({ text }) => text.trim() !== ''),
  )
}
