import type { MigrationInterface, QueryRunner } from 'typeorm'

/** The ids under which what was imported is known where it came from: so that it is found again, and exported as it came. */
export class Origins1791700000000 implements MigrationInterface {
  name = 'Origins1791700000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE origins (
         site_id VARCHAR(24) NOT NULL, id VARCHAR(24) NOT NULL, origin VARCHAR(24) NOT NULL,
         PRIMARY KEY (site_id, id), UNIQUE KEY origins_origin (site_id, origin),
         CONSTRAINT fk_origins_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE origins')
  }
}
