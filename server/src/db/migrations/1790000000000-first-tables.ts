import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = [
  `CREATE TABLE sites (
    id VARCHAR(24) NOT NULL, name VARCHAR(200) NOT NULL, language VARCHAR(35) NOT NULL, look JSON NOT NULL,
    header JSON NOT NULL, footer JSON NOT NULL, home_page_id VARCHAR(24) NOT NULL, release_id VARCHAR(24) NULL,
    PRIMARY KEY (id)
  )`,
  `CREATE TABLE pages (
    id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL, parent_id VARCHAR(24) NULL, position INT NOT NULL,
    title VARCHAR(200) NOT NULL, slug VARCHAR(100) NOT NULL, description VARCHAR(500) NOT NULL,
    in_navigation TINYINT NOT NULL, version INT NOT NULL, live_version INT NULL, live_title VARCHAR(200) NULL,
    live_since DATETIME(3) NULL,
    PRIMARY KEY (id),
    CONSTRAINT fk_pages_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
  `CREATE TABLE versions (
    page_id VARCHAR(24) NOT NULL, number INT NOT NULL, document JSON NOT NULL, saved_at DATETIME(3) NOT NULL,
    saved_by VARCHAR(100) NOT NULL,
    PRIMARY KEY (page_id, number),
    CONSTRAINT fk_versions_page FOREIGN KEY (page_id) REFERENCES pages (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
  `CREATE TABLE media (
    id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL, name VARCHAR(200) NOT NULL, alt VARCHAR(1000) NOT NULL,
    width INT NOT NULL, height INT NOT NULL, widths JSON NOT NULL,
    PRIMARY KEY (id),
    CONSTRAINT fk_media_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
]

/** Sites, pages, versions and media. */
export class FirstTables1790000000000 implements MigrationInterface {
  name = 'FirstTables1790000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(table)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['media', 'versions', 'pages', 'sites']) await runner.query(`DROP TABLE ${table}`)
  }
}
