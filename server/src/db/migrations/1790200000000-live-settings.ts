import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What visitors see of a page's settings, apart from what was saved since: publishing one page publishes no other's settings. */
export class LiveSettings1790200000000 implements MigrationInterface {
  name = 'LiveSettings1790200000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE pages ADD live_description VARCHAR(500) NULL, ADD live_in_navigation TINYINT NULL',
    )
    await runner.query(
      'UPDATE pages SET live_description = description, live_in_navigation = in_navigation WHERE live_version IS NOT NULL',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE pages DROP live_description, DROP live_in_navigation')
  }
}
