/** The site as it is live, read from the database: what publishing compiles. */
import {
  settingsOf,
  type Page,
  type PageAsLive,
  type PageSettings,
  type Picture,
  type SiteFile,
} from '@gullyline/core'
import { DocumentEntity } from '../db/document-rows.ts'
import { RedirectEntity, type PageRow, type SiteRow } from '../db/rows.ts'
import { CHANGED_PAGES, lastPageChange } from '../db/page-changes.ts'
import { liveVersionOf, liveVersions, type LiveVersion } from '../documents/live.ts'
import { documentsOf, partsToPublish } from '../documents/part-versions.ts'
import { findDocument } from '../documents/store.ts'
import { findVersion, findVersions, readDocument, type VersionKey } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findPageRow } from '../pages/store.ts'
import { asTree, UNTITLED } from '../pages/tree.ts'
import { findSite } from '../documents/site-row.ts'
import type { PageRecords } from './page-records.ts'
import type { SiteData, SiteScope } from '../db/site-scope.ts'

/** Versions that go live, by the ids of their documents, and null for those that are taken from visitors. */
export type GoingLive = Readonly<Record<string, number | null>>

/** A page that visitors see. One that did not change from release to release is the same object. */
export interface LivePage {
  readonly id: string
  readonly path: string
  readonly parentId: string | null
  readonly version: number
  readonly title: string
  readonly settings: PageSettings
  /** When its version was saved. */
  readonly savedAt: Date
  /** Whether it is what visitors get where there is no page. */
  readonly isNotFound: boolean
}

/** What publishing needs to know of a page that stands in the tree. */
type StandingPage = Pick<PageRow, 'id' | 'parentId' | 'position' | 'slug'> & { readonly address: string }

/** The tree of a site as it was after a change. */
interface KnownTree {
  /** The number of the last change of its pages. */
  readonly change: number
  /** In the order of the tree. */
  readonly pages: readonly StandingPage[]
}

export interface LiveSite {
  readonly site: SiteRow
  readonly header: Page
  readonly footer: Page
  readonly tree: KnownTree
  /** In the order of the tree. */
  readonly pages: readonly LivePage[]
  /** The same by their ids. */
  readonly byId: ReadonlyMap<string, LivePage>
  /** The ids of pages that somebody asked to go live now: all that they show must be there. */
  readonly goingLive: ReadonlySet<string>
  /** Where addresses lead that pages had before. */
  readonly redirects: Readonly<Record<string, string>>
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
  /** The live shared sections, by their ids. One that did not change from release to release is the same object. */
  readonly parts: Readonly<Record<string, LivePart>>
  /** Reads the documents of some of the pages. Those that are not made again are never read. */
  readonly readDocuments: (pages: readonly LivePage[]) => Promise<ReadonlyMap<string, Page>>
}

/** A shared section that visitors see where it is shown. */
interface LivePart {
  readonly version: number
  readonly document: Page
}

interface ToRead {
  readonly goingLive: GoingLive
  readonly records: PageRecords
  /** The site as the release showed it that visitors see; undefined where this process did not read it. */
  readonly last: LiveSite | undefined
}

/**
 * The site as it is live, with `goingLive` instead of what is live of those pages. What `last` knows and no act changed is
 * not read again, nor is anything of versions that have a record.
 */
export async function readLiveSite(
  scope: SiteScope,
  at: SiteData,
  { goingLive, records, last }: ToRead,
): Promise<LiveSite> {
  const site = await findSite(at)
  const tree = last ? await treeSince(at, last.tree) : await wholeTree(at)
  for (const id of Object.keys(goingLive))
    if (!(await isShared(at, site, id)) && !tree.pages.some((page) => page.id === id))
      await refuseAbsent(at, id)
  const pages = await livePages(at, { site, tree, goingLive, records, last })
  const byId = new Map<string, LivePage>()
  for (const page of pages) byId.set(page.id, page)
  // Versions are never changed, so they can be read after the transaction.
  const readDocuments = (some: readonly LivePage[]): Promise<ReadonlyMap<string, Page>> =>
    scope.read((at) =>
      findVersions(
        at,
        some.map(({ id, version }) => ({ documentId: id, number: version })),
        readDocument,
      ),
    )
  return {
    site,
    header: await readShared(at, site.headerId, goingLive),
    footer: await readShared(at, site.footerId, goingLive),
    tree,
    pages,
    byId,
    goingLive: new Set(Object.keys(goingLive)),
    redirects: await liveRedirects(at, byId),
    pictures: await listPictures(at),
    files: await listFiles(at),
    parts: await liveParts(at, goingLive, last?.parts ?? {}),
    readDocuments,
  }
}

