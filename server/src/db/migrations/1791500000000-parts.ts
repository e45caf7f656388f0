import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Patterns have a name, a purpose and a description here; their blocks are stored as documents, as those of pages are. */
export class Parts1791500000000 implements MigrationInterface {
  name = 'Parts1791500000000'

  async up(runner: QueryRunner): Promise<void> {
    // No two parts of a site have one name, whatever the case of its letters; one in the bin has given up its name.
    await runner.query(
      `CREATE TABLE parts (
         id VARCHAR(24) NOT NULL PRIMARY KEY, site_id VARCHAR(24) NOT NULL, name VARCHAR(60) NOT NULL,
         taken VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NULL,
         purpose VARCHAR(20) NOT NULL, about VARCHAR(200) NOT NULL, binned_at DATETIME(3) NULL,
         UNIQUE KEY parts_name (site_id, taken),
         CONSTRAINT fk_parts_document FOREIGN KEY (id) REFERENCES documents (id) ON DELETE CASCADE ON UPDATE NO ACTION,
         CONSTRAINT fk_parts_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM documents WHERE type = 'pattern'")
    await runner.query('DROP TABLE parts')
  }
}
