import type { MigrationInterface, QueryRunner } from 'typeorm'

interface PageSettingsRow {
  readonly id: string
  readonly version: number
  readonly live_version: number | null
  readonly title: string
  readonly description: string
  readonly in_navigation: number
  readonly more: string
  readonly live_title: string | null
  readonly live_description: string | null
  readonly live_in_navigation: number | null
  readonly live_more: string | null
}

interface StoredDocument {
  readonly root: string
  readonly nodes: Record<string, { readonly content: Record<string, unknown> }>
}

type Content = Record<string, unknown>

/**
 * The settings of a page become part of its versions. The version that is live gets those that are live, all others
 * those of today; where both are one version and the settings differ, those of today become a version of their own.
 * Saves get a name of their own, by which one that is sent twice is known.
 */
export class SettingsInDocuments1790600000000 implements MigrationInterface {
  name = 'SettingsInDocuments1790600000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE versions ADD save_id VARCHAR(24) NULL')
    const pages = (await runner.query('SELECT * FROM pages')) as PageSettingsRow[]
    for (const page of pages) await this.#movePage(runner, page)
    await runner.query(
      'ALTER TABLE pages DROP live_title, DROP live_description, DROP live_in_navigation, DROP live_more',
    )
  }

  async #movePage(runner: QueryRunner, page: PageSettingsRow): Promise<void> {
    const today = contentFrom(page.title, page.description, page.in_navigation, page.more)
    const live = contentFrom(
      page.live_title ?? page.title,
      page.live_description ?? '',
      page.live_in_navigation ?? 0,
      page.live_more ?? page.more,
    )
    const numbers = (await runner.query('SELECT number FROM versions WHERE page_id = ?', [page.id])) as {
      number: number
    }[]
    for (const { number } of numbers) {
      const document = await readVersion(runner, page.id, number)
      const next = withContent(document, number === page.live_version ? live : today)
      await runner.query('UPDATE versions SET document = ? WHERE page_id = ? AND number = ?', [
        JSON.stringify(next),
        page.id,
        number,
      ])
    }
    const isAhead = page.live_version === page.version && JSON.stringify(today) !== JSON.stringify(live)
    if (!isAhead) return
    const document = withContent(await readVersion(runner, page.id, page.version), today)
    await runner.query(
      'INSERT INTO versions (page_id, number, document, saved_at, saved_by) ' +
        'SELECT page_id, number + 1, ?, saved_at, saved_by FROM versions WHERE page_id = ? AND number = ?',
      [JSON.stringify(document), page.id, page.version],
    )
    await runner.query('UPDATE pages SET version = version + 1 WHERE id = ?', [page.id])
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE pages ADD live_title VARCHAR(200) NULL, ADD live_description VARCHAR(500) NULL, ' +
        'ADD live_in_navigation TINYINT NULL, ADD live_more JSON NULL',
    )
    await runner.query(
      'UPDATE pages SET live_title = title, live_description = description, live_in_navigation = in_navigation, ' +
        'live_more = more WHERE live_version IS NOT NULL',
    )
    await runner.query('ALTER TABLE versions DROP save_id')
  }
}

function contentFrom(title: string, description: string, inNavigation: number, json: string): Content {
  const more = (typeof json === 'string' ? JSON.parse(json) : json) as Record<string, unknown>
  return {
    ...(title ? { pageTitle: title } : {}),
    ...(description ? { description } : {}),
    ...(inNavigation ? { inNavigation: true } : {}),
    ...(more.navigationLabel ? { navigationLabel: more.navigationLabel } : {}),
    ...(more.theme ? { theme: more.theme } : {}),
    ...(more.isListed === false ? { isListed: false } : {}),
    ...(more.sharePicture ? { sharePicture: { id: more.sharePicture } } : {}),
  }
}

async function readVersion(runner: QueryRunner, pageId: string, number: number): Promise<StoredDocument> {
  const [row] = (await runner.query('SELECT document FROM versions WHERE page_id = ? AND number = ?', [
    pageId,
    number,
  ])) as { document: StoredDocument | string }[]
  const { document } = row!
  return typeof document === 'string' ? (JSON.parse(document) as StoredDocument) : document
}

function withContent(document: StoredDocument, settings: Content): StoredDocument {
  const root = document.nodes[document.root]
  if (!root) return document
  const content = { ...root.content, ...settings }
  return { ...document, nodes: { ...document.nodes, [document.root]: { ...root, content } } }
}
