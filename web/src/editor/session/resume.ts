/** Going on with edits that were journaled and not saved. */
import {
  FRAME_NAMES,
  isFrameName,
  joinSession,
  replayEntries,
  type JournalEntry,
  type Page,
  type Registry,
  type SharedVersions,
  type SiteInfo,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { openEditor, type EditorState } from './editor-state.ts'
import type { Journaled } from './journal.ts'
import { newId } from './new-id.ts'
import { versionPath, type LinkedParts } from './session.ts'

/** The editor with journaled edits done again, and the entries that could not be. */
export interface Resumed {
  readonly state: EditorState
  readonly setAside: readonly JournalEntry[]
}

/**
 * The editor on the versions that the edits were made on, with all that was journaled done again as one step: it can be
 * undone as one, and counts as not saved. An entry that is malformed or does not fit the page is set aside, and the
 * notice says so; the others are done. Never throws.
 */
export function goOnFrom(
  base: Page,
  journaled: Journaled,
  registry: Registry,
  shared: SharedVersions = {},
): Resumed {
  const state = openEditor(base, journaled.newest, { ...shared, ...journaled.shared?.newest })
  const { page, edits, inverse, refused } = replayEntries(base, journaled.entries, registry)
  const transaction = { label: 'Unsaved edits from last time', origin: 'journal', at: journaled.at, edits }
  const history = edits.length === 0 ? state.history : { done: [{ transaction, inverse }], undone: [] }
  return { state: { ...state, page, history, ...noticeFor(refused, journaled) }, setAside: refused }
}

function noticeFor(setAside: readonly JournalEntry[], { acts }: Journaled): Partial<EditorState> {
  if (setAside.length === 0) return {}
  const words = `${setAside.length} of ${acts} unsaved edits could not be restored, because they no longer fit this page. Their text is under “Set aside”.`
  return { notice: { words, tone: 'refused', count: 1 } }
}

/** The page with what it shares as that was at these versions. */
export async function sessionAt(
  page: Page,
  site: SiteInfo,
  parts: LinkedParts,
  versions: SharedVersions,
): Promise<Page> {
  const read = (id: string, number: number, known?: { readonly version: number; readonly document: Page }) =>
    known?.version === number ? Promise.resolve(known.document) : request<Page>(versionPath(id, number))
  const frames = FRAME_NAMES.map((name) => {
    const { id, version } = site.shared[name]
    return read(id, versions[name] ?? version, { version, document: site[name] })
  })
  const ids = Object.keys(versions).filter((name) => !isFrameName(name))
  const [header, footer] = await Promise.all(frames)
  const documents = await Promise.all(ids.map((id) => read(id, versions[id]!, parts[id])))
  const joined = Object.fromEntries(ids.map((id, i) => [id, documents[i]!]))
  return joinSession({ page, header: header!, footer: footer!, parts: joined }, newId)
}
