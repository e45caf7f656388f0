import { SiteEntity, type SiteRow } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'

/** The row of the site. */
export function findSite({ manager, siteId }: SiteData): Promise<SiteRow> {
  return manager.findOneByOrFail(SiteEntity, { id: siteId })
}

/**
 * The site, locked until the transaction ends. Every act on the tree of its pages begins with it, before it reads anything:
 * what is read afterwards is what the act before has left.
 */
export function lockSite({ manager, siteId }: SiteData): Promise<SiteRow> {
  return manager.findOneOrFail(SiteEntity, { where: { id: siteId }, lock: { mode: 'pessimistic_write' } })
}
