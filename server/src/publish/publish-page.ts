import { IsNull } from 'typeorm'
import type { Finding, PageSummary, PublishRequest, PublishResult } from '@gullyline/core'
import type { DocumentType } from '../db/document-rows.ts'
import { SiteEntity, type SiteRow } from '../db/rows.ts'
import { newId } from '../http/new-id.ts'
import { audit } from '../http/audit.ts'
import { insertRelease, liveVersionOf, neverLiveOf } from '../documents/live.ts'
import { recordLiveUses } from '../documents/uses.ts'
import { partsToPublish } from '../documents/part-versions.ts'
import { findDocument } from '../documents/store.ts'
import { findVersion, readDocument } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { UNWATCHED, type Watch } from '../http/progress.ts'
import { pageFindings, sectionFindings } from '../pages/findings.ts'
import { openPage } from '../pages/store.ts'
import { findStanding, refuseFixed } from '../pages/tree-acts.ts'
import type { Services } from '../services.ts'
import { findSite } from '../documents/site-row.ts'
import { compileSite, refuseCancelled } from './compile-site.ts'
import type { MissingFile } from './make-page.ts'
import { ContentStore } from './content-store.ts'
import { assertMayGoLive, readLiveSite, type GoingLive } from './live-site.ts'
import { Releases } from './manifest.ts'
import { alone } from './one-at-a-time.ts'
import { originOf } from './site-hosts.ts'
import { isWhole, removeLeftovers, removeOldReleases, removeTry } from './release-files.ts'
import type { SiteChange, SiteData, SiteScope } from '../db/site-scope.ts'

/** Something else may go live while the site is compiled; then it is compiled again, on what that left. */
const MOST_TRIES = 5

/** Makes one version of a page what visitors see: the one that was looked at. Refuses one that the checks find errors on. */
export function publishPage(
  services: Services,
  site: SiteScope,
  pageId: string,
  { version, shared = {}, by, watch }: PublishRequest & { readonly by: string; readonly watch: Watch },
): Promise<PublishResult> {
  return alone(services, async () => {
    await site
      .read(async (at) => {
        const goingLive = { ...shared, [pageId]: version }
        await refuseErrors(at, pageId, goingLive)
        for (const id of Object.keys(shared)) await assertShared(at, id, goingLive)
      })
      .catch((error: unknown) => {
        if (error instanceof Refused)
          audit(services.log, 'publish refused', { account: by, page: pageId, version })
        throw error
      })
    await publishHere(services, site, { goingLive: { ...shared, [pageId]: version }, by, watch })
    audit(services.log, 'published', { account: by, page: pageId, version })
    return site.read(async (at) => {
      const { summary } = await openPage(at, pageId)
      const { host } = await findSite(at)
      return { summary, url: originOf(host, services.liveOrigin) + summary.path }
    })
  })
}

/** Takes a page from visitors; what was saved of it stays. Refuses the home page and the 404 page. */
export function unpublishPage(
  services: Services,
  site: SiteScope,
  pageId: string,
  by: string,
): Promise<PageSummary> {
  return alone(services, async () => {
    const isLive = await site.read(async (at) => {
      await findStanding(at, pageId)
      refuseFixed(await findSite(at), pageId, 'unpublished')
      return (await liveVersionOf(at, pageId)) !== undefined
    })
    if (isLive) await publishHere(services, site, { goingLive: { [pageId]: null }, by })
    audit(services.log, 'unpublished', { account: by, page: pageId })
    return (await site.read((at) => openPage(at, pageId))).summary
  })
}

/**
 * Compiles what is live again, after addresses, the navigation, the library or the pages in the tree changed. That
 * change is saved already when this is called, and what is told when it fails must say so.
 */
