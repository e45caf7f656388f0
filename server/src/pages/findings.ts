import { IsNull } from 'typeorm'
import {
  anchorsOf,
  defaultRegistry,
  pagesLinkedInto,
  runChecks,
  runSectionChecks,
  settingsOf,
  themedLook,
  type CheckedSite,
  type Finding,
  type Look,
  type Page,
} from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { findNewest, findVersion, readDocument } from '../documents/versions.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findSite } from '../documents/site-row.ts'
import { findPageRow } from './store.ts'
import type { SiteData } from '../db/site-scope.ts'

/** What the checks find on one version of a page: what decides whether it may go live. */
export async function pageFindings(
  at: SiteData,
  pageId: string,
  version: number,
): Promise<readonly Finding[]> {
  await findPageRow(at, pageId)
  const document = readDocument(await findVersion(at, pageId, version))
  return runChecks(document, await checkedSite(at, document), defaultRegistry)
}

/** What the checks find on one version of a shared section. */
export async function sectionFindings(
  at: SiteData,
  documentId: string,
  version: number,
): Promise<readonly Finding[]> {
  const document = readDocument(await findVersion(at, documentId, version))
  return runSectionChecks(document, await checkedSite(at, document), defaultRegistry)
}

/** What the site has of what a document refers to. */
async function checkedSite(at: SiteData, document: Page): Promise<CheckedSite> {
  const site = await findSite(at)
  const others = await at.manager.find(PageEntity, {
    where: { siteId: at.siteId, binnedAt: IsNull() },
    select: { id: true },
  })
  // Of most pages it is enough to know that they are there; only those that are linked into are read.
  const anchors: Record<string, readonly string[] | undefined> = {}
  const linkedInto = new Set(pagesLinkedInto(document, defaultRegistry))
  for (const { id } of others) {
    anchors[id] = linkedInto.has(id)
      ? anchorsOf(readDocument(await findNewest(at, id)), defaultRegistry)
      : undefined
  }
  return {
    ...settingsOf(document),
    look: themedLook(site.look as Look, settingsOf(document).theme),
    pages: anchors,
    pictures: await listPictures(at),
    files: await listFiles(at),
  }
}
