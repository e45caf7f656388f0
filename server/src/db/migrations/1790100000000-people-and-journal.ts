import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = [
  `CREATE TABLE people (
    id VARCHAR(24) NOT NULL, login VARCHAR(100) NOT NULL, name VARCHAR(100) NOT NULL, role VARCHAR(20) NOT NULL,
    password_hash VARCHAR(255) NOT NULL, created_at DATETIME(3) NOT NULL,
    PRIMARY KEY (id),
    UNIQUE INDEX people_login (login)
  )`,
  `CREATE TABLE sessions (
    token_hash VARCHAR(64) NOT NULL, person_id VARCHAR(24) NOT NULL, expires_at DATETIME(3) NOT NULL,
    PRIMARY KEY (token_hash),
    CONSTRAINT fk_sessions_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
  `CREATE TABLE journal_entries (
    page_id VARCHAR(24) NOT NULL, person_id VARCHAR(24) NOT NULL, tab VARCHAR(24) NOT NULL, number INT NOT NULL,
    base INT NOT NULL, at DATETIME(3) NOT NULL, edits JSON NOT NULL,
    PRIMARY KEY (page_id, person_id, tab, number),
    CONSTRAINT fk_journal_page FOREIGN KEY (page_id) REFERENCES pages (id) ON DELETE CASCADE ON UPDATE NO ACTION,
    CONSTRAINT fk_journal_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
]

/** People, their sessions, and the edits they have not saved yet. */
export class PeopleAndJournal1790100000000 implements MigrationInterface {
  name = 'PeopleAndJournal1790100000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(table)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['journal_entries', 'sessions', 'people']) await runner.query(`DROP TABLE ${table}`)
  }
}
