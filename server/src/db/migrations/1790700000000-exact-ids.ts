import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = [
  'sites',
  'pages',
  'versions',
  'redirects',
  'media',
  'files',
  'people',
  'sessions',
  'journal_entries',
]

interface PlacedRow {
  readonly id: string
  readonly site_id: string
  parent_id: string | null
  slug: string
  readonly binned_at: Date | null
}

/**
 * Ids and logins are compared letter by letter, and every page has its address beside it under a unique key. Pages that
 * two people gave one address in the same moment get a number behind it; pages that stand under themselves go to the top.
 */
export class ExactIds1790700000000 implements MigrationInterface {
  name = 'ExactIds1790700000000'

  async up(runner: QueryRunner): Promise<void> {
    await this.#collate(runner, 'utf8mb4_bin')
    await runner.query('ALTER TABLE pages ADD address VARCHAR(700) NULL')
    const rows = (await runner.query(
      'SELECT id, site_id, parent_id, slug, binned_at FROM pages ORDER BY position, id',
    )) as PlacedRow[]
    for (const siteId of new Set(rows.map((row) => row.site_id)))
      await this.#fillAddresses(
        runner,
        rows.filter((row) => row.site_id === siteId && row.binned_at === null),
      )
    await runner.query('CREATE UNIQUE INDEX pages_address ON pages (site_id, address)')
  }

  async #fillAddresses(runner: QueryRunner, rows: readonly PlacedRow[]): Promise<void> {
    const byId = new Map(rows.map((row) => [row.id, row]))
    const taken = new Set<string>()
    const addresses = new Map<string, string>()
    const place = (row: PlacedRow, below: ReadonlySet<string>): string => {
      const known = addresses.get(row.id)
      if (known !== undefined) return known
      if (row.parent_id !== null && (below.has(row.parent_id) || !byId.has(row.parent_id)))
        row.parent_id = null
      const parent = row.parent_id === null ? undefined : byId.get(row.parent_id)
      const start = parent ? place(parent, new Set([...below, row.id])) : '/'
      const wanted = row.slug
      const addressOf = (slug: string): string => (slug === '' ? start : `${start}${slug}/`)
      for (let n = 2; taken.has(addressOf(row.slug)); n++) row.slug = `${wanted || 'page'}-${n}`
      const address = addressOf(row.slug)
      taken.add(address)
      addresses.set(row.id, address)
      return address
    }
    for (const row of rows) {
      const address = place(row, new Set([row.id]))
      await runner.query('UPDATE pages SET address = ?, parent_id = ?, slug = ? WHERE id = ?', [
        address,
        row.parent_id,
        row.slug,
        row.id,
      ])
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    // Another key has to be there for the foreign key of the site before this one can go.
    await runner.query('CREATE INDEX fk_pages_site ON pages (site_id)')
    await runner.query('DROP INDEX pages_address ON pages')
    await runner.query('ALTER TABLE pages DROP address')
    await this.#collate(runner, 'utf8mb4_unicode_ci')
  }

  /** Columns that refer to each other must compare alike, so the foreign keys go for the moment. */
  async #collate(runner: QueryRunner, collation: string): Promise<void> {
    const keys = (await runner.query(
      'SELECT k.TABLE_NAME AS t, k.CONSTRAINT_NAME AS name, k.COLUMN_NAME AS col, k.REFERENCED_TABLE_NAME AS other ' +
        'FROM information_schema.KEY_COLUMN_USAGE k ' +
        'WHERE k.TABLE_SCHEMA = DATABASE() AND k.REFERENCED_TABLE_NAME IS NOT NULL',
    )) as { t: string; name: string; col: string; other: string }[]
    for (const { t, name } of keys) await runner.query(`ALTER TABLE ${t} DROP FOREIGN KEY ${name}`)
    for (const table of TABLES)
      await runner.query(`ALTER TABLE ${table} CONVERT TO CHARACTER SET utf8mb4 COLLATE ${collation}`)
    for (const { t, name, col, other } of keys)
      await runner.query(
        `ALTER TABLE ${t} ADD CONSTRAINT ${name} FOREIGN KEY (${col}) REFERENCES ${other} (id) ` +
          'ON DELETE CASCADE ON UPDATE NO ACTION',
      )
  }
}
