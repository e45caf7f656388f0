import type { MigrationInterface, QueryRunner } from 'typeorm'

const MORE = JSON.stringify({ navigationLabel: '', theme: null, isListed: true, sharePicture: null })

/** The order of the navigation, more settings of pages, the bin, and the addresses that live pages had before. */
export class PageTree1790300000000 implements MigrationInterface {
  name = 'PageTree1790300000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE sites ADD navigation JSON NOT NULL DEFAULT '[]'")
    await runner.query('ALTER TABLE sites ALTER navigation DROP DEFAULT')
    await runner.query(
      `ALTER TABLE pages ADD more JSON NOT NULL DEFAULT '${MORE}', ADD live_more JSON NULL, ` +
        'ADD binned_at DATETIME(3) NULL, ADD binned_with VARCHAR(24) NULL',
    )
    await runner.query('ALTER TABLE pages ALTER more DROP DEFAULT')
    await runner.query('UPDATE pages SET live_more = more WHERE live_version IS NOT NULL')
    await runner.query(
      'CREATE TABLE redirects (site_id VARCHAR(24) NOT NULL, path VARCHAR(700) NOT NULL, page_id VARCHAR(24) NOT NULL, ' +
        'PRIMARY KEY (site_id, path), ' +
        'CONSTRAINT fk_redirects_page FOREIGN KEY (page_id) REFERENCES pages (id) ON DELETE CASCADE ON UPDATE NO ACTION' +
        ') ENGINE=InnoDB',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE redirects')
    await runner.query('ALTER TABLE pages DROP more, DROP live_more, DROP binned_at, DROP binned_with')
    await runner.query('ALTER TABLE sites DROP navigation')
  }
}
