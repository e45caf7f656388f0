/** Brings a site up to what this version expects of one: run at every start, and done already nearly always. */
import { IsNull } from 'typeorm'
import { defaultRegistry, NOT_FOUND_TEMPLATE, textOf } from '@gullyline/core'
import { PageEntity, SiteEntity } from '../db/rows.ts'
import { publishAgain } from '../publish/publish-page.ts'
import { insertPageFrom } from '../pages/tree-acts.ts'
import { GULLYLINE } from '../documents/store.ts'
import { recordMissingUses } from '../documents/uses.ts'
import { findNewest, readDocument } from '../documents/versions.ts'
import type { Services } from '../services.ts'
import { lockSite } from '../documents/site-row.ts'
import type { SiteChange, SiteData, SiteScope } from '../db/site-scope.ts'

/** The last part of the address of the page for addresses that do not exist; static hosts look for a file of this name. */
const NOT_FOUND_SLUG = '404'

/**
 * Adds the page for addresses that do not exist where a site has none, and the text of pages that were saved before it
 * was stored. Visitors see the new page at once if they see anything.
 */
export async function completeSite(services: Services, scope: SiteScope): Promise<void> {
  const isNew = await scope.change(['pages', 'site'], addNotFoundPage)
  await scope.change(['pages'], addMissingText)
  await scope.read(recordMissingUses)
  if (isNew) await publishAgain(services, scope)
}

async function addNotFoundPage(at: SiteChange): Promise<boolean> {
  const site = await lockSite(at)
  if (site.notFoundPageId !== null) return false
  const title = NOT_FOUND_TEMPLATE.title
  const notFoundPageId = await insertPageFrom(at, {
    template: NOT_FOUND_TEMPLATE,
    title,
    slug: NOT_FOUND_SLUG,
    parentId: null,
    settings: { isListed: false, inNavigation: false, description: 'For addresses that do not exist.' },
    by: GULLYLINE,
  })
  await at.manager.update(SiteEntity, { id: at.siteId }, { notFoundPageId })
  return site.releaseId !== null
}

async function addMissingText(at: SiteData): Promise<void> {
  const pages = await at.manager.find(PageEntity, { where: { siteId: at.siteId, words: IsNull() } })
  for (const { id } of pages) {
    const document = readDocument(await findNewest(at, id))
    await at.manager.update(
      PageEntity,
      { id, siteId: at.siteId },
      { words: textOf(document, defaultRegistry) },
    )
  }
}