/** A page as visitors see it, with what stands on it. Refuses one that is not live. */
export async function readPageAsLive(at: SiteData, pageId: string): Promise<PageAsLive> {
  await findPageRow(at, pageId)
  const live = await liveVersionOf(at, pageId)
  if (!live) throw new Refused('not-found', 'Visitors do not see this page: it is not live.')
  const site = await findSite(at)
  const page = readDocument(await findVersion(at, pageId, live.version))
  const header = await readShared(at, site.headerId, {})
  const footer = await readShared(at, site.footerId, {})
  const parts: Record<string, Page> = {}
  for (const one of [page, header, footer])
    Object.assign(parts, documentsOf(await partsToPublish(at, one, {})))
  return { version: live.version, page, header, footer, parts }
}

async function isShared(at: SiteData, { headerId, footerId }: SiteRow, id: string): Promise<boolean> {
  if (id === headerId || id === footerId) return true
  return at.manager.existsBy(DocumentEntity, { id, siteId: at.siteId, type: 'shared' })
}

async function liveParts(
  at: SiteData,
  goingLive: GoingLive,
  before: LiveSite['parts'],
): Promise<LiveSite['parts']> {
  const rows = await at.manager.find(DocumentEntity, {
    where: { siteId: at.siteId, type: 'shared' },
    select: { id: true },
  })
  const ids = rows.map(({ id }) => id)
  if (ids.length === 0) return {}
  const live = await liveVersions(at, ids)
  const versions = ids.flatMap((id) => {
    const number = goingLive[id] ?? live.get(id)?.version
    return number === undefined ? [] : [{ documentId: id, number }]
  })
  const isKnown = ({ documentId, number }: VersionKey): boolean => before[documentId]?.version === number
  const others = versions.filter((key) => !isKnown(key))
  const found = await findVersions(at, others, (version): LivePart => ({
    version: version.number,
    document: readDocument(version),
  }))
  return Object.fromEntries(
    versions.map(({ documentId }) => [documentId, found.get(documentId) ?? before[documentId]!]),
  )
}

interface ToList extends ToRead {
  readonly site: SiteRow
  readonly tree: KnownTree
}

async function livePages(
  at: SiteData,
  { site, tree, goingLive, records, last }: ToList,
): Promise<LivePage[]> {
  const before = last?.byId ?? new Map<string, LivePage>()
  const versionOf = await liveVersionsOf(at, { tree, last, before })
  const live: (LivePage | undefined)[] = []
  // Nearly all are the pages of before, which are not made again.
  const others: { readonly at: number; readonly row: StandingPage; readonly version: number }[] = []
  const unknown: VersionKey[] = []
  for (const row of tree.pages) {
    const { id } = row
    const version = Object.hasOwn(goingLive, id) ? goingLive[id] : versionOf(id)
    if (version == null) continue
    const known = before.get(id)
    const isSame =
      known?.version === version &&
      known.path === row.address &&
      known.parentId === row.parentId &&
      known.isNotFound === (id === site.notFoundPageId)
    live.push(isSame ? known : undefined)
    if (isSame) continue
    others.push({ at: live.length - 1, row, version })
    if (known?.version !== version && records.get(id)?.version !== version)
      unknown.push({ documentId: id, number: version })
  }
  const found = await findVersions(at, unknown, (version) => ({
    savedAt: version.savedAt,
    settings: settingsOf(readDocument(version)),
  }))
  for (const { at: place, row, version } of others) {
    const { id, parentId, address: path } = row
    const known = before.get(id)
    const record = records.get(id)
    const { settings, savedAt } =
      found.get(id) ??
      (known?.version === version
        ? known
        : { settings: record!.settings, savedAt: new Date(record!.savedAt) })
    const isNotFound = id === site.notFoundPageId
    const title = settings.title || UNTITLED
    live[place] = { id, path, parentId, version, savedAt, settings, title, isNotFound }
  }
  return live as LivePage[]
}

interface Known {
  readonly tree: KnownTree
  readonly last: LiveSite | undefined
  readonly before: ReadonlyMap<string, LivePage>
}

/** Gives which version of a page the release before showed. */
async function liveVersionsOf(
  at: SiteData,
  { tree, last, before }: Known,
): Promise<(id: string) => number | undefined> {
  if (!last) {
    const all = await liveVersions(at)
    return (id) => all.get(id)?.version
  }
  if (tree.pages === last.tree.pages) return (id) => before.get(id)?.version
  // What came back from the bin may be live.
  const stood = new Set<string>()
  for (const { id } of last.tree.pages) stood.add(id)
  const back = tree.pages.flatMap(({ id }) => (stood.has(id) ? [] : [id]))
  const versions = back.length > 0 ? await liveVersions(at, back) : new Map<string, LiveVersion>()
  return (id) => (versions.get(id) ?? before.get(id))?.version
}