export function publishAgain(services: Services, site: SiteScope): Promise<void> {
  return publishNow(services, site, {}).catch((error: unknown) => {
    services.log.error({ err: error }, 'The site could not be compiled again')
    throw new Refused(
      'internal',
      'The change is saved, but the published site could not be updated: visitors see what they saw before. Publish any page to try again, and look at the server’s log if it happens again.',
    )
  })
}

type Versions = Readonly<Record<string, number>>

async function refuseErrors(at: SiteData, pageId: string, goingLive: Versions): Promise<void> {
  const version = goingLive[pageId]!
  await assertMayGoLive(at, pageId, version)
  refuseFound(await pageFindings(at, pageId, version, goingLive), 'on it')
}

function refuseFound(found: readonly Finding[], where: string): void {
  const errors = found.filter(({ severity }) => severity === 'error')
  if (errors.length === 0) return
  throw new Refused(
    'has-problems',
    `The page was not published, because ${errors.length === 1 ? 'there is one problem' : `there are ${errors.length} problems`} to fix ${where} first. It is saved, and visitors see what they saw before.`,
    {
      problems: errors.map(({ nodeId, message }) => ({ pointer: nodeId ? `/nodes/${nodeId}` : '', message })),
    },
  )
}

/** Refuses what is no shared section of the site, and a version of one that does not exist. */
async function assertShared(at: SiteData, id: string, goingLive: Versions): Promise<void> {
  const { type } = await findDocument(at, id)
  const where = SHARED_WORDS[type]
  if (where === undefined)
    throw new Refused('not-found', 'The site has no such shared section. Nothing was published.')
  const version = goingLive[id]!
  await assertMayGoLive(at, id, version)
  refuseFound(await sectionFindings(at, id, version, goingLive), `in the ${where}`)
}

/** What goes live with a page that shows it. */
const SHARED_WORDS: Readonly<Partial<Record<DocumentType, string>>> = {
  header: 'header',
  footer: 'footer',
  shared: 'shared section',
}

/**
 * Compiles the site with these versions live as a fresh release, then marks exactly them in one short transaction, and
 * points visitors to the release in one step. No row is locked while it compiles. Until that step visitors see what they
 * saw before; when something fails, they go on seeing it.
 */
export function publishNow(services: Services, site: SiteScope, goingLive: GoingLive): Promise<void> {
  return alone(services, () => publishHere(services, site, { goingLive, by: null }))
}

interface Wanted {
  readonly goingLive: GoingLive
  readonly watch?: Watch
  /** Null for what Gullyline publishes by itself. */
  readonly by: string | null
}

/** The same, for those that publish alone already. */
async function publishHere(services: Services, site: SiteScope, wanted: Wanted): Promise<void> {
  for (let left = MOST_TRIES; ; left--) {
    if (await tryPublish(services, site, wanted)) return
    if (left <= 1)
      throw new Refused(
        'stale-publish',
        'Others keep publishing this site. Nothing was changed; publish again in a moment.',
      )
  }
}

