/** Saving a page together with the shared sections that were changed on it: all of it, or nothing. */
import {
  defaultRegistry,
  sameJson,
  validatePage,
  valueProblems,
  type Page,
  type PageNode,
  type SharedSave,
  type SharedVersions,
  type StaleDocument,
  type ValueProblem,
} from '@gullyline/core'
import { insertVersion, lockDocument, type Author, type LockedDocument } from '../documents/store.ts'
import { readDocument, versionInfo } from '../documents/versions.ts'
import { documentsOf, newestParts } from '../documents/part-versions.ts'
import { lockSite } from '../documents/site-row.ts'
import { refuseRing } from './rings.ts'
import { Refused } from '../http/errors.ts'
import { findPageRow, insertPageVersion } from './store.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'

interface Save {
  readonly base: number
  /** Absent where only shared sections are saved. */
  readonly document?: unknown
  readonly shared?: readonly SharedSave[] | undefined
  readonly by: Author
  /** Drawn by the sender, once for each save. */
  readonly saveId?: string | undefined
}

/** What of a save is to become the next version of one document. */
interface Part {
  readonly locked: LockedDocument
  readonly base: number
  readonly document: Page
}

/**
 * Saves documents as their next versions, if the `base` of each still is its newest. Otherwise it refuses with
 * `stale-save`, which names those that have a newer one, and changes nothing. The same save sent twice, as after an answer
 * that was lost, is saved once. Returns what was saved of the shared sections.
 */
export async function savePage(
  at: SiteChange,
  pageId: string,
  { base, document, shared = [], by, saveId }: Save,
): Promise<SavedSections> {
  if (document !== undefined) refuseInvalid(document, 'page')
  refuseTwice(shared)
  // Two saves at once could each close half of a ring. Before anything is read: what is read then is what the other saved.
  if (shared.some(({ document: one }) => showsParts(one))) await lockSite(at)
  // The page is locked first, then what it shares, in the order of ids: two saves never each wait for the other.
  const page = await lockDocument(at, pageId)
  await refuseBinned(at, pageId)
  const parts: Part[] = document === undefined ? [] : [{ locked: page, base, document: document as Page }]
  for (const one of shared.toSorted((a, b) => (a.id < b.id ? -1 : 1)))
    parts.push({ locked: await lockShared(at, one), base: one.base, document: one.document })
  const isSavedAlready = parts.every(({ locked }) => saveId !== undefined && locked.newest.saveId === saveId)
  if (!isSavedAlready) {
    refuseStaleParts(parts)
    for (const { locked, document: next } of parts) {
      const insert = locked === page ? insertPageVersion : insertVersion
      await refuseValues(at, next, readDocument(locked.newest))
      await insert(at, locked, { document: next, by, saveId })
    }
    await refuseRing(
      at,
      shared.map(({ id }) => id),
    )
  }
  const step = isSavedAlready ? 0 : 1
  const rows = parts.filter(({ locked }) => locked !== page).map(({ locked: { row } }) => row)
  return {
    byId: Object.fromEntries(rows.map(({ id, version }) => [id, version + step])),
    byName: Object.fromEntries(
      rows.map(({ id, type, version }) => [type === 'shared' ? id : type, version + step]),
    ),
  }
}

/** The newest versions of the shared sections that a save held. */
interface SavedSections {
  readonly byId: Readonly<Record<string, number>>
  readonly byName: SharedVersions
}

function refuseInvalid(document: unknown, rootKind: string): void {
  const problems = validatePage(document, defaultRegistry, rootKind)
  if (problems.length === 0) return
  throw new Refused(
    'not-valid',
    'The page could not be saved, because it is not a valid page. Your edits are kept in this tab.',
    { problems },
  )
}

/**
 * Refuses what the blocks of components can't say, unless it was saved before the component changed. A field that its part has
 * no more keeps its value: it may come back.
 */
async function refuseValues(at: SiteData, document: Page, before: Page): Promise<void> {
  if (!Object.values(document.nodes).some(({ values }) => values)) return
  const parts = documentsOf(await newestParts(at, document))
  const isKnown = ({ nodeId, fieldId }: ValueProblem): boolean =>
    sameJson(document.nodes[nodeId]?.values?.[fieldId], before.nodes[nodeId]?.values?.[fieldId])
  const problems = valueProblems(document, parts, defaultRegistry).filter((problem) => !isKnown(problem))
  if (problems.length === 0) return
  throw new Refused(
    'not-valid',
    'The page could not be saved, because a component on it says what it can’t. Your edits are kept in this tab.',
    { problems: problems.map(({ pointer, message }) => ({ pointer, message })) },
  )
}

function refuseTwice(shared: readonly SharedSave[]): void {
  if (new Set(shared.map(({ id }) => id)).size === shared.length) return
  throw new Refused('malformed', 'The save holds one shared section twice. Nothing was changed.', {
    problems: [{ pointer: '/shared', message: 'must name each document once' }],
  })
}

async function refuseBinned(at: SiteData, pageId: string): Promise<void> {
  const { binnedAt } = await findPageRow(at, pageId)
  if (binnedAt === null) return
  throw new Refused(
    'page-deleted',
    'This page was deleted meanwhile, so nothing was saved. Your edits are kept: restore the page, then save again.',
  )
}

/** Locks a shared section. Refuses an id that no shared section has, and a document that is not valid as one. */
async function lockShared(at: SiteData, { id, document }: SharedSave): Promise<LockedDocument> {
  const locked = await lockDocument(at, id)
  const { type } = locked.row
  if (type !== 'header' && type !== 'footer' && type !== 'shared')
    throw new Refused('not-found', 'The site has no such shared section. Nothing was saved.')
  refuseInvalid(document, rootKindOf(locked))
  return locked
}

/** What a shared section is made of stays what it is: whole sections, or blocks. */
function rootKindOf({ row: { type }, newest }: LockedDocument): string {
  if (type !== 'shared') return `site-${type}`
  const { root, nodes } = readDocument(newest)
  return nodes[root]!.kind
}

/** Whether a document shows parts. It is not known to be valid yet: what is no node shows nothing. */
function showsParts({ nodes }: Page): boolean {
  return Object.values(nodes ?? {}).some(
    (node: Partial<PageNode> | null) => defaultRegistry.kinds.get(node?.kind ?? '')?.linksTo,
  )
}

function refuseStaleParts(parts: readonly Part[]): void {
  const stale = parts
    .filter(({ locked, base }) => locked.newest.number !== base)
    .map(({ locked }): StaleDocument & { readonly type: string } => ({
      documentId: locked.row.id,
      current: versionInfo(locked.newest),
      type: locked.row.type,
    }))
  const [first] = stale
  if (!first) return
  const what =
    first.type === 'page'
      ? 'this page'
      : first.type === 'shared'
        ? 'a shared section on this page'
        : `the ${first.type}`
  const page = stale.find(({ type }) => type === 'page')
  throw new Refused(
    'stale-save',
    `${first.current.savedBy} saved ${what} after you opened it. Nothing was overwritten, and your edits are kept.`,
    {
      stale: stale.map(({ documentId, current }) => ({ documentId, current })),
      ...(page ? { current: page.current } : {}),
    },
  )
}
