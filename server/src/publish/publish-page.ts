import { lstat, readdir, rename, rm, stat, symlink } from 'node:fs/promises'
import { join } from 'node:path'
import { IsNull, type EntityManager } from 'typeorm'
import { settingsOf, type PublishResult } from '@gullyline/core'
import { PageEntity, SiteEntity, type PageRow, type SiteRow } from '../db/rows.ts'
import { transact } from '../db/transact.ts'
import { newId } from '../http/new-id.ts'
import { CURRENT } from '../media/folders.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { audit } from '../http/audit.ts'
import { Refused } from '../http/errors.ts'
import { makeFolder } from '../http/make-folder.ts'
import { pageFindings } from '../pages/findings.ts'
import { findPageRow, findVersion, openPage, readDocument } from '../pages/store.ts'
import { liveRedirects, treeRows } from '../pages/tree-acts.ts'
import { pagePaths } from '../pages/tree.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'
import { redirectsOf } from './redirects.ts'
import { compileSite, type LivePage, type LiveSite, type MissingFile } from './compile-site.ts'

/** How a link is called until it takes the place of the current one. */
const NEXT = '.next-'
/** A link that is called so for longer belongs to a publish that was killed. */
const STALE_LINK_MS = 60_000
/** Folders of earlier states that are kept, beside the one visitors see. */
const KEPT_RELEASES = 3
/** Another server may publish while this one compiles; then it is compiled again, on what that one left. */
const MOST_TRIES = 5

/** Publishes of this server are one after another: two at once would each compile the site for nothing. */
let queue: Promise<unknown> = Promise.resolve()

/** Versions that go live, by the id of their page. */
export type GoingLive = Readonly<Record<string, number>>

/** Makes one version of a page what visitors see: the one that was looked at. Refuses one that the checks find errors on. */
export function publishPage(
  services: Services,
  pageId: string,
  { version, by }: { readonly version: number; readonly by: string },
): Promise<PublishResult> {
  return queued(async () => {
    await services.db
      .transaction((manager) => refuseErrors(manager, pageId, version))
      .catch((error: unknown) => {
        if (error instanceof Refused)
          audit(services.log, 'publish refused', { account: by, page: pageId, version })
        throw error
      })
    await publishNow(services, { [pageId]: version })
    audit(services.log, 'published', { account: by, page: pageId, version })
    const { summary } = await services.db.transaction((manager) => openPage(manager, pageId))
    return { summary, url: services.liveOrigin + summary.path }
  })
}

/**
 * Compiles what is live again, after addresses, the navigation, the library or the pages in the tree changed. That
 * change is saved already when this is called, and what is told when it fails must say so.
 */
export function publishAgain(services: Services): Promise<void> {
  return queued(() => publishNow(services, {})).catch((error: unknown) => {
    services.log.error({ err: error }, 'The site could not be compiled again')
    throw new Refused(
      'internal',
      'The change is saved, but the published site could not be updated: visitors see what they saw before. Publish any page to try again, and look at the server’s log if it happens again.',
    )
  })
}

function queued<T>(act: () => Promise<T>): Promise<T> {
  const result = queue.then(act)
  queue = result.catch(() => undefined)
  return result
}

async function refuseErrors(manager: EntityManager, pageId: string, version: number): Promise<void> {
  assertMayGoLive(await findPageRow(manager, pageId), version)
  const errors = (await pageFindings(manager, pageId, version)).filter(({ severity }) => severity === 'error')
  if (errors.length === 0) return
  throw new Refused(
    'has-problems',
    `The page was not published, because ${errors.length === 1 ? 'there is one problem' : `there are ${errors.length} problems`} to fix on it first. It is saved, and visitors see what they saw before.`,
    {
      problems: errors.map(({ nodeId, message }) => ({ pointer: nodeId ? `/nodes/${nodeId}` : '', message })),
    },
  )
}

function assertMayGoLive({ binnedAt, liveVersion }: PageRow, version: number): void {
  if (binnedAt !== null)
    throw new Refused('page-deleted', 'This page was deleted. Restore it first; nothing was published.')
  if (liveVersion !== null && liveVersion > version)
    throw new Refused(
      'stale-publish',
      `Version ${liveVersion} of this page went live meanwhile, which is newer than version ${version}. Nothing was changed; open the page again to see it.`,
    )
}

/**
 * Compiles the site with these versions live into a fresh folder, then marks exactly them in one short transaction,
 * and points visitors to the folder in one step. No lock is held while it compiles. Until that step visitors see what
 * they saw before; when something fails, they go on seeing it.
 */
export async function publishNow(services: Services, goingLive: GoingLive): Promise<void> {
  for (let left = MOST_TRIES; ; left--) {
    if (await tryPublish(services, goingLive)) return showRelease(services)
    if (left <= 1)
      throw new Refused(
        'stale-publish',
        'Others keep publishing this site. Nothing was changed; publish again in a moment.',
      )
  }
}

/** False when another server published in between; then nothing was changed. */
async function tryPublish(services: Services, goingLive: GoingLive): Promise<boolean> {
  const releaseId = newId()
  const folder = join(releasesDir(services), releaseId)
  let isShown = false
  try {
    const live = await services.db.transaction((manager) => readLiveSite(manager, goingLive))
    const before = { site: live.site.id, release: live.site.releaseId }
    const missing = await compileSite(live, folder, services)
    refuseMissing(missing, goingLive)
    for (const { page, path } of missing)
      services.log.error(
        { page: page.path, file: path },
        'A live page shows a file that is gone from the disk',
      )
    isShown = await transact(services.db, (manager) => goLive(manager, { before, releaseId, goingLive }))
    return isShown
  } finally {
    if (!isShown) await removeRelease(folder)
  }
}

