/** A page as somebody edits it: as their tab began, with all that it has journaled since. */
import {
  defaultRegistry,
  FRAME_NAMES,
  isFrameName,
  joinSession,
  partOf,
  replayEntries,
  sessionRegistry,
  sharedNames,
  type JournalEntry,
  type Page,
  type SessionParts,
} from '@gullyline/core'
import type { SiteData } from '../db/site-scope.ts'
import { partsBelow } from '../documents/linked-parts.ts'
import { findSite } from '../documents/site-row.ts'
import { findVersions, newestVersions, readDocument } from '../documents/versions.ts'
import { newId } from '../http/new-id.ts'
import { entriesOf, type JournalKey } from '../journal/store.ts'

const registry = sessionRegistry(defaultRegistry)

/** Reads a page as it stands in a tab, with what stands on it. What does not fit it any more is left out. */
export async function readDraft(at: SiteData, key: JournalKey): Promise<Required<SessionParts>> {
  const entries = await entriesOf(at, key)
  const began = await readBeginning(at, key.documentId, entries)
  if (entries.length === 0) return began
  const { page: session } = replayEntries(joinSession(began, newId), entries, registry)
  const partIds = sharedNames(session).filter((name) => !isFrameName(name))
  return {
    page: partOf(session, 'page'),
    header: partOf(session, 'header'),
    footer: partOf(session, 'footer'),
    parts: Object.fromEntries(partIds.map((id) => [id, partOf(session, id)])),
  }
}

/** The versions that entries were made on, or the newest where there are none. */
async function readBeginning(
  at: SiteData,
  pageId: string,
  entries: readonly JournalEntry[],
): Promise<Required<SessionParts>> {
  const { headerId, footerId } = await findSite(at)
  const frameIds = { header: headerId, footer: footerId }
  const documents = [pageId, headerId, footerId]
  const [first, last] = [entries[0], entries.at(-1)]
  const shared = { ...last?.shared, ...first?.shared }
  const partIds = new Set([
    ...(await partsBelow(at, documents)),
    ...Object.keys(shared).filter((name) => !isFrameName(name)),
  ])
  const numbers = new Map<string, number>()
  for (const [id, { number }] of await newestVersions(at, [...documents, ...partIds])) numbers.set(id, number)
  if (first) numbers.set(pageId, first.base)
  for (const [name, number] of Object.entries(shared))
    numbers.set(isFrameName(name) ? frameIds[name] : name, number)
  const wanted = [...numbers].map(([documentId, number]) => ({ documentId, number }))
  const found = await findVersions(at, wanted, readDocument)
  const [header, footer] = FRAME_NAMES.map((name) => found.get(frameIds[name])!)
  const parts: Record<string, Page> = {}
  for (const id of partIds) {
    const part = found.get(id)
    if (part) parts[id] = part
  }
  return { page: found.get(pageId)!, header: header!, footer: footer!, parts }
}
