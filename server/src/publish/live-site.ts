/** The site as it is live, read from the database: what publishing compiles. */
import { settingsOf, type Page, type PageSettings, type Picture, type SiteFile } from '@gullyline/core'
import { RedirectEntity, type PageRow, type SiteRow } from '../db/rows.ts'
import { CHANGED_SINCE, lastPageChange } from '../db/page-changes.ts'
import { liveVersionOf, liveVersions } from '../documents/live.ts'
import { findDocument } from '../documents/store.ts'
import { findVersion, findVersions, readDocument } from '../documents/versions.ts'
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
  /** The ids of pages that somebody asked to go live now: all that they show must be there. */
  readonly goingLive: ReadonlySet<string>
  /** Where addresses lead that pages had before. */
  readonly redirects: Readonly<Record<string, string>>
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
  /** Reads the documents of some of the pages. Those that are not made again are never read. */
  readonly readDocuments: (pages: readonly LivePage[]) => Promise<ReadonlyMap<string, Page>>
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
  const standing = new Set([site.headerId, site.footerId, ...tree.pages.map(({ id }) => id)])
  for (const id of Object.keys(goingLive)) if (!standing.has(id)) await refuseAbsent(at, id)
  const pages = await livePages(at, { site, tree, goingLive, records, last })
  const livePaths = new Map(pages.map((page) => [page.id, page.path]))
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
    goingLive: new Set(Object.keys(goingLive)),
    redirects: await liveRedirects(at, livePaths),
    pictures: await listPictures(at),
    files: await listFiles(at),
    readDocuments,
  }
}

interface ToList extends ToRead {
  readonly site: SiteRow
  readonly tree: KnownTree
}

async function livePages(
  at: SiteData,
  { site, tree, goingLive, records, last }: ToList,
): Promise<LivePage[]> {
  const before = new Map((last?.pages ?? []).map((page) => [page.id, page]))
  const versionOf = await liveVersionsOf(at, { tree, last, before })
  const live = tree.pages.flatMap((row) => {
    const version = Object.hasOwn(goingLive, row.id) ? goingLive[row.id] : versionOf(row.id)
    return version == null ? [] : [{ row, version }]
  })
  const recordOf = ({ row, version }: (typeof live)[number]) => {
    const known = before.get(row.id)
    if (known?.version === version) return known
    const record = Object.hasOwn(records, row.id) ? records[row.id] : undefined
    return record?.version === version
      ? { settings: record.settings, savedAt: new Date(record.savedAt) }
      : undefined
  }
  const found = await findVersions(
    at,
    live.filter((one) => !recordOf(one)).map(({ row, version }) => ({ documentId: row.id, number: version })),
    (version) => ({ savedAt: version.savedAt, settings: settingsOf(readDocument(version)) }),
  )
  return live.map((one): LivePage => {
    const { row, version } = one
    const { settings, savedAt } = recordOf(one) ?? found.get(row.id)!
    const { id, parentId, address: path } = row
    const isNotFound = id === site.notFoundPageId
    const known = before.get(id)
    return known?.version === version &&
      known.path === path &&
      known.parentId === parentId &&
      known.isNotFound === isNotFound
      ? known
      : { id, path, parentId, version, savedAt, settings, title: settings.title || UNTITLED, isNotFound }
  })
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
  const versions = new Map<string, number | undefined>()
  if (tree.pages !== last.tree.pages) {
    // What came back from the bin may be live.
    const stood = new Set(last.tree.pages.map(({ id }) => id))
    for (const { id } of tree.pages)
      if (!stood.has(id)) versions.set(id, (await liveVersionOf(at, id))?.version)
  }
  return (id) => versions.get(id) ?? before.get(id)?.version
}

async function wholeTree(at: SiteData): Promise<KnownTree> {
  const rows = await placesOf(at)
  return { change: await lastPageChange(at), pages: asTree(inOrder(rows.filter(isStanding))) }
}

/** The tree as it is, by the pages that changed since it was known. */
async function treeSince(at: SiteData, known: KnownTree): Promise<KnownTree> {
  const change = await lastPageChange(at)
  if (change === known.change) return known
  const changed = await placesOf(at, known.change)
  const before = new Map(known.pages.map((page) => [page.id, page]))
  const isPlaced = (page: PlacedPage): boolean => !isSamePlace(page, before.get(page.id))
  const placed = changed.filter(isPlaced)
  // Nearly always something was saved and nothing moved.
  if (placed.length === 0) return { change, pages: known.pages }
  const ids = new Set(placed.map(({ id }) => id))
  const others = known.pages.filter(({ id }) => !ids.has(id))
  return { change, pages: asTree(inOrder([...others, ...placed.filter(isStanding)])) }
}

type PlacedPage = Omit<StandingPage, 'address'> & Pick<PageRow, 'address'>

/** Places of pages, with little of each, which is read in a fraction of the time; of those that changed after a change. */
function placesOf({ manager, siteId }: SiteData, since?: number): Promise<PlacedPage[]> {
  return manager.query<PlacedPage[]>(
    `SELECT p.id, p.parent_id AS parentId, p.position, p.slug, p.address FROM pages p
     WHERE p.site_id = ?${since === undefined ? '' : ` AND ${CHANGED_SINCE}`}`,
    [siteId, since],
  )
}

function isSamePlace(page: PlacedPage, before: StandingPage | undefined): boolean {
  if (!before) return page.address === null
  return (['parentId', 'position', 'slug', 'address'] as const).every((key) => page[key] === before[key])
}

/** Pages in the bin have no address. */
function isStanding(page: PlacedPage): page is StandingPage {
  return page.address !== null
}

function inOrder(pages: readonly StandingPage[]): StandingPage[] {
  return pages.toSorted((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1))
}

async function readShared(at: SiteData, documentId: string, goingLive: GoingLive): Promise<Page> {
  const number = goingLive[documentId] ?? (await liveVersionOf(at, documentId))?.version ?? 1
  return readDocument(await findVersion(at, documentId, number))
}

/** Where old addresses lead, for pages that visitors can see. */
async function liveRedirects(
  at: SiteData,
  livePaths: ReadonlyMap<string, string>,
): Promise<Record<string, string>> {
  const rows = await at.manager.find(RedirectEntity, { where: { siteId: at.siteId } })
  const inUse = new Set(livePaths.values())
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => {
      const to = livePaths.get(pageId)
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
