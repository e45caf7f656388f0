import type { MigrationInterface, QueryRunner } from 'typeorm'

/**
 * What the newest and the live version of each document refer to, filled at the start of the server, which can render
 * them; and which files of a picture or a file came before those of today, so that they can be removed.
 */
export class Uses1791300000000 implements MigrationInterface {
  name = 'Uses1791300000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE uses (
         document_id VARCHAR(24) NOT NULL, version INT NOT NULL, thing VARCHAR(10) NOT NULL, target VARCHAR(24) NOT NULL,
         count INT NOT NULL,
         PRIMARY KEY (document_id, version, thing, target),
         KEY uses_target (thing, target),
         CONSTRAINT fk_uses_document FOREIGN KEY (document_id) REFERENCES documents (id) ON DELETE CASCADE
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
    await runner.query('ALTER TABLE documents ADD uses_known TINYINT(1) NOT NULL DEFAULT 0')
    for (const table of ['media', 'files']) await runner.query(`ALTER TABLE ${table} ADD previous INT NULL`)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['media', 'files']) await runner.query(`ALTER TABLE ${table} DROP previous`)
    await runner.query('ALTER TABLE documents DROP uses_known')
    await runner.query('DROP TABLE uses')
  }
}
