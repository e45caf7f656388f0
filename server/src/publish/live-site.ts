/** The site as it is live, read from the database: what publishing compiles. */
import { settingsOf, type Page, type PageSettings, type Picture, type SiteFile } from '@gullyline/core'
import { PageEntity, RedirectEntity, type PageRow, type SiteRow } from '../db/rows.ts'
import { liveVersionOf, liveVersions } from '../documents/live.ts'
import { findDocument } from '../documents/store.ts'
import { findVersion, findVersions, readDocument } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findPageRow } from '../pages/store.ts'
import { asTree } from '../pages/tree.ts'
import { findSite } from '../documents/site-row.ts'
import type { PageRecords } from './page-records.ts'
import type { SiteData, SiteScope } from '../db/site-scope.ts'

/** Versions that go live, by the ids of their documents, and null for those that are taken from visitors. */
export type GoingLive = Readonly<Record<string, number | null>>

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
  /** Whether somebody asked for it to go live now: then all that it shows must be there. */
  readonly isGoingLive: boolean
}

export interface LiveSite {
  readonly site: SiteRow
  readonly header: Page
  readonly footer: Page
  /** In the order of the tree. */
  readonly pages: readonly LivePage[]
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
}

/** The site as it is live, with `goingLive` instead of what is live of those pages. Of versions that have a record, nothing is read. */
export async function readLiveSite(
  scope: SiteScope,
  at: SiteData,
  { goingLive, records }: ToRead,
): Promise<LiveSite> {
  const site = await findSite(at)
  const rows = await standingPages(at)
  const standing = new Set([site.headerId, site.footerId, ...rows.map(({ id }) => id)])
  for (const id of Object.keys(goingLive)) if (!standing.has(id)) await refuseAbsent(at, id)
  const before = await liveVersions(at)
  const versionOf = (id: string): number | null =>
    Object.hasOwn(goingLive, id) ? goingLive[id]! : (before.get(id)?.version ?? null)
  const live = rows.flatMap((row) => {
    const version = versionOf(row.id)
    return version === null ? [] : [{ row, version }]
  })
  const header = await readShared(at, site.headerId, versionOf(site.headerId) ?? 1)
  const footer = await readShared(at, site.footerId, versionOf(site.footerId) ?? 1)
  const known = ({ row, version }: (typeof live)[number]) => {
    const record = Object.hasOwn(records, row.id) ? records[row.id] : undefined
    return record?.version === version ? record : undefined
  }
  const unknown = live.filter((one) => !known(one))
  const found = await findVersions(
    at,
    unknown.map(({ row, version }) => ({ documentId: row.id, number: version })),
    (version) => ({ savedAt: version.savedAt, settings: settingsOf(readDocument(version)) }),
  )
  const pages = live.map((one): LivePage => {
    const { row, version } = one
    const record = known(one)
    const { settings, savedAt } = record
      ? { settings: record.settings, savedAt: new Date(record.savedAt) }
      : found.get(row.id)!
    const { id, parentId } = row
    const isNotFound = id === site.notFoundPageId
    const isGoingLive = Object.hasOwn(goingLive, id)
    return {
      id,
      path: row.address!,
      parentId,
      version,
      savedAt,
      settings,
      title: settings.title || row.title,
      isNotFound,
      isGoingLive,
    }
  })
  const livePaths = Object.fromEntries(pages.map((page) => [page.id, page.path]))
  const redirects = await liveRedirects(at, livePaths)
  const pictures = await listPictures(at)
  const files = await listFiles(at)
  // Versions are never changed, so they can be read after the transaction.
  const readDocuments = (some: readonly LivePage[]): Promise<ReadonlyMap<string, Page>> =>
    scope.read((at) =>
      findVersions(
        at,
        some.map(({ id, version }) => ({ documentId: id, number: version })),
        readDocument,
      ),
    )
  return { site, header, footer, pages, redirects, pictures, files, readDocuments }
}

/** What publishing needs to know of a page that stands in the tree. */
type StandingPage = Pick<PageRow, 'id' | 'parentId' | 'title' | 'slug' | 'address'>

/** The pages in their order with little of each, which is read in a fraction of the time. */
async function standingPages(at: SiteData): Promise<StandingPage[]> {
  const rows = await at.manager
    .createQueryBuilder(PageEntity, 'p')
    .select('p.id', 'id')
    .addSelect('p.parent_id', 'parentId')
    .addSelect('p.title', 'title')
    .addSelect('p.slug', 'slug')
    .addSelect('p.address', 'address')
    .where('p.site_id = :siteId AND p.binned_at IS NULL', { siteId: at.siteId })
    .orderBy('p.position', 'ASC')
    .getRawMany<StandingPage>()
  return asTree(rows)
}

async function readShared(at: SiteData, documentId: string, number: number): Promise<Page> {
  return readDocument(await findVersion(at, documentId, number))
}

/** Where old addresses lead, for pages that visitors can see. */
async function liveRedirects(
  at: SiteData,
  livePaths: Readonly<Record<string, string>>,
): Promise<Record<string, string>> {
  const rows = await at.manager.find(RedirectEntity, { where: { siteId: at.siteId } })
  const inUse = new Set(Object.values(livePaths))
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => {
      const to = livePaths[pageId]
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
