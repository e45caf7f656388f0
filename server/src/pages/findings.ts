import { IsNull, type EntityManager } from 'typeorm'
import {
  anchorsOf,
  defaultRegistry,
  pagesLinkedInto,
  runChecks,
  settingsOf,
  themedLook,
  type Finding,
  type Look,
} from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { findNewest, findVersion, readDocument } from '../documents/versions.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findSite } from '../sites/store.ts'
import { findPageRow } from './store.ts'

/** What the checks find on one version of a page: what decides whether it may go live. */
export async function pageFindings(
  manager: EntityManager,
  pageId: string,
  version: number,
): Promise<readonly Finding[]> {
  const page = await findPageRow(manager, pageId)
  const site = await findSite(manager)
  const document = readDocument(await findVersion(manager, pageId, version))
  const others = await manager.find(PageEntity, {
    where: { siteId: page.siteId, binnedAt: IsNull() },
    select: { id: true },
  })
  // Of most pages it is enough to know that they are there; only those that are linked into are read.
  const anchors: Record<string, readonly string[] | undefined> = {}
  const linkedInto = new Set(pagesLinkedInto(document, defaultRegistry))
  for (const { id } of others) {
    anchors[id] = linkedInto.has(id)
      ? anchorsOf(readDocument(await findNewest(manager, id)), defaultRegistry)
      : undefined
  }
  const checked = {
    ...settingsOf(document),
    look: themedLook(site.look as Look, settingsOf(document).theme),
    pages: anchors,
    pictures: await listPictures(manager, page.siteId),
    files: await listFiles(manager, page.siteId),
  }
  return runChecks(document, checked, defaultRegistry)
}
