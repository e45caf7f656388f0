import type { MigrationInterface, QueryRunner } from 'typeorm'

/** An installation may have several sites, each with a name of its own in addresses, and with people who work on it. */
export class SeveralSites1791600000000 implements MigrationInterface {
  name = 'SeveralSites1791600000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sites ADD host VARCHAR(253) NULL, ADD UNIQUE KEY sites_host (host)')
    // When there was one site, sites were told in the order of their ids.
    await runner.query('ALTER TABLE sites ADD began_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)')
    await runner.query(
      `CREATE TABLE site_people (
         site_id VARCHAR(24) NOT NULL, person_id VARCHAR(24) NOT NULL, PRIMARY KEY (site_id, person_id),
         CONSTRAINT fk_site_people_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION,
         CONSTRAINT fk_site_people_person FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE ON UPDATE NO ACTION
       ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`,
    )
    await runner.query(
      'INSERT INTO site_people (site_id, person_id) SELECT s.id, p.id FROM sites s CROSS JOIN people p',
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE site_people')
    await runner.query('ALTER TABLE sites DROP began_at, DROP KEY sites_host, DROP host')
  }
}
