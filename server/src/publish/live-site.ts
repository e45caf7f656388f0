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
import { RedirectEntity, type SiteRow } from '../db/rows.ts'
import { liveVersion, liveVersionOf, liveVersions, type LiveVersion } from '../documents/live.ts'
import { documentsOf, partsToPublish } from '../documents/part-versions.ts'
import {
  findVersion,
  findVersions,
  noDocument,
  readDocument,
  type VersionKey,
} from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findPageRow } from '../pages/store.ts'
import { UNTITLED } from '../pages/tree.ts'
import { findSite } from '../documents/site-row.ts'
import { treeSince, wholeTree, type KnownTree, type Moved, type StandingPage } from './known-tree.ts'
import type { PageRecords } from './page-records.ts'
import { SharedMap } from './shared-map.ts'
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

export interface LiveSite {
  readonly site: SiteRow
  readonly header: LiveSection
  readonly footer: LiveSection
  readonly tree: KnownTree
  /** In the order of the tree. */
  readonly pages: readonly LivePage[]
  /** The same by their ids. */
  readonly byId: SharedMap<LivePage>
  /** Undefined where the release before is not known. */
  readonly since: Since | undefined
  /** The ids of pages that somebody asked to go live now: all that they show must be there. */
  readonly goingLive: ReadonlySet<string>
  /** Where addresses lead that pages had before. */
  readonly redirects: Readonly<Record<string, string>>
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
  /** The live shared sections, by their ids. One that did not change from release to release is the same object. */
  readonly parts: Readonly<Record<string, LiveSection>>
  /** Reads the documents of some of the pages. Those that are not made again are never read. */
  readonly readDocuments: (pages: readonly LivePage[]) => Promise<ReadonlyMap<string, Page>>
}

/** Which pages may be other ones than in the release before, or stand elsewhere: all others are the same objects, in the same order. */
export interface Since {
  /** All pages of the release before. */
  readonly pages: readonly LivePage[]
  /** Ids. */
  readonly touched: ReadonlySet<string>
}

/** A shared section that visitors see where it is shown. */
interface LiveSection {
  readonly version: number
  readonly document: Page
}