async function wholeTree(at: SiteData): Promise<KnownTree> {
  const rows = await at.manager.query<PlacedPage[]>(`SELECT ${PLACE} FROM pages p WHERE p.site_id = ?`, [
    at.siteId,
  ])
  return { change: await lastPageChange(at), pages: asTree(rows.filter(isStanding).sort(byPlace)) }
}

/** The tree as it is, by the pages that changed since it was known. */
async function treeSince(at: SiteData, known: KnownTree): Promise<KnownTree> {
  const change = await lastPageChange(at)
  if (change === known.change) return known
  const sql = `SELECT ${PLACE} FROM ${CHANGED_PAGES}`
  const rows = await at.manager.query<PlacedPage[]>(sql, [at.siteId, known.change])
  const changed = new Map(rows.map((page) => [page.id, page]))
  // What was saved and stands where it stood is left alone.
  for (const page of known.pages) {
    const now = changed.get(page.id)
    if (now && isSamePlace(now, page)) changed.delete(page.id)
  }
  if (changed.size === 0) return { change, pages: known.pages }
  const placed = [...changed.values()].filter(isStanding).sort(byPlace)
  const others = known.pages.filter(({ id }) => !changed.has(id))
  return { change, pages: merged(others, placed) }
}

/** Two lists in the order of the tree as one. */
function merged(one: readonly StandingPage[], other: readonly StandingPage[]): StandingPage[] {
  const all: StandingPage[] = []
  let at = 0
  for (const page of one) {
    while (at < other.length && byPlace(other[at]!, page) < 0) all.push(other[at++]!)
    all.push(page)
  }
  return [...all, ...other.slice(at)]
}

type PlacedPage = Omit<StandingPage, 'address'> & Pick<PageRow, 'address'>

/** Of a page, what says where it stands: little, so that thousands are read in a moment. */
const PLACE = 'p.id, p.parent_id AS parentId, p.position, p.slug, p.address'

function isSamePlace(page: PlacedPage, before: StandingPage): boolean {
  return (['parentId', 'position', 'slug', 'address'] as const).every((key) => page[key] === before[key])
}

/** Pages in the bin have no address. */
function isStanding(page: PlacedPage): page is StandingPage {
  return page.address !== null
}

function byPlace(one: StandingPage, other: StandingPage): number {
  return one.position - other.position || (one.id < other.id ? -1 : 1)
}

async function readShared(at: SiteData, documentId: string, goingLive: GoingLive): Promise<Page> {
  const number = goingLive[documentId] ?? (await liveVersionOf(at, documentId))?.version ?? 1
  return readDocument(await findVersion(at, documentId, number))
}

/** Where old addresses lead, for pages that visitors can see. */
async function liveRedirects(
  at: SiteData,
  pages: ReadonlyMap<string, LivePage>,
): Promise<Record<string, string>> {
  const rows = await at.manager.find(RedirectEntity, { where: { siteId: at.siteId } })
  const old = new Set(rows.map(({ path }) => path))
  const inUse = new Set<string>()
  for (const { path } of pages.values()) if (old.has(path)) inUse.add(path)
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => {
      const to = pages.get(pageId)?.path
      return to === undefined || inUse.has(path) ? [] : [[path, to]]
    }),
  )
}

/** A page that is to go live and stands in no tree: it does not exist, or was deleted. */
async function refuseAbsent(at: SiteData, pageId: string): Promise<never> {
  await assertMayGoLive(at, pageId, null)
  throw new Refused('not-found', 'This page belongs to another site. Nothing was published.')
}

/** Refuses a page in the bin, and a version older than what is live of the document. */
export async function assertMayGoLive(
  at: SiteData,
  documentId: string,
  version: number | null,
): Promise<void> {
  const { type } = await findDocument(at, documentId)
  if (type === 'page' && (await findPageRow(at, documentId)).binnedAt !== null)
    throw new Refused('page-deleted', 'This page was deleted. Restore it first; nothing was published.')
  const live = await liveVersionOf(at, documentId)
  if (live && version !== null && live.version > version)
    throw new Refused(
      'stale-publish',
      `Version ${live.version} of this page went live meanwhile, which is newer than version ${version}. Nothing was changed; open the page again to see it.`,
    )
}
