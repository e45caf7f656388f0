import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Private addresses: where a page can be looked at from other devices while somebody edits it. They end with the session that they were made in. */
export class PrivateAddresses1791900000000 implements MigrationInterface {
  name = 'PrivateAddresses1791900000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE private_addresses (
         token_hash VARCHAR(64) NOT NULL, site_id VARCHAR(24) NOT NULL, document_id VARCHAR(24) NOT NULL,
         person_id VARCHAR(24) NOT NULL, tab VARCHAR(24) NOT NULL, session_hash VARCHAR(64) NOT NULL,
         expires_at DATETIME(3) NOT NULL,
         PRIMARY KEY (token_hash),
         CONSTRAINT fk_private_addresses_document FOREIGN KEY (document_id) REFERENCES documents (id)
           ON DELETE CASCADE ON UPDATE NO ACTION,
         CONSTRAINT fk_private_addresses_session FOREIGN KEY (session_hash) REFERENCES sessions (token_hash)
           ON DELETE CASCADE ON UPDATE NO ACTION
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE private_addresses')
  }
}
