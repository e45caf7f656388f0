import { IsNull, type EntityManager } from 'typeorm'
import {
  anchorsOf,
  defaultRegistry,
  pagesLinkedInto,
  runChecks,
  themedLook,
  type Finding,
  type Look,
  type PageMore,
} from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { findSite } from '../sites/store.ts'
import { findPageRow, findVersion, readDocument } from './store.ts'

/** What the checks find on the newest version of a page: what decides whether it may go live. */
export async function pageFindings(manager: EntityManager, pageId: string): Promise<readonly Finding[]> {
  const page = await findPageRow(manager, pageId)
  const site = await findSite(manager)
  const document = readDocument(await findVersion(manager, pageId, page.version))
  const others = await manager.find(PageEntity, { where: { siteId: page.siteId, binnedAt: IsNull() } })
  // Of most pages it is enough to know that they are there; only those that are linked into are read.
  const anchors: Record<string, readonly string[] | undefined> = {}
  const linkedInto = new Set(pagesLinkedInto(document, defaultRegistry))
  for (const { id, version } of others) {
    anchors[id] = linkedInto.has(id)
      ? anchorsOf(readDocument(await findVersion(manager, id, version)), defaultRegistry)
      : undefined
  }
  const checked = {
    title: page.title,
    description: page.description,
    look: themedLook(site.look as Look, (page.more as PageMore).theme),
    pages: anchors,
    pictures: await listPictures(manager, page.siteId),
    files: await listFiles(manager, page.siteId),
  }
  return runChecks(document, checked, defaultRegistry)
}
