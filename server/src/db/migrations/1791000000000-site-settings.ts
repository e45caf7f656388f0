import type { MigrationInterface, QueryRunner } from 'typeorm'

/**
 * What the site's administrator sets for all pages, the page that stands for those that do not exist, and the text of
 * each page's newest version, by which it is found.
 */
export class SiteSettings1791000000000 implements MigrationInterface {
  name = 'SiteSettings1791000000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE sites ADD icon VARCHAR(24) NULL, ADD share_picture VARCHAR(24) NULL, ' +
        'ADD not_found_page_id VARCHAR(24) NULL',
    )
    // Filled at the start of the server, which knows how documents are read.
    await runner.query('ALTER TABLE pages ADD words MEDIUMTEXT NULL')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE pages DROP words')
    await runner.query('ALTER TABLE sites DROP icon, DROP share_picture, DROP not_found_page_id')
  }
}