/** False when something else went live in between; then nothing was changed. */
async function tryPublish(services: Services, site: SiteScope, wanted: Wanted): Promise<boolean> {
  let { goingLive } = wanted
  const releases = new Releases(services.dataDir)
  const releaseId = newId()
  let isShown = false
  try {
    const store = new ContentStore(services.dataDir)
    const { parts } = services.releases
    const { before, last, names, records, live } = await site.read(async (at) => {
      const row = await findSite(at)
      const { releaseId: before } = row
      const last = services.releases.find(site.siteId, before)
      const names = last?.records ?? ((before !== null && releases.manifest(before)?.records) || [])
      const records = last?.compiled.pages ?? (await parts.read(store, names))
      goingLive = { ...(await neverLive(at, row)), ...wanted.goingLive }
      goingLive = { ...(await partsNeverLive(at, goingLive)), ...goingLive }
      const live = await readLiveSite(site, at, { site: row, goingLive, records, last: last?.live })
      return { before, last, names, records, live }
    })
    const { dataDir } = services
    const liveOrigin = originOf(live.site.host, services.liveOrigin)
    const given = { dataDir, liveOrigin, ...(wanted.watch ?? UNWATCHED) }
    const compiled = await compileSite(live, last?.compiled ?? { pages: records }, given)
    refuseCancelled(given.signal)
    refuseMissing(compiled.missing, goingLive)
    for (const { page, path } of compiled.missing)
      services.log.error(
        { page: page.path, file: path },
        'A live page shows a file that is gone from the disk',
      )
    const written = await parts.write(store, compiled, names)
    await releases.write(releaseId, {
      addresses: compiled.addresses,
      redirects: live.redirects,
      records: written,
    })
    isShown = await site.change(['pages', 'parts', 'site'], (at) =>
      goLive(at, { before, releaseId, goingLive, by: wanted.by }),
    )
    if (isShown) {
      await releases.show(site.siteId, releaseId)
      services.releases.add(site.siteId, { id: releaseId, live, compiled, records: written })
    }
    return isShown
  } finally {
    // Neither changes what visitors see, so failing at it must not make a publish look failed.
    const tidied = isShown ? removeOldReleases(services) : removeTry(services, releaseId)
    await tidied.catch((error: unknown) =>
      services.log.error({ err: error }, 'Old files could not be removed'),
    )
  }
}

/** What every site shows and nobody publishes by itself goes live with the first release: header, footer, 404 page. */
async function neverLive(at: SiteData, { headerId, footerId, notFoundPageId }: SiteRow): Promise<GoingLive> {
  const going: Record<string, number> = {}
  const ids = [headerId, footerId, ...(notFoundPageId === null ? [] : [notFoundPageId])]
  for (const id of await neverLiveOf(at, ids)) going[id] = (await findDocument(at, id)).version
  return going
}

/** Shared sections that visitors never saw go live with the first thing that shows them. */
async function partsNeverLive(at: SiteData, goingLive: GoingLive): Promise<GoingLive> {
  const going: Record<string, number> = {}
  for (const [id, version] of Object.entries(goingLive)) {
    if (version === null) continue
    await findDocument(at, id)
    const document = readDocument(await findVersion(at, id, version))
    const parts = await partsToPublish(at, document, goingLive)
    for (const part of await neverLiveOf(at, Object.keys(parts))) going[part] = parts[part]!.number
  }
  return going
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
  /** The release that visitors saw when the site was read. */
  readonly before: string | null
  readonly releaseId: string
  readonly goingLive: GoingLive
  readonly by: string | null
}

async function goLive(at: SiteChange, { before, releaseId, goingLive, by }: GoLive): Promise<boolean> {
  const switched = await at.manager.update(
    SiteEntity,
    { id: at.siteId, releaseId: before === null ? IsNull() : before },
    { releaseId },
  )
  if (switched.affected !== 1) return false
  for (const [id, version] of Object.entries(goingLive)) await assertMayGoLive(at, id, version)
  await insertRelease(at, { id: releaseId, personId: by, versions: goingLive })
  for (const [documentId, version] of Object.entries(goingLive)) {
    at.changedPages.add(documentId)
    await recordLiveUses(at, { documentId, version })
  }
  return true
}

/**
 * Points visitors to the release that the database names. Run at start: a crash between the database's commit and the
 * switch is mended by switching now, and a release of which anything is gone is made again.
 */
export function showRelease(services: Services, site: SiteScope): Promise<void> {
  return alone(services, async () => {
    const { releaseId } = await site.read(findSite)
    if (releaseId === null) return
    const releases = new Releases(services.dataDir)
    if (await isWhole(services, releaseId)) {
      await releases.show(site.siteId, releaseId)
    } else {
      services.log.warn({ releaseId }, 'The published site is not whole on the disk; it is made again')
      await releases.remove(releaseId)
      services.releases.forget(site.siteId)
      await publishHere(services, site, { goingLive: {}, by: null })
    }
    await removeLeftovers(services)
  })
}
