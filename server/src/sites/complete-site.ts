/** Brings a site up to what this version expects of one: run at every start, and done already nearly always. */
import { IsNull, type EntityManager } from 'typeorm'
import { defaultRegistry, NOT_FOUND_TEMPLATE, textOf } from '@gullyline/core'
import { PageEntity, SiteEntity } from '../db/rows.ts'
import { publishAgain } from '../publish/publish-page.ts'
import { insertPageFrom } from '../pages/tree-acts.ts'
import { GULLYLINE } from '../documents/store.ts'
import { findNewest, readDocument } from '../documents/versions.ts'
import type { Services } from '../services.ts'
import { lockSite } from './store.ts'

/** The last part of the address of the page for addresses that do not exist; static hosts look for a file of this name. */
const NOT_FOUND_SLUG = '404'

/**
 * Adds the page for addresses that do not exist where a site has none, and the text of pages that were saved before it
 * was stored. Visitors see the new page at once if they see anything.
 */
export async function completeSite(services: Services): Promise<void> {
  const isNew = await services.db.transaction(addNotFoundPage)
  await services.db.transaction(addMissingText)
  if (isNew) await publishAgain(services)
}

async function addNotFoundPage(manager: EntityManager): Promise<boolean> {
  const site = await lockSite(manager)
  if (site.notFoundPageId !== null) return false
  const title = NOT_FOUND_TEMPLATE.title
  const notFoundPageId = await insertPageFrom(manager, site, {
    template: NOT_FOUND_TEMPLATE,
    title,
    slug: NOT_FOUND_SLUG,
    parentId: null,
    settings: { isListed: false, inNavigation: false, description: 'For addresses that do not exist.' },
    by: GULLYLINE,
  })
  await manager.update(SiteEntity, { id: site.id }, { notFoundPageId })
  return site.releaseId !== null
}

async function addMissingText(manager: EntityManager): Promise<void> {
  const pages = await manager.find(PageEntity, { where: { words: IsNull() } })
  for (const { id } of pages) {
    const document = readDocument(await findNewest(manager, id))
    await manager.update(PageEntity, { id }, { words: textOf(document, defaultRegistry) })
  }
}
