/** Which pages changed since a moment, told by the number of their last change. */
import type { SiteData } from './site-scope.ts'

/** Returns the number of the last change of a site's pages. */
export async function lastPageChange({ manager, siteId }: SiteData): Promise<number> {
  const [row] = await manager.query<{ number: string }[]>('SELECT number FROM revisions WHERE name = ?', [
    `${siteId}/pages`,
  ])
  return Number(row?.number ?? 0)
}

/**
 * Returns what tells this database from one that a backup was restored into: a change has the same number in both, and may
 * be another one.
 */
export async function databaseMark({ manager }: SiteData): Promise<string> {
  const [row] = await manager.query<{ created: string }[]>(
    `SELECT UNIX_TIMESTAMP(create_time) AS created FROM information_schema.tables
     WHERE table_schema = DATABASE() AND table_name = 'page_changes'`,
  )
  return Number(row!.created).toString(36)
}

/** SQL for the pages (`p`) of a site that changed after a change; its parameters are the site and the number of the change. */
export const CHANGED_PAGES =
  'page_changes c STRAIGHT_JOIN pages p ON p.id = c.page_id WHERE c.site_id = ? AND c.number > ?'
