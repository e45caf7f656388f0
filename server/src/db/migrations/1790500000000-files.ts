import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Files that pages link to. */
export class Files1790500000000 implements MigrationInterface {
  name = 'Files1790500000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE files (id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL, name VARCHAR(200) NOT NULL, ' +
        'type VARCHAR(8) NOT NULL, bytes INT NOT NULL, file VARCHAR(100) NOT NULL, revision INT NOT NULL, PRIMARY KEY (id), ' +
        'CONSTRAINT fk_files_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION' +
        ') ENGINE=InnoDB',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE files')
  }
}
