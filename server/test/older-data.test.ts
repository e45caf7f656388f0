/** Data of the version before this one: brought up to date, with nothing lost, whatever state it was left in. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { settingsOf, type PageDocument, type PageSummary, type SiteInfo } from '@gullyline/core'
import { VersionEntity } from '../src/db/document-rows.ts'
import { NewerDatabase, openDatabase } from '../src/db/data-source.ts'
import { packState } from '../src/documents/states.ts'
import { findNewest, findVersion, readDocument } from '../src/documents/versions.ts'
import { startTestServer, type TestServer } from './with-server.ts'

/** The migrations that came since: settings in documents, exact ids, offers of journals, facts of sessions, settings of the site, documents, several servers, uses, sizes of the site, private addresses, sweeps of pages, what pictures were made from. */
const NEW = 16

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const query = <T>(sql: string, values: unknown[] = []): Promise<T[]> => server.services.db.query(sql, values)

/** Has the newest version of a document say something else, as another program may have written it. */
async function storeAs(id: string, change: (document: object) => object): Promise<void> {
  const { manager } = server.at
  const { number, document } = await findNewest(server.at, id)
  const stored = await packState(change(document) as never, undefined)
  await manager.update(VersionEntity, { documentId: id, number }, stored)
  await server.changed()
}

interface OldNode {
  readonly kind: string
  readonly content: Record<string, unknown>
  readonly slots: Record<string, string[]>
}

/** No page of that time showed a shared section. */
function withoutInstances(nodes: Record<string, OldNode>): void {
  const isInstance = (id: string): boolean => nodes[id]!.kind.startsWith('linked-')
  for (const { slots } of Object.values(nodes))
    for (const [slot, children] of Object.entries(slots))
      slots[slot] = children.filter((id) => !isInstance(id))
  for (const id of Object.keys(nodes)) if (isInstance(id)) delete nodes[id]
}

test('settings become part of versions, pages with one address get two, and loops are opened', async () => {
  const { db } = server.services
  for (let i = 0; i < NEW; i++) await db.undoLastMigration()
  // What stood in documents stands beside them again, as the version before had it.
  for (const version of await db.query<{ page_id: string; number: number; document: never }[]>(
    'SELECT * FROM versions',
  )) {
    const document = version.document as {
      root: string
      nodes: Record<string, OldNode>
    }
    withoutInstances(document.nodes)
    const { root } = document
    for (const key of [
      'pageTitle',
      'description',
      'inNavigation',
      'navigationLabel',
      'theme',
      'isListed',
      'sharePicture',
    ])
      delete document.nodes[root]!.content[key]
    await query('UPDATE versions SET document = ? WHERE page_id = ? AND number = ?', [
      JSON.stringify(document),
      version.page_id,
      version.number,
    ])
  }
  const more = { navigationLabel: 'Come', theme: 'moss', isListed: false, sharePicture: 'tmdusk' }
  await query(
    "UPDATE pages SET title = 'Come and visit', description = 'How to come', more = ? WHERE id = 'tmvisit'",
    [JSON.stringify(more)],
  )
  // Two people gave two pages one address; two others stand under each other.
  await query("UPDATE pages SET slug = 'about', parent_id = NULL WHERE id = 'tmquestions'")
  await query("UPDATE pages SET parent_id = 'tmcomet' WHERE id = 'tmnews'")
  await query("UPDATE pages SET parent_id = 'tmnews' WHERE id = 'tmcomet'")

  await query("UPDATE sites SET look = JSON_SET(look, '$.bounds.wide', 1111)")

  await db.runMigrations()
  await server.changed()
  const { look } = (await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body
  expect(look.sizes).toEqual([
    { key: 'base', name: 'wide', from: 1111 },
    { key: 'medium', name: 'medium', from: 720 },
    { key: 'narrow', name: 'narrow', from: 0 },
  ])
  expect(look).not.toHaveProperty('bounds')

  const pages = (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body
  expect(new Set(pages.map(({ path }) => path)).size).toBe(pages.length)
  expect(pages.find(({ id }) => id === 'tmvisit')).toMatchObject({
    title: 'Come and visit',
    description: 'How to come',
    more,
    // What was set and not published is a version of its own.
    state: 'changed',
    version: 2,
  })
  const { document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmvisit')).body
  expect(settingsOf(document)).toEqual({
    title: 'Come and visit',
    description: 'How to come',
    inNavigation: true,
    ...more,
  })
  // Visitors go on seeing what they saw, until it is published.
  const live = await findVersion(server.at, 'tmvisit', 1)
  expect(settingsOf(readDocument(live)).title).toBe('Visit')
  expect((await server.publish('tmabout')).status).toBe(200)
  expect(await (await server.site.request('http://localhost/visit/')).text()).toContain('<title>Visit')
  expect((await server.publish('tmvisit')).status).toBe(200)
  expect(await (await server.site.request('http://localhost/visit/')).text()).toContain(
    '<title>Come and visit',
  )
  expect((await db.driver.createSchemaBuilder().log()).upQueries).toEqual([])
})

test('data of a newer version are refused with a sentence, and nothing of them is changed', async () => {
  await query("INSERT INTO migrations (timestamp, name) VALUES (1999000000000, 'FromTheFuture1999000000000')")
  const url = process.env.GULLYLINE_TEST_DATABASE!.replace(/\/[^/]*$/, `/${server.database}`)
  await expect(openDatabase(url)).rejects.toThrow(NewerDatabase)
  await expect(openDatabase(url)).rejects.toThrow(
    /written by a newer version of Gullyline.*Nothing was changed/,
  )
  await query("DELETE FROM migrations WHERE name LIKE 'FromTheFuture%'")
})

test('a page of a newer format is refused with a sentence', async () => {
  await storeAs('tmradio', (document) => ({ ...document, format: 99 }))
  const { status, body } = await server.ask('/api/sites/tarrowmoor/pages/tmradio')
  expect([status, body.message]).toEqual([
    422,
    expect.stringMatching(/saved by a newer version of Gullyline/),
  ])
})

test('documents of format 2 open with their layout and their locks, and are saved as ones of today', async () => {
  const opened = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmbig')).body
  const { root, nodes } = opened.document
  const [inside] = Object.keys(nodes).filter((id) => id !== root)
  const { layout, ...content } = nodes[root]!.content
  const older = {
    ...opened.document,
    format: 2,
    nodes: {
      ...nodes,
      [root]: { ...nodes[root], content: { ...content, frame: layout } },
      [inside!]: { ...nodes[inside!], held: 'words' },
    },
  }
  await storeAs('tmbig', () => older)
  const { document, summary } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmbig')).body
  expect(layout).toBe('side')
  expect(document.nodes[root]!.content.layout).toBe('side')
  expect(document.nodes[inside!]!.lock).toBe('text')
  const body = { base: summary.version, document, journal: null }
  expect(
    (await server.ask('/api/sites/tarrowmoor/pages/tmbig/document', { method: 'PUT', body })).status,
  ).toBe(200)
})
