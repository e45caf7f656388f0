import type { MigrationInterface, QueryRunner } from 'typeorm'

/**
 * A site says how many pages stand in its navigation by themselves. Changes are counted, and of each page it is kept which change was the last: so that what changed can be read alone. What
 * documents refer to is recorded again, with the pages whose sub-pages they list.
 */
export class PageChanges1791400000000 implements MigrationInterface {
  name = 'PageChanges1791400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE revisions ADD number BIGINT NOT NULL DEFAULT 0')
    // No foreign key to pages: checking one locks the page, and a transaction that holds the number of the next change would wait for that lock.
    await runner.query(
      `CREATE TABLE page_changes (
         page_id VARCHAR(24) NOT NULL PRIMARY KEY, site_id VARCHAR(24) NOT NULL, number BIGINT NOT NULL,
         KEY page_changes_number (site_id, number)
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
    await runner.query('ALTER TABLE sites ADD navigation_limit INT NOT NULL DEFAULT 100')
    await runner.query('CREATE INDEX pages_navigation ON pages (site_id, in_navigation)')
    await runner.query('UPDATE documents SET uses_known = 0')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX pages_navigation ON pages')
    await runner.query('ALTER TABLE sites DROP navigation_limit')
    await runner.query("DELETE FROM uses WHERE thing = 'inside'")
    await runner.query('DROP TABLE page_changes')
    await runner.query('ALTER TABLE revisions DROP number')
  }
}
