/** What is recorded of the pages, pictures and files that documents refer to. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  defaultRegistry,
  documentUses,
  type Look,
  type MediaUse,
  type Page,
  type PageDocument,
} from '@gullyline/core'
import { DocumentEntity } from '../src/db/document-rows.ts'
import { liveVersionOf } from '../src/documents/live.ts'
import { findSite } from '../src/documents/site-row.ts'
import { findVersion, readDocument } from '../src/documents/versions.ts'
import { completeSite } from '../src/sites/complete-site.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const IDS = ['tmabout', 'tmvisit', 'tmquestions'] as const
const PAGES = '/api/sites/tarrowmoor/pages'

const recorded = (): Promise<Record<string, unknown>[]> =>
  server.services.db.query(
    'SELECT document_id, version, thing, target, count FROM uses ORDER BY document_id, version, thing, target',
  )

/** What the newest and the live version of a document refer to, rendered here and now. */
async function expectedOf(id: string): Promise<string[]> {
  const { look } = await findSite(server.at)
  const row = await server.at.manager.findOneByOrFail(DocumentEntity, { id })
  const live = await liveVersionOf(server.at, id)
  const lines: string[] = []
  for (const version of new Set([row.version, live?.version ?? row.version])) {
    const document = readDocument(await findVersion(server.at, id, version))
    for (const { thing, id: target, count } of documentUses(document, defaultRegistry, look as Look))
      lines.push([version, thing, target, count].join(' '))
  }
  return lines.sort()
}

/** The page with its buttons leading to another page, and a heading that links to a third. */
function leadingTo(document: Page, page: string): Page {
  const nodes = Object.fromEntries(
    Object.entries(document.nodes).map(([id, node]) => [
      id,
      node.kind === 'button' ? { ...node, content: { ...node.content, link: { page } } } : node,
    ]),
  )
  const root = nodes[document.root]!
  nodes[document.root] = { ...root, content: { ...root.content, sharePicture: { id: 'tmdusk' } } }
  return { ...document, nodes }
}

test('of every document it is what its newest and its live version refer to, whatever is saved and published', async () => {
  const step = fc.tuple(
    fc.constantFrom(...IDS),
    fc.constantFrom('save', 'save', 'publish', 'unpublish'),
    fc.constantFrom('tmhome', 'tmnews', 'tmcomet'),
  )
  const seen = new Set<string>()
  for (const [id, act, target] of fc.sample(step, { numRuns: 40, seed: 5 })) {
    const { document, summary } = (await server.ask<PageDocument>(`${PAGES}/${id}`)).body
    if (act === 'save')
      await server.ask(`${PAGES}/${id}/document`, {
        method: 'PUT',
        body: { base: summary.version, document: leadingTo(document, target), journal: null },
      })
    if (act === 'publish') await server.publish(id)
    if (act === 'unpublish') await server.ask(`${PAGES}/${id}/unpublish`, { method: 'POST', body: {} })
    const rows = (await recorded()).filter((row) => row.document_id === id)
    const lines = rows.map(({ version, thing, target: to, count }) => [version, thing, to, count].join(' '))
    expect(lines.sort()).toEqual(await expectedOf(id))
    seen.add(`${act} ${new Set(rows.map(({ version }) => version)).size}`)
  }
  // Both where the live version is the newest, and where it is not.
  expect([...seen]).toEqual(expect.arrayContaining(['save 2', 'publish 1', 'unpublish 1']))
})

test('of documents from before it was recorded it is recorded at the next start', async () => {
  const before = await recorded()
  const { db } = server.services
  await db.query('DELETE FROM uses')
  await db.query('UPDATE documents SET uses_known = 0')
  expect((await server.ask<MediaUse[]>('/api/sites/tarrowmoor/media/tmdome/uses')).body).toEqual([])
  await completeSite(server.services, server.scope)
  expect(await recorded()).toEqual(before)
  expect(before.length).toBeGreaterThan(20)
})
