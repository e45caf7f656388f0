import type { DataSource, EntityManager } from 'typeorm'
import { renew } from './revisions.ts'
import { transact } from './transact.ts'

/** A transaction on the data of one site. What reads or writes data of a site is given this, and finds nothing of another. */
export interface SiteData {
  readonly manager: EntityManager
  readonly siteId: string
}

/** The same for work that changes what is told of the site. */
export interface SiteChange extends SiteData {
  /** The ids of pages that are listed otherwise once it is done: whatever writes what lists show of a page adds it. */
  readonly changedPages: Set<string>
}

/** What a change is seen in: answers about pages, about parts, and about the rest of the site. */
export type SeenIn = 'pages' | 'parts' | 'site'

/** Access to the data of one site. The gate makes it for a person who may use the site. */
export class SiteScope {
  readonly #db: DataSource
  readonly siteId: string

  constructor(db: DataSource, siteId: string) {
    this.#db = db
    this.siteId = siteId
  }

  /** Does work in one transaction; see `transact`. */
  read<T>(work: (at: SiteData) => Promise<T>): Promise<T> {
    return transact(this.#db, (manager) => work({ manager, siteId: this.siteId }))
  }

  /** The same for work that changes what is told of the site: answers that were kept are old once it is done. */
  change<T>(seenIn: readonly SeenIn[], work: (at: SiteChange) => Promise<T>): Promise<T> {
    return this.read(async ({ manager, siteId }) => {
      const at = { manager, siteId, changedPages: new Set<string>() }
      const result = await work(at)
      await renew(
        manager,
        seenIn.map((what) => `${siteId}/${what}` as const),
      )
      // Numbers are given out one after another, each when the one before is done: none comes to be seen after a later one.
      if (at.changedPages.size > 0) await notePageChanges(at)
      return result
    })
  }
}

/** Notes the pages that a change is seen on, under its number. The revision of the pages must be renewed already. */
async function notePageChanges({ manager, siteId, changedPages }: SiteChange): Promise<void> {
  const ids = JSON.stringify([...changedPages].sort())
  await manager.query(
    `INSERT INTO page_changes (page_id, site_id, number)
     SELECT changed.id, ?, r.number FROM revisions r, JSON_TABLE(?, '$[*]' COLUMNS (id VARCHAR(24) PATH '$')) changed
     WHERE r.name = ?
     ON DUPLICATE KEY UPDATE number = VALUES(number)`,
    [siteId, ids, `${siteId}/pages`],
  )
}

/** Returns the sites of this installation: first the one that has no name of its own, then the others by their age. */
export async function allSites(db: DataSource): Promise<SiteScope[]> {
  const sites = await db.query<{ id: string }[]>(
    'SELECT id FROM sites ORDER BY host IS NOT NULL, began_at, id',
  )
  return sites.map(({ id }) => new SiteScope(db, id))
}
