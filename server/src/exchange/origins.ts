/** The ids by which things are known in packages: their own, or those that they came with. */
import { OriginEntity } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'

/** What came from elsewhere with another id, by the id that it has here. */
export async function originsOf(at: SiteData): Promise<ReadonlyMap<string, string>> {
  const rows = await at.manager.findBy(OriginEntity, { siteId: at.siteId })
  return new Map(rows.map(({ id, origin }) => [id, origin]))
}

/** Remembers what came with which id. What has an origin already, and an origin that something else has, are left as they are. */
export async function rememberOrigins(at: SiteData, given: ReadonlyMap<string, string>): Promise<void> {
  const rows = [...given].filter(([id, origin]) => id !== origin)
  if (rows.length > 0)
    await at.manager.query('INSERT IGNORE INTO origins (site_id, id, origin) VALUES ?', [
      rows.map(([id, origin]) => [at.siteId, id, origin]),
    ])
}
