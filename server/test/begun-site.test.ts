import { afterAll, beforeAll, expect, test } from '@jest/globals'
import {
  defaultRegistry,
  validatePage,
  type PageDocument,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { beginSiteIfEmpty } from '../src/demo/load-demo.ts'
import { addPerson, listPeople } from '../src/people/store.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer('begun')
})
afterAll(() => server.close())

const own = () => `/api/sites/${server.at.siteId}`

test('a site of one’s own begins with one empty page and nobody; its first keeper signs in and publishes', async () => {
  const { manager } = server.services.db
  expect(await listPeople(manager)).toEqual([])
  expect((await server.ask(`${own()}/pages`, { as: 'nobody' })).status).toBe(401)
  await addPerson(manager, { login: 'first', name: 'First', role: 'keeper', password: 'a long enough one' })
  const pages = (await server.ask<PageSummary[]>(`${own()}/pages`)).body as unknown as PageSummary[]
  expect(pages.map((page) => [page.path, page.state])).toEqual([
    ['/', 'never-published'],
    ['/404/', 'never-published'],
  ])
  const { document } = (await server.ask<PageDocument>(`${own()}/pages/${pages[0]!.id}`)).body
  const site = (await server.ask<SiteInfo>(own())).body
  expect([site.name, site.header.nodes[site.header.root]?.kind]).toEqual(['New site', 'site-header'])
  expect(validatePage(document, defaultRegistry)).toEqual([])
  await server.publish(pages[0]!.id)
  expect((await server.site.request('http://localhost/')).status).toBe(200)
  const live = (await server.ask<PageSummary[]>(`${own()}/pages`)).body
  expect(live.map(({ state }) => state)).toEqual(['live', 'live'])
})

test('beginning again changes nothing', async () => {
  const before = (await server.ask(`${own()}/pages`)).body
  await beginSiteIfEmpty(server.services)
  expect((await server.ask(`${own()}/pages`)).body).toEqual(before)
})
