/** On which sites a person works. */
import type { EntityManager } from 'typeorm'
import type { SiteName } from '@gullyline/core'
import { renew } from '../db/revisions.ts'

/** The sites that a person works on, in the order of the installation. */
export function sitesOf(manager: EntityManager, personId: string): Promise<SiteName[]> {
  return manager.query<SiteName[]>(
    `SELECT s.id, s.name, s.host FROM sites s JOIN site_people p ON p.site_id = s.id
     WHERE p.person_id = ? ORDER BY s.host IS NOT NULL, s.began_at, s.id`,
    [personId],
  )
}

/** Has a person work on sites: on all where none are given. */
export async function addToSites(
  manager: EntityManager,
  personId: string,
  siteIds?: readonly string[],
): Promise<void> {
  const only = siteIds === undefined ? '' : 'WHERE id IN (?)'
  if (siteIds?.length !== 0)
    await manager.query(
      `INSERT IGNORE INTO site_people (site_id, person_id) SELECT id, ? FROM sites ${only}`,
      [personId, siteIds],
    )
  await renew(manager, ['people'])
}

/** Those of some documents that are of a site on which a person works. */
export async function documentsWithin(
  manager: EntityManager,
  personId: string,
  ids: readonly string[],
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set()
  const rows = await manager.query<{ id: string }[]>(
    `SELECT d.id FROM documents d JOIN site_people p ON p.site_id = d.site_id
     WHERE p.person_id = ? AND d.id IN (?)`,
    [personId, ids],
  )
  return new Set(rows.map(({ id }) => id))
}
