import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What servers on one database must know of each other: what changed, who is there, and how often was tried. */
export class SeveralServers1791200000000 implements MigrationInterface {
  name = 'SeveralServers1791200000000'

  async up(runner: QueryRunner): Promise<void> {
    const id = 'VARCHAR(24) NOT NULL'
    const options = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin'
    await runner.query(
      `CREATE TABLE revisions (name VARCHAR(40) NOT NULL, value ${id}, PRIMARY KEY (name)) ${options}`,
    )
    for (const what of ['pages', 'site'])
      await runner.query(
        'INSERT INTO revisions (name, value) SELECT CONCAT(id, ?), LEFT(MD5(CONCAT(RAND(), id)), 24) FROM sites',
        [`/${what}`],
      )
    await runner.query(
      `CREATE TABLE wrong_tries (number BIGINT NOT NULL AUTO_INCREMENT, name CHAR(64) NOT NULL,
         tried_at DATETIME(3) NOT NULL, PRIMARY KEY (number), KEY tries_name (name, number), KEY tries_at (tried_at))
       ${options}`,
    )
    // A try locks this row while it counts those before it.
    await runner.query("INSERT INTO wrong_tries (number, name, tried_at) VALUES (1, 'turn', '9999-12-31')")
    await runner.query(
      `CREATE TABLE browsers (id ${id}, connection ${id}, session VARCHAR(64) NOT NULL, person_id ${id},
         name VARCHAR(100) NOT NULL, came_at DATETIME(3) NOT NULL, seen_at DATETIME(3) NOT NULL,
         PRIMARY KEY (id), KEY browsers_person (person_id, came_at), KEY browsers_seen (seen_at)) ${options}`,
    )
    await runner.query(
      `CREATE TABLE open_tabs (page_id ${id}, tab ${id}, browser_id ${id}, PRIMARY KEY (page_id, tab),
         KEY open_tabs_browser (browser_id),
         CONSTRAINT fk_open_tabs_browser FOREIGN KEY (browser_id) REFERENCES browsers (id) ON DELETE CASCADE) ${options}`,
    )
    await runner.query(
      `CREATE TABLE presence_events (number BIGINT NOT NULL AUTO_INCREMENT, at DATETIME(3) NOT NULL,
         event MEDIUMTEXT NOT NULL, PRIMARY KEY (number), KEY presence_at (at)) ${options}`,
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['presence_events', 'open_tabs', 'browsers', 'wrong_tries', 'revisions'])
      await runner.query(`DROP TABLE ${table}`)
  }
}
