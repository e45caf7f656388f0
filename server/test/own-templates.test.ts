/** Page templates that a site's keepers make: through the server, by role, and by two people at once. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import {
  defaultRegistry,
  madeFromOf,
  templateOfPage,
  type OpenedPage,
  type Page,
  type PartPage,
  type PartVersion,
  type Role,
  type SavedPart,
} from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

const SITE = '/api/sites/tarrowmoor'
const FREE = { fixed: {}, asked: [], takes: [], isEmptied: false }

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const post = <T>(path: string, body: object, as: Role = 'keeper') =>
  server.ask<T>(`${SITE}${path}`, { method: 'POST', body, as })
const openPage = async (id: string) => (await server.ask<OpenedPage>(`${SITE}/pages/${id}`)).body
const partOf = async (id: string) =>
  (await server.ask<SavedPart[]>(`${SITE}/parts`)).body.find((one) => one.id === id)

async function templateOf(pageId: string): Promise<Page> {
  return templateOfPage((await openPage(pageId)).document, FREE, defaultRegistry)
}
const facts = (name: string) => ({ type: 'template', name, purpose: 'pages', about: 'For events' })

test('a keeper makes a template of a page, and pages are made from it that know which version they are of', async () => {
  const document = await templateOf('tmvisit')
  const made = await post<SavedPart>('/parts', { ...facts('Visit us'), document })
  expect([made.status, made.body.type, made.body.version]).toEqual([201, 'template', 1])
  const added = await post<OpenedPage>(
    '/pages',
    { title: 'Open day', parentId: null, template: made.body.id },
    'editor',
  )
  expect(added.status).toBe(201)
  const page = await openPage(added.body.summary.id)
  expect(madeFromOf(page.document)).toEqual({ template: made.body.id, version: 1 })
  expect(page.summary.title).toBe('Open day')
  expect(Object.keys(page.document.nodes).sort()).toEqual(Object.keys(document.nodes).sort())
  expect((await partOf(made.body.id))!.reach.pages).toBe(1)
  const pages = await server.ask<PartPage[]>(`${SITE}/parts/${made.body.id}/pages`)
  expect(pages.body.map(({ title }) => title)).toEqual(['Open day'])

  // A newer version: the page stays as it is, and both versions can be read to compare them.
  const root = document.nodes[document.root]!
  const next: Page = {
    ...document,
    nodes: { ...document.nodes, [document.root]: { ...root, name: 'Changed' } },
  }
  const changed = await server.ask<SavedPart>(`${SITE}/parts/${made.body.id}/document`, {
    method: 'PUT',
    body: { base: 1, document: next },
  })
  expect([changed.status, changed.body.version]).toEqual([200, 2])
  expect((await openPage(added.body.summary.id)).document).toEqual(page.document)
  const first = await server.ask<PartVersion>(`${SITE}/parts/${made.body.id}/versions/1`)
  expect(first.body).toEqual({ version: 1, document })
  expect((await server.ask(`${SITE}/parts/${made.body.id}/versions/7`)).status).toBe(404)
  for (const none of ['abc', '1.5', '9'.repeat(30)])
    expect((await server.ask(`${SITE}/parts/${made.body.id}/versions/${none}`)).status).toBe(404)

  // Deleted, it is offered no more, and the page stays.
  expect((await server.ask(`${SITE}/parts/${made.body.id}`, { method: 'DELETE' })).status).toBe(200)
  const gone = await post('/pages', { title: 'Too late', parentId: null, template: made.body.id })
  expect([gone.status, gone.body.code]).toEqual([404, 'not-found'])
  expect((await server.publish(added.body.summary.id)).status).toBe(200)
})

test('editors can use templates, and neither make nor change nor delete them', async () => {
  const document = await templateOf('tmabout')
  const refused = await post('/parts', { ...facts('By an editor'), document }, 'editor')
  expect([refused.status, refused.body.code]).toEqual([403, 'not-allowed'])
  const { body: made } = await post<SavedPart>('/parts', { ...facts('By a keeper'), document })
  const path = `${SITE}/parts/${made.id}`
  const tries = [
    server.ask(`${path}/document`, { method: 'PUT', body: { base: 1, document }, as: 'editor' }),
    server.ask(path, { method: 'PATCH', body: { name: 'Mine' }, as: 'editor' }),
    server.ask(path, { method: 'DELETE', as: 'editor' }),
  ]
  for (const { status, body } of await Promise.all(tries)) {
    expect(status).toBe(403)
    expect(body.message).toContain('Nothing was changed')
  }
  expect(await partOf(made.id)).toMatchObject({ name: 'By a keeper', version: 1, binnedAt: null })
})

test('what is no page, and another page, can’t become a version of a template', async () => {
  const document = await templateOf('tmabout')
  const { body: made } = await post<SavedPart>('/parts', { ...facts('Only of its own'), document })
  const put = (body: object) => server.ask(`${SITE}/parts/${made.id}/document`, { method: 'PUT', body })
  expect((await put({ base: 1, document: { format: 4, root: 'x', nodes: {} } })).status).toBe(422)
  expect((await put({ base: 1, document: await templateOf('tmvisit') })).body.code).toBe('not-valid')
  expect((await put({ base: 9, document })).body.code).toBe('stale-save')
  const pattern = {
    format: 4,
    root: 'r',
    nodes: { r: { ...document.nodes[document.root]!, kind: 'pattern' } },
  }
  expect((await post('/parts', { ...facts('No page'), document: pattern })).status).toBe(422)
  expect((await partOf(made.id))!.version).toBe(1)
})

test('of two keepers who change a template at once, one is told that the other was first', async () => {
  const document = await templateOf('tmquestions')
  const { body: made } = await post<SavedPart>('/parts', { ...facts('At once'), document })
  const root = document.nodes[document.root]!
  const named = (name: string): Page => ({
    ...document,
    nodes: { ...document.nodes, [document.root]: { ...root, name } },
  })
  const both = await Promise.all(
    ['One', 'Other'].map((name) =>
      server.ask(`${SITE}/parts/${made.id}/document`, {
        method: 'PUT',
        body: { base: 1, document: named(name) },
      }),
    ),
  )
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  expect((await partOf(made.id))!.version).toBe(2)
})
