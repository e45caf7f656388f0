/** The site as it is live, read from the database: what publishing compiles. */
import type { EntityManager } from 'typeorm'
import { settingsOf, type Page, type PageSettings, type Picture, type SiteFile } from '@gullyline/core'
import type { PageRow, SiteRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findPageRow, findVersions, readDocument } from '../pages/store.ts'
import { liveRedirects, standingPages } from '../pages/tree-acts.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'
import type { PageRecords } from './page-records.ts'

/** Versions that go live, by the id of their page. */
export type GoingLive = Readonly<Record<string, number>>

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
  services: Services,
  manager: EntityManager,
  { goingLive, records }: ToRead,
): Promise<LiveSite> {
  const site = await findSite(manager)
  const rows = await standingPages(manager, site.id)
  const standing = new Set(rows.map(({ id }) => id))
  for (const id of Object.keys(goingLive)) if (!standing.has(id)) await refuseAbsent(manager, id)
  const live = rows.flatMap((row) => {
    const version = Object.hasOwn(goingLive, row.id) ? goingLive[row.id]! : row.liveVersion
    return version === null ? [] : [{ row, version }]
  })
  const known = ({ row, version }: (typeof live)[number]) => {
    const record = Object.hasOwn(records, row.id) ? records[row.id] : undefined
    return record?.version === version ? record : undefined
  }
  const unknown = live.filter((one) => !known(one))
  const found = await findVersions(
    manager,
    unknown.map(({ row, version }) => ({ pageId: row.id, number: version })),
    (row) => ({ savedAt: row.savedAt, settings: settingsOf(readDocument(row)) }),
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
  const redirects = await liveRedirects(manager, site.id, livePaths)
  const pictures = await listPictures(manager, site.id)
  const files = await listFiles(manager, site.id)
  // Versions are never changed, so they can be read after the transaction.
  const readDocuments = (some: readonly LivePage[]): Promise<ReadonlyMap<string, Page>> =>
    findVersions(
      services.db.manager,
      some.map(({ id, version }) => ({ pageId: id, number: version })),
      readDocument,
    )
  return { site, pages, redirects, pictures, files, readDocuments }
}

/** A page that is to go live and stands in no tree: it does not exist, or was deleted. */
async function refuseAbsent(manager: EntityManager, pageId: string): Promise<never> {
  assertMayGoLive(await findPageRow(manager, pageId), 0)
  throw new Refused('not-found', 'This page belongs to another site. Nothing was published.')
}

/** Refuses a page in the bin, and a version older than what is live of it. */
export function assertMayGoLive({ binnedAt, liveVersion }: PageRow, version: number): void {
  if (binnedAt !== null)
    throw new Refused('page-deleted', 'This page was deleted. Restore it first; nothing was published.')
  if (liveVersion !== null && liveVersion > version)
    throw new Refused(
      'stale-publish',
      `Version ${liveVersion} of this page went live meanwhile, which is newer than version ${version}. Nothing was changed; open the page again to see it.`,
    )
}
