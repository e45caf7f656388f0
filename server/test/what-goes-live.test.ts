/** What is checked is what goes live, whatever is saved, moved and published beside it: with real concurrent requests. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { ErrorBody, Page, PageAsLive, PageDocument, PageSummary, VersionInfo } from '@gullyline/core'
import { liveVersionOf } from '../src/documents/live.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const ROUNDS = 200

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const open = async (id: string) => (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
const save = (id: string, base: number, document: Page) =>
  server.ask<PageSummary>(`/api/sites/tarrowmoor/pages/${id}/document`, {
    method: 'PUT',
    body: { base, document, journal: null },
  })
const liveVersion = async (id: string) => (await liveVersionOf(server.at, id))?.version

/** The page with another first heading. */
function retitled(document: Page, text: string): Page {
  const [id, node] = Object.entries(document.nodes).find(([, one]) => one.kind === 'heading')!
  return { ...document, nodes: { ...document.nodes, [id]: { ...node, content: { ...node.content, text } } } }
}

test(`of ${ROUNDS} saves beside a publish, none goes live that was not named`, async () => {
  for (let round = 0; round < ROUNDS; round++) {
    const { document, summary } = await open('tmcomet')
    const named = summary.version
    const [saved, published] = await Promise.all([
      save('tmcomet', named, retitled(document, `Round ${round}`)),
      server.ask(`/api/sites/tarrowmoor/pages/tmcomet/publish`, { method: 'POST', body: { version: named } }),
    ])
    expect([saved.status, published.status]).toEqual([200, 200])
    expect(await liveVersion('tmcomet')).toBe(named)
  }
}, 600_000)

test('a version that does not exist, and one older than what is live, do not go live', async () => {
  const { summary } = await open('tmcomet')
  expect((await server.publish('tmcomet')).status).toBe(200)
  const publish = (version: unknown) =>
    server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmcomet/publish', {
      method: 'POST',
      body: { version },
    })
  expect((await publish(summary.version + 1)).body.code).toBe('not-found')
  expect((await publish(1)).body.code).toBe('stale-publish')
  expect((await publish('newest')).body.code).toBe('malformed')
  expect(await liveVersion('tmcomet')).toBe(summary.version)
})

test('a page as visitors see it is the version that went live, with the header of then, and none where it never did', async () => {
  const { document, summary } = await open('tmfriend')
  expect((await server.publish('tmfriend')).status).toBe(200)
  expect((await save('tmfriend', summary.version, retitled(document, 'Not live yet'))).status).toBe(200)
  const { status, body } = await server.ask<PageAsLive>('/api/sites/tarrowmoor/pages/tmfriend/live')
  expect([status, body.version]).toEqual([200, summary.version])
  expect(body.page).toEqual(document)
  expect(body.header.nodes[body.header.root]?.kind).toBe('site-header')
  const added = await server.ask<PageDocument>('/api/sites/tarrowmoor/pages', {
    method: 'POST',
    body: { title: 'Never live', parentId: null },
  })
  const { id } = added.body.summary
  expect((await server.ask(`/api/sites/tarrowmoor/pages/${id}/live`)).status).toBe(404)
  expect((await server.ask('/api/sites/tarrowmoor/pages/nowhere/live')).status).toBe(404)
})

test('a page that is being published can be saved meanwhile: no lock is held while it is compiled', async () => {
  const { document, summary } = await open('tmvisit')
  const before = Date.now()
  const publishing = server.publish('tmvisit')
  const saved = await save('tmvisit', summary.version, retitled(document, 'Saved beside'))
  expect(saved.status).toBe(200)
  expect((await publishing).status).toBe(200)
  // Far from the 50 s that a waiting lock takes to give up.
  expect(Date.now() - before).toBeLessThan(20_000)
})

test('a save that is sent again after its answer was lost is saved once, and no one else’s', async () => {
  const { document, summary } = await open('tmabout')
  const body = {
    base: summary.version,
    document: retitled(document, 'Sent twice'),
    journal: null,
    saveId: 'once',
  }
  const send = () =>
    server.ask<PageSummary>('/api/sites/tarrowmoor/pages/tmabout/document', { method: 'PUT', body })
  const answers = await Promise.all([send(), send()])
  expect(answers.map(({ status }) => status)).toEqual([200, 200])
  expect(answers.map((one) => one.body.version)).toEqual([summary.version + 1, summary.version + 1])
  const versions = (await server.ask<VersionInfo[]>('/api/sites/tarrowmoor/pages/tmabout/versions')).body
  expect(versions[0]!.number).toBe(summary.version + 1)
  const other = await server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmabout/document', {
    method: 'PUT',
    body: { ...body, saveId: 'another' },
  })
  expect(other.body.code).toBe('stale-save')
})

test('two people who change settings of one page in the same moment both keep theirs; of one setting, the second is told', async () => {
  for (let round = 0; round < ROUNDS / 4; round++) {
    const patch = (body: unknown) =>
      server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmquestions', { method: 'PATCH', body })
    await Promise.all([
      patch({ description: `Description ${round}` }),
      patch({ more: { navigationLabel: `Label ${round}` } }),
    ])
    const { summary } = await open('tmquestions')
    expect([summary.description, summary.more.navigationLabel]).toEqual([
      `Description ${round}`,
      `Label ${round}`,
    ])
    const was = { title: summary.title }
    const both = await Promise.all(['One', 'Other'].map((who) => patch({ title: `${who} ${round}`, was })))
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(both.find(({ status }) => status === 409)!.body.code).toBe('stale-save')
  }
})

test('whoever changes a setting that another one changed is told what it is now, and nothing if both want the same', async () => {
  const patch = (body: unknown) =>
    server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmnews', { method: 'PATCH', body })
  const { summary } = await open('tmnews')
  const was = { description: summary.description }
  expect((await patch({ description: 'All about comets', was })).status).toBe(200)
  const { status, body } = await patch({ description: 'All about rain', was })
  expect([status, body.code]).toEqual([409, 'stale-save'])
  expect(body.message).toContain('to “All about comets”')
  expect((await patch({ description: 'All about comets', was })).status).toBe(200)
  expect((await open('tmnews')).summary.description).toBe('All about comets')
})

test('a page that was deleted meanwhile is not saved, and says so', async () => {
  const { document, summary } = await open('tmfriend')
  await server.ask('/api/sites/tarrowmoor/pages/tmfriend', { method: 'DELETE' })
  const { status, body } = await save('tmfriend', summary.version, document)
  expect([status, (body as unknown as ErrorBody).code]).toEqual([409, 'page-deleted'])
  await server.ask('/api/sites/tarrowmoor/pages/tmfriend/restore', { method: 'POST', body: {} })
  expect((await save('tmfriend', summary.version, document)).status).toBe(200)
})
