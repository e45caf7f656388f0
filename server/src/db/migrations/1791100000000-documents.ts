import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import type { MigrationInterface, QueryRunner } from 'typeorm'

const deflate = promisify(deflateRaw)
const inflate = promisify<Buffer, Buffer>(inflateRaw)

const TABLES = [
  `CREATE TABLE documents (
    id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL, type VARCHAR(20) NOT NULL, version INT NOT NULL,
    PRIMARY KEY (id),
    CONSTRAINT fk_documents_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
  `CREATE TABLE releases (
    number INT NOT NULL AUTO_INCREMENT, id VARCHAR(24) NOT NULL, site_id VARCHAR(24) NOT NULL,
    at DATETIME(3) NOT NULL, person_id VARCHAR(24) NULL,
    PRIMARY KEY (number),
    UNIQUE INDEX releases_id (id),
    CONSTRAINT fk_releases_site FOREIGN KEY (site_id) REFERENCES sites (id) ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
  `CREATE TABLE released_documents (
    document_id VARCHAR(24) NOT NULL, release_number INT NOT NULL, version INT NULL,
    PRIMARY KEY (document_id, release_number),
    CONSTRAINT fk_released_document FOREIGN KEY (document_id) REFERENCES documents (id)
      ON DELETE CASCADE ON UPDATE NO ACTION,
    CONSTRAINT fk_released_release FOREIGN KEY (release_number) REFERENCES releases (number)
      ON DELETE CASCADE ON UPDATE NO ACTION
  )`,
]
const CHARACTERS = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_bin'

interface PageState {
  readonly id: string
  readonly site_id: string
  readonly live_version: number | null
  readonly live_since: Date | null
}

/**
 * Pages, headers and footers become documents with one history; versions are stored compressed, and later ones by what
 * changed. Releases decide what is live: for each moment at which pages went live before, one is made.
 */
export class Documents1791100000000 implements MigrationInterface {
  name = 'Documents1791100000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(`${table} ${CHARACTERS}`)
    await runner.query(
      "INSERT INTO documents (id, site_id, type, version) SELECT id, site_id, 'page', version FROM pages",
    )
    await this.#packVersions(runner)
    await this.#takeShared(runner)
    await this.#releaseLive(runner)
    await runner.query('ALTER TABLE pages DROP version, DROP live_version, DROP live_since')
    await runner.query(
      'ALTER TABLE pages ADD CONSTRAINT fk_pages_document FOREIGN KEY (id) REFERENCES documents (id) ' +
        'ON DELETE CASCADE ON UPDATE NO ACTION',
    )
    await runner.query('CREATE INDEX pages_order ON pages (site_id, parent_id, position)')
    await runner.query('ALTER TABLE journal_entries DROP FOREIGN KEY fk_journal_page')
    await runner.query(
      'ALTER TABLE journal_entries CHANGE page_id document_id VARCHAR(24) NOT NULL, ADD shared JSON NULL',
    )
    await runner.query(
      'ALTER TABLE journal_entries ADD CONSTRAINT fk_journal_document FOREIGN KEY (document_id) ' +
        'REFERENCES documents (id) ON DELETE CASCADE ON UPDATE NO ACTION',
    )
  }

  async #packVersions(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE versions DROP FOREIGN KEY fk_versions_page')
    await runner.query(
      'ALTER TABLE versions CHANGE page_id document_id VARCHAR(24) NOT NULL, ADD base INT NULL, ' +
        "ADD state MEDIUMBLOB NULL, ADD changes JSON NOT NULL DEFAULT '[]', ADD person_id VARCHAR(24) NULL",
    )
    const keys = (await runner.query('SELECT document_id, number FROM versions')) as VersionKey[]
    for (const key of keys) {
      const where = [key.document_id, key.number]
      const [row] = (await runner.query(
        'SELECT CAST(document AS CHAR) AS document FROM versions WHERE document_id = ? AND number = ?',
        where,
      )) as { document: string }[]
      const state = await deflate(Buffer.from(row!.document))
      await runner.query('UPDATE versions SET state = ? WHERE document_id = ? AND number = ?', [
        state,
        ...where,
      ])
    }
    await runner.query(
      'ALTER TABLE versions DROP document, MODIFY state MEDIUMBLOB NOT NULL, ALTER changes DROP DEFAULT, ' +
        'ADD CONSTRAINT fk_versions_document FOREIGN KEY (document_id) REFERENCES documents (id) ' +
        'ON DELETE CASCADE ON UPDATE NO ACTION',
    )
  }

  async #takeShared(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sites ADD header_id VARCHAR(24) NULL, ADD footer_id VARCHAR(24) NULL')
    const sites = (await runner.query(
      'SELECT id, CAST(header AS CHAR) AS header, CAST(footer AS CHAR) AS footer FROM sites',
    )) as { id: string; header: string; footer: string }[]
    for (const site of sites) {
      for (const type of ['header', 'footer'] as const) {
        const id = `${type}${site.id.slice(0, 16)}`
        await runner.query('INSERT INTO documents (id, site_id, type, version) VALUES (?, ?, ?, 1)', [
          id,
          site.id,
          type,
        ])
        await runner.query(
          'INSERT INTO versions (document_id, number, state, changes, saved_at, saved_by) ' +
            "VALUES (?, 1, ?, '[]', NOW(3), 'Gullyline')",
          [id, await deflate(Buffer.from(site[type]))],
        )
        await runner.query(`UPDATE sites SET ${type}_id = ? WHERE id = ?`, [id, site.id])
      }
    }
    await runner.query(
      'ALTER TABLE sites DROP header, DROP footer, MODIFY header_id VARCHAR(24) NOT NULL, ' +
        'MODIFY footer_id VARCHAR(24) NOT NULL',
    )
  }

  async #releaseLive(runner: QueryRunner): Promise<void> {
    const pages = (await runner.query(
      'SELECT id, site_id, live_version, live_since FROM pages WHERE live_version IS NOT NULL ORDER BY live_since',
    )) as PageState[]
    const sites = (await runner.query('SELECT id, release_id, header_id, footer_id FROM sites')) as {
      id: string
      release_id: string | null
      header_id: string
      footer_id: string
    }[]
    for (const site of sites) {
      const moments = new Map<number, PageState[]>()
      for (const page of pages.filter(({ site_id }) => site_id === site.id)) {
        const at = page.live_since?.getTime() ?? 0
        moments.set(at, [...(moments.get(at) ?? []), page])
      }
      if (site.release_id !== null && moments.size === 0) moments.set(Date.now(), [])
      const last = moments.size - 1
      for (const [i, [at, live]] of [...moments].entries()) {
        // The newest one is what the files on the disk are named by.
        const id =
          i === last && site.release_id !== null ? site.release_id : `before-${site.id.slice(0, 10)}-${i}`
        const number = await insertRelease(runner, id.slice(0, 24), site.id, new Date(at))
        const shared =
          i === last && site.release_id !== null
            ? [site.header_id, site.footer_id].map((one) => [one, 1])
            : []
        const rows = [...live.map((page) => [page.id, page.live_version]), ...shared]
        for (const [documentId, version] of rows)
          await runner.query(
            'INSERT INTO released_documents (document_id, release_number, version) VALUES (?, ?, ?)',
            [documentId, number, version],
          )
      }
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE pages ADD version INT NULL, ADD live_version INT NULL, ADD live_since DATETIME(3) NULL',
    )
    await runner.query('UPDATE pages p JOIN documents d ON d.id = p.id SET p.version = d.version')
    await runner.query(
      'UPDATE pages p JOIN (SELECT document_id, MAX(release_number) AS newest FROM released_documents ' +
        'GROUP BY document_id) n ON n.document_id = p.id ' +
        'JOIN released_documents rd ON rd.document_id = p.id AND rd.release_number = n.newest ' +
        'JOIN releases r ON r.number = n.newest SET p.live_version = rd.version, p.live_since = r.at ' +
        'WHERE rd.version IS NOT NULL',
    )
    await runner.query('ALTER TABLE pages MODIFY version INT NOT NULL')
    await this.#unpackVersions(runner)
    await runner.query('ALTER TABLE journal_entries DROP FOREIGN KEY fk_journal_document')
    await runner.query('DELETE FROM journal_entries WHERE document_id NOT IN (SELECT id FROM pages)')
    await runner.query(
      'ALTER TABLE journal_entries CHANGE document_id page_id VARCHAR(24) NOT NULL, DROP shared',
    )
    await runner.query('ALTER TABLE pages DROP FOREIGN KEY fk_pages_document')
    await runner.query('DROP INDEX pages_order ON pages')
    for (const table of ['released_documents', 'releases', 'documents'])
      await runner.query(`DROP TABLE ${table}`)
    await runner.query(
      'ALTER TABLE journal_entries ADD CONSTRAINT fk_journal_page FOREIGN KEY (page_id) REFERENCES pages (id) ' +
        'ON DELETE CASCADE ON UPDATE NO ACTION',
    )
    await runner.query(
      'ALTER TABLE versions ADD CONSTRAINT fk_versions_page FOREIGN KEY (page_id) REFERENCES pages (id) ' +
        'ON DELETE CASCADE ON UPDATE NO ACTION',
    )
  }

  async #unpackVersions(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE versions DROP FOREIGN KEY fk_versions_document')
    await runner.query('ALTER TABLE versions ADD document JSON NULL')
    const keys = (await runner.query('SELECT document_id, number, base FROM versions')) as VersionKey[]
    for (const { document_id, number, base } of keys) {
      const state = await readState(runner, document_id, number)
      const document = base === null ? state : withDelta(await readState(runner, document_id, base!), state)
      await runner.query('UPDATE versions SET document = ? WHERE document_id = ? AND number = ?', [
        JSON.stringify(document),
        document_id,
        number,
      ])
    }
    await runner.query('ALTER TABLE sites ADD header JSON NULL, ADD footer JSON NULL')
    for (const type of ['header', 'footer'])
      await runner.query(
        `UPDATE sites s JOIN documents d ON d.id = s.${type}_id ` +
          `JOIN versions v ON v.document_id = d.id AND v.number = d.version SET s.${type} = v.document`,
      )
    await runner.query(
      'ALTER TABLE sites DROP header_id, DROP footer_id, MODIFY header JSON NOT NULL, MODIFY footer JSON NOT NULL',
    )
    await runner.query(
      "DELETE v FROM versions v JOIN documents d ON d.id = v.document_id WHERE d.type <> 'page'",
    )
    await runner.query(
      'ALTER TABLE versions CHANGE document_id page_id VARCHAR(24) NOT NULL, MODIFY document JSON NOT NULL, ' +
        'DROP base, DROP state, DROP changes, DROP person_id',
    )
  }
}

interface VersionKey {
  readonly document_id: string
  readonly number: number
  readonly base?: number | null
}

async function insertRelease(runner: QueryRunner, id: string, siteId: string, at: Date): Promise<number> {
  await runner.query('INSERT INTO releases (id, site_id, at) VALUES (?, ?, ?)', [id, siteId, at])
  const [row] = (await runner.query('SELECT number FROM releases WHERE id = ?', [id])) as { number: number }[]
  return row!.number
}

interface StoredState {
  readonly nodes: Readonly<Record<string, unknown>>
  readonly gone?: readonly string[]
}

async function readState(runner: QueryRunner, documentId: string, number: number): Promise<StoredState> {
  const [row] = (await runner.query('SELECT state FROM versions WHERE document_id = ? AND number = ?', [
    documentId,
    number,
  ])) as { state: Buffer }[]
  return JSON.parse((await inflate(row!.state)).toString()) as StoredState
}

function withDelta(whole: StoredState, { gone = [], ...delta }: StoredState): StoredState {
  const nodes: Record<string, unknown> = { ...whole.nodes, ...delta.nodes }
  for (const id of gone) delete nodes[id]
  return { ...delta, nodes }
}