interface ToRead {
  readonly site: SiteRow
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
  { site, goingLive, records, last }: ToRead,
): Promise<LiveSite> {
  const { tree, moved } = last ? await treeSince(at, last.tree) : await wholeTree(at)
  for (const id of Object.keys(goingLive))
    if (!tree.pages.some((page) => page.id === id) && !(await isShared(at, site, id)))
      await refuseAbsent(at, id)
  const { pages, byId, since } = await livePages(at, { site, tree, moved, goingLive, records, last })
  // Versions are never changed, so they can be read after the transaction.
  const readDocuments = (some: readonly LivePage[]): Promise<ReadonlyMap<string, Page>> =>
    scope.read((at) =>
      findVersions(
        at,
        some.map(({ id, version }) => ({ documentId: id, number: version })),
        readDocument,
      ),
    )
  const { header, footer, parts } = await liveSections(at, { site, goingLive, last })
  return {
    site,
    header,
    footer,
    tree,
    pages,
    byId,
    since,
    goingLive: new Set(Object.keys(goingLive)),
    redirects: await liveRedirects(at, { pages, byId }),
    pictures: await listPictures(at),
    files: await listFiles(at),
    parts,
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
  const header = await readShared(at, site.headerId)
  const footer = await readShared(at, site.footerId)
  const parts: Record<string, Page> = {}
  for (const one of [page, header, footer])
    Object.assign(parts, documentsOf(await partsToPublish(at, one, {})))
  return { version: live.version, page, header, footer, parts }
}

async function isShared(at: SiteData, { headerId, footerId }: SiteRow, id: string): Promise<boolean> {
  if (id === headerId || id === footerId) return true
  return at.manager.existsBy(DocumentEntity, { id, siteId: at.siteId, type: 'shared' })
}

/** The header, the footer and the live parts of a site. */
async function liveSections(
  at: SiteData,
  { site, goingLive, last }: Pick<ToRead, 'site' | 'goingLive' | 'last'>,
): Promise<Pick<LiveSite, 'header' | 'footer' | 'parts'>> {
  // From the parts on: beginning with the documents would read a row of every page.
  const rows = await at.manager.query<{ id: string }[]>(
    "SELECT p.id FROM parts p JOIN documents d ON d.id = p.id WHERE p.site_id = ? AND d.type = 'shared'",
    [at.siteId],
  )
  const onAllPages = [site.headerId, site.footerId]
  const ids = [...onAllPages, ...rows.map(({ id }) => id)]
  const live = await liveVersions(at, ids)
  const versions = ids.flatMap((documentId) => {
    // Every page has a header and a footer, also before any was published.
    const number =
      goingLive[documentId] ??
      live.get(documentId)?.version ??
      (onAllPages.includes(documentId) ? 1 : undefined)
    return number === undefined ? [] : [{ documentId, number }]
  })
  const before = new Map(Object.entries(last?.parts ?? {}))
  if (last) before.set(last.site.headerId, last.header).set(last.site.footerId, last.footer)
  const isKnown = ({ documentId, number }: VersionKey): boolean => before.get(documentId)?.version === number
  const others = versions.filter((key) => !isKnown(key))
  const found = await findVersions(at, others, (version): LiveSection => ({
    version: version.number,
    document: readDocument(version),
  }))
  const sectionOf = (id: string): LiveSection => found.get(id) ?? before.get(id)!
  return {
    header: sectionOf(site.headerId),
    footer: sectionOf(site.footerId),
    parts: Object.fromEntries(
      versions.flatMap(({ documentId: id }) => (onAllPages.includes(id) ? [] : [[id, sectionOf(id)]])),
    ),
  }
}

interface ToList extends ToRead {
  readonly tree: KnownTree
  readonly moved: Moved
}

async function livePages(at: SiteData, given: ToList): Promise<Pick<LiveSite, 'pages' | 'byId' | 'since'>> {
  const { site, records, last } = given
  const { live, others, since } = last ? await sinceLast(at, given, last) : await allLive(at, given)
  const unknown = others.filter(
    ({ row: { id }, version }) =>
      last?.byId.get(id)?.version !== version && records.get(id)?.version !== version,
  )
  const found = await findVersions(
    at,
    unknown.map(({ row, version }) => ({ documentId: row.id, number: version })),
    (version) => ({ savedAt: version.savedAt, settings: settingsOf(readDocument(version)) }),
  )
  // Those that are gone stay undefined.
  const byId = new Map<string, LivePage | undefined>()
  for (const id of since?.touched ?? []) byId.set(id, undefined)
  for (const { place, row, version } of others) {
    const { id, parentId, address: path } = row
    const known = last?.byId.get(id)
    const record = records.get(id)
    const { settings, savedAt } =
      found.get(id) ??
      (known?.version === version
        ? known
        : { settings: record!.settings, savedAt: new Date(record!.savedAt) })
    const isNotFound = id === site.notFoundPageId
    const title = settings.title || UNTITLED
    const page = { id, path, parentId, version, savedAt, settings, title, isNotFound }
    const kept = known && isSamePage(known, page) ? known : page
    live[place] = kept
    byId.set(id, kept)
  }
  return { pages: live as LivePage[], byId: (last?.byId ?? SharedMap.of<LivePage>([])).with(byId), since }
}

function isSamePage(one: LivePage, other: LivePage): boolean {
  return (['version', 'path', 'parentId', 'isNotFound'] as const).every((key) => one[key] === other[key])
}

/** A page that may be another one than before, and its place in the list. */
interface OtherPage {
  readonly place: number
  readonly row: StandingPage
  readonly version: number
}

/** The live pages in the order of the tree, with gaps for those that are to be looked at. */
interface Listed {
  readonly live: (LivePage | undefined)[]
  readonly others: readonly OtherPage[]
  readonly since: Since | undefined
}

async function allLive(at: SiteData, { tree, goingLive }: ToList): Promise<Listed> {
  const versions = await liveVersions(at)
  const others: OtherPage[] = []
  for (const row of tree.pages) {
    const version = Object.hasOwn(goingLive, row.id) ? goingLive[row.id] : versions.get(row.id)?.version
    if (version != null) others.push({ place: others.length, row, version })
  }
  return { live: others.map(() => undefined), others, since: undefined }
}

/** The same where the release before is known: nearly all are its pages, in its order, and are not even looked up. */
async function sinceLast(
  at: SiteData,
  { site, tree, moved, goingLive }: ToList,
  last: LiveSite,
): Promise<Listed> {
  const touched = new Set([...moved.ids, ...Object.keys(goingLive)])
  if (site.notFoundPageId !== last.site.notFoundPageId)
    for (const { notFoundPageId: id } of [site, last.site]) if (id !== null) touched.add(id)
  // What came back from the bin may be live.
  const back = moved.back.length > 0 ? await liveVersions(at, moved.back) : new Map<string, LiveVersion>()
  const live: (LivePage | undefined)[] = []
  const others: OtherPage[] = []
  let next = 0
  for (const row of tree.pages) {
    const { id } = row
    if (touched.has(id)) {
      const known = (back.get(id) ?? last.byId.get(id))?.version
      const version = Object.hasOwn(goingLive, id) ? goingLive[id] : known
      if (version == null) continue
      others.push({ place: live.length, row, version })
      live.push(undefined)
      continue
    }
    while (next < last.pages.length && touched.has(last.pages[next]!.id)) next++
    if (last.pages[next]?.id === id) live.push(last.pages[next++])
  }
  return { live, others, since: { pages: last.pages, touched } }
}

async function readShared(at: SiteData, documentId: string): Promise<Page> {
  const number = (await liveVersionOf(at, documentId))?.version ?? 1
  return readDocument(await findVersion(at, documentId, number))
}

/** Where old addresses lead, for pages that visitors can see. */
async function liveRedirects(
  at: SiteData,
  { pages, byId }: Pick<LiveSite, 'pages' | 'byId'>,
): Promise<Record<string, string>> {
  const rows = await at.manager.find(RedirectEntity, { where: { siteId: at.siteId } })
  if (rows.length === 0) return {}
  const old = new Set(rows.map(({ path }) => path))
  const inUse = new Set<string>()
  for (const { path } of pages) if (old.has(path)) inUse.add(path)
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => {
      const to = byId.get(pageId)?.path
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
  const [row] = await at.manager.query<{ binnedAt: Date | null; live: number | null }[]>(
    `SELECT p.binned_at AS binnedAt, (${liveVersion('d.id')}) AS live
     FROM documents d LEFT JOIN pages p ON p.id = d.id WHERE d.id = ? AND d.site_id = ?`,
    [documentId, at.siteId],
  )
  if (!row) throw noDocument()
  const { binnedAt, live } = row
  if (binnedAt !== null)
    throw new Refused('page-deleted', 'This page was deleted. Restore it first; nothing was published.')
  if (live !== null && version !== null && live > version)
    throw new Refused(
      'stale-publish',
      `Version ${live} of this page went live meanwhile, which is newer than version ${version}. Nothing was changed; open the page again to see it.`,
    )
}
