import { mkdir, readdir, rename, rm, stat, symlink } from 'node:fs/promises'
import { join } from 'node:path'
import type { EntityManager } from 'typeorm'
import type { PageMore, PublishResult } from '@gullyline/core'
import { PageEntity, SiteEntity, type SiteRow } from '../db/rows.ts'
import { newId } from '../http/new-id.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { Refused } from '../http/errors.ts'
import { pageFindings } from '../pages/findings.ts'
import { findPageRow, findVersion, openPage, PLAIN_MORE, readDocument } from '../pages/store.ts'
import { liveRedirects, treeRows } from '../pages/tree-acts.ts'
import { pagePaths } from '../pages/tree.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'
import { compileSite, type LivePage, type LiveSite } from './compile-site.ts'

/** The link that names the folder visitors see. */
const CURRENT = 'current'
/** Folders of earlier states that are kept, beside the one visitors see. */
const KEPT_RELEASES = 3

/** Publishes are one after another: two at once would each compile the site without the other's page. */
let queue: Promise<unknown> = Promise.resolve()

/** Makes the newest version of a page what visitors see. Refuses one that the checks find errors on. */
export function publishPage(services: Services, pageId: string): Promise<PublishResult> {
  return queued(async () => {
    await services.db.transaction((manager) => refuseErrors(manager, pageId))
    await publishNow(services, [pageId])
    const { summary } = await services.db.transaction((manager) => openPage(manager, pageId))
    return { summary, url: services.liveOrigin + summary.path }
  })
}

/**
 * Compiles what is live again, after addresses, the navigation, the library or the pages in the tree changed. That
 * change is kept already when this is called, and what is told when it fails must say so.
 */
export function publishAgain(services: Services): Promise<void> {
  return queued(() => publishNow(services, [])).catch((error: unknown) => {
    services.log.error({ err: error }, 'The site could not be compiled again')
    throw new Refused(
      'internal',
      'The change is kept, but what visitors see could not be made again: they see what they saw before. Publish any page to try again, and look at the server’s log if it happens again.',
    )
  })
}

function queued<T>(act: () => Promise<T>): Promise<T> {
  const result = queue.then(act)
  queue = result.catch(() => undefined)
  return result
}

async function refuseErrors(manager: EntityManager, pageId: string): Promise<void> {
  const { binnedAt } = await findPageRow(manager, pageId)
  if (binnedAt !== null)
    throw new Refused('not-found', 'This page is in the bin. Bring it back first; nothing was published.')
  const errors = (await pageFindings(manager, pageId)).filter(({ severity }) => severity === 'error')
  if (errors.length === 0) return
  throw new Refused(
    'has-problems',
    `The page was not published, because ${errors.length === 1 ? 'there is one thing' : `there are ${errors.length} things`} to mend on it first. It is saved, and visitors see what they saw before.`,
    {
      problems: errors.map(({ nodeId, message }) => ({ pointer: nodeId ? `/nodes/${nodeId}` : '', message })),
    },
  )
}

/**
 * Marks these pages' newest versions as live, compiles the whole site to a fresh folder, and then points visitors to
 * it in one step. Until that step they see what they saw before; when something fails, they go on seeing it.
 */
export async function publishNow(services: Services, pageIds: readonly string[]): Promise<void> {
  const releaseId = newId()
  const folder = join(releasesDir(services), releaseId)
  try {
    await services.db.transaction(async (manager) => {
      for (const id of pageIds) await markLive(manager, id)
      const live = await readLiveSite(manager)
      await compileSite(live, folder, services)
      await manager.update(SiteEntity, { id: live.site.id }, { releaseId })
    })
  } catch (error) {
    await rm(folder, { recursive: true, force: true })
    throw error
  }
  await showRelease(services)
}

async function markLive(manager: EntityManager, pageId: string): Promise<void> {
  const page = await findPageRow(manager, pageId)
  await manager.update(
    PageEntity,
    { id: pageId },
    {
      liveVersion: page.version,
      liveTitle: page.title,
      liveDescription: page.description,
      liveInNavigation: page.inNavigation,
      liveMore: page.more,
      liveSince: new Date(),
    },
  )
}

async function readLiveSite(manager: EntityManager): Promise<LiveSite> {
  const site: SiteRow = await findSite(manager)
  const rows = await treeRows(manager, site.id)
  const paths = pagePaths(rows)
  const pages: LivePage[] = []
  for (const row of rows) {
    if (row.liveVersion === null) continue
    const title = row.liveTitle ?? row.title
    const more = { ...PLAIN_MORE, ...(row.liveMore as Partial<PageMore> | null) }
    pages.push({
      id: row.id,
      title,
      description: row.liveDescription ?? '',
      path: paths[row.id]!,
      parentId: row.parentId,
      more,
      document: readDocument(await findVersion(manager, row.id, row.liveVersion)),
      inNavigation: Boolean(row.liveInNavigation),
    })
  }
  const livePaths = Object.fromEntries(pages.map((page) => [page.id, page.path]))
  const redirects = await liveRedirects(manager, site.id, livePaths)
  const pictures = await listPictures(manager, site.id)
  return { site, pages, redirects, pictures, files: await listFiles(manager, site.id) }
}

/**
 * Points visitors to the release that the database names. Also run at start: a crash between the database's commit
 * and the switch is mended by switching now.
 */
export async function showRelease(services: Services): Promise<void> {
  const { releaseId } = await services.db.transaction((manager) => findSite(manager))
  if (releaseId === null) return
  const releases = releasesDir(services)
  const next = join(releases, `.next-${newId()}`)
  await mkdir(releases, { recursive: true })
  await symlink(releaseId, next)
  // rename(2) replaces the old link in one step: no visitor ever finds none.
  await rename(next, join(releases, CURRENT))
  await removeOldReleases(releases, releaseId)
}

async function removeOldReleases(releases: string, current: string): Promise<void> {
  const names = (await readdir(releases)).filter((name) => name !== CURRENT && name !== current)
  const dated = await Promise.all(
    names.map(async (name) => ({ name, at: (await stat(join(releases, name))).mtimeMs })),
  )
  const old = dated.sort((a, b) => b.at - a.at).slice(KEPT_RELEASES)
  await Promise.all(old.map(({ name }) => rm(join(releases, name), { recursive: true, force: true })))
}

function releasesDir(services: Services): string {
  return join(services.dataDir, 'live')
}

/** The folder whose files visitors see, through the link that is switched. */
export function liveDir(dataDir: string): string {
  return join(dataDir, 'live', CURRENT)
}
