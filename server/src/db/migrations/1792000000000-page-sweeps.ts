import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Stores the gullies of each live page, with the key of what the page was made from. */
export class PageSweeps1792000000000 implements MigrationInterface {
  name = 'PageSweeps1792000000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE page_sweeps (
         page_id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL, made_from VARCHAR(32) NOT NULL,
         swept_at DATETIME(3) NOT NULL, gullies JSON NULL,
         PRIMARY KEY (page_id),
         CONSTRAINT fk_page_sweeps_page FOREIGN KEY (page_id) REFERENCES pages (id) ON DELETE CASCADE ON UPDATE NO ACTION
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE page_sweeps')
  }
}