/** What goes live now must be whole. What is live already stays, whatever has become of its files. */
function refuseMissing(missing: readonly MissingFile[], goingLive: GoingLive): void {
  const named = missing.filter(({ page }) => Object.hasOwn(goingLive, page.id))
  if (named.length === 0) return
  const names = [...new Set(named.map(({ name }) => `“${name}”`))].join(', ')
  throw new Refused(
    'has-problems',
    `Not published: the page shows ${names}, and the server no longer has the file. Nothing was changed; replace it under Pictures or Files, or take it off the page.`,
    { problems: named.map(({ name }) => ({ pointer: '', message: `the file of “${name}” is missing` })) },
  )
}

interface GoLive {
  /** What visitors saw when the site was read. */
  readonly before: { readonly site: string; readonly release: string | null }
  readonly releaseId: string
  readonly goingLive: GoingLive
}

async function goLive(manager: EntityManager, { before, releaseId, goingLive }: GoLive): Promise<boolean> {
  const switched = await manager.update(
    SiteEntity,
    { id: before.site, releaseId: before.release === null ? IsNull() : before.release },
    { releaseId },
  )
  if (switched.affected !== 1) return false
  for (const [id, version] of Object.entries(goingLive)) {
    assertMayGoLive(await findPageRow(manager, id), version)
    await manager.update(PageEntity, { id }, { liveVersion: version, liveSince: new Date() })
  }
  return true
}

/** The site as it is live, with `goingLive` instead of what is live of those pages. */
async function readLiveSite(manager: EntityManager, goingLive: GoingLive): Promise<LiveSite> {
  const site: SiteRow = await findSite(manager)
  const rows = await treeRows(manager, site.id)
  const paths = pagePaths(rows)
  for (const id of Object.keys(goingLive))
    if (!rows.some((row) => row.id === id)) await refuseAbsent(manager, id)
  const pages: LivePage[] = []
  for (const row of rows) {
    const version = Object.hasOwn(goingLive, row.id) ? goingLive[row.id]! : row.liveVersion
    if (version === null) continue
    const found = await findVersion(manager, row.id, version)
    const document = readDocument(found)
    const settings = settingsOf(document)
    const title = settings.title || row.title
    const { id, parentId } = row
    const { savedAt } = found
    pages.push({ id, path: paths[id]!, parentId, savedAt, document, ...settings, title })
  }
  const livePaths = Object.fromEntries(pages.map((page) => [page.id, page.path]))
  const redirects = await liveRedirects(manager, site.id, livePaths)
  const pictures = await listPictures(manager, site.id)
  return { site, pages, redirects, pictures, files: await listFiles(manager, site.id) }
}

/** A page that is to go live and stands in no tree: it does not exist, or was deleted. */
async function refuseAbsent(manager: EntityManager, pageId: string): Promise<never> {
  assertMayGoLive(await findPageRow(manager, pageId), 0)
  throw new Refused('not-found', 'This page belongs to another site. Nothing was published.')
}

/**
 * Points visitors to the release that the database names. Also run at start: a crash between the database's commit
 * and the switch is mended by switching now, and a release whose folder is gone is compiled again.
 */
export async function showRelease(services: Services): Promise<void> {
  const { releaseId } = await services.db.transaction((manager) => findSite(manager))
  if (releaseId === null) return
  const releases = releasesDir(services)
  await makeFolder(releases)
  if (!(await exists(join(releases, releaseId)))) {
    services.log.warn({ releaseId }, 'The compiled site is gone from the disk; it is compiled again')
    return publishNow(services, {})
  }
  const next = join(releases, NEXT + newId())
  await symlink(releaseId, next)
  // rename(2) replaces the old link in one step: no visitor ever finds none.
  await rename(next, join(releases, CURRENT))
  await removeOldReleases(releases, releaseId)
}

async function exists(path: string): Promise<boolean> {
  return (await stat(path).catch(() => undefined)) !== undefined
}

/** Removes releases that nobody will go back to, and what publishes that were killed left behind. */
async function removeOldReleases(releases: string, current: string): Promise<void> {
  const names = (await readdir(releases)).filter(
    (name) => name !== CURRENT && name !== current && !name.endsWith('.json'),
  )
  const dated = await Promise.all(
    names.map(async (name) => ({ name, at: (await lstat(join(releases, name))).mtimeMs })),
  )
  const links = dated.filter(({ name, at }) => name.startsWith(NEXT) && Date.now() - at > STALE_LINK_MS)
  const folders = dated.filter(({ name }) => !name.startsWith(NEXT))
  const old = [...links, ...folders.sort((a, b) => b.at - a.at).slice(KEPT_RELEASES)]
  await Promise.all(old.map(({ name }) => removeRelease(join(releases, name))))
}

async function removeRelease(folder: string): Promise<void> {
  await rm(folder, { recursive: true, force: true })
  await rm(redirectsOf(folder), { force: true })
}

function releasesDir(services: Services): string {
  return join(services.dataDir, 'live')
}
