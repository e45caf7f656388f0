/** Sites that keepers add: each with an address, people and a look of its own, beside those that are there. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Account, PageSummary, SiteInfo, SitePerson } from '@gullyline/core'
import { hashOf } from '../src/people/sessions.ts'
import { sitesOf } from '../src/people/site-people.ts'
import { addPerson } from '../src/people/store.ts'
import { plainHost } from '../src/sites/host.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const FIRST = '/api/sites/tarrowmoor'
const NEW = {
  name: 'Tarrow Friends',
  language: 'en-GB',
  host: 'friends.localhost',
  like: 'tarrowmoor',
  people: [],
}

const add = (given: object, as: 'keeper' | 'editor' = 'keeper') =>
  server.ask<SiteInfo>('/api/sites', { method: 'POST', body: { ...NEW, ...given }, as })
const account = async (as: 'keeper' | 'editor' | 'reviewer') =>
  (await server.ask<Account>('/api/session', { as })).body
const visit = (host: string, path = '/') => server.site.request(`http://${host}:1${path}`)

let added: SiteInfo

test('a keeper adds one: empty, in the look of theirs, and only they work on it', async () => {
  const { status, body } = await add({})
  added = body
  expect([status, body.name, body.liveOrigin]).toEqual([201, 'Tarrow Friends', 'http://friends.localhost:1'])
  expect(body.look).toEqual((await server.ask<SiteInfo>(FIRST)).body.look)
  expect((await account('keeper')).sites.map(({ name }) => name)).toEqual([
    'Tarrowmoor Observatory',
    'Tarrow Friends',
  ])
  expect((await account('editor')).sites.map(({ name }) => name)).toEqual(['Tarrowmoor Observatory'])
  const seen = await server.ask(`/api/sites/${body.id}`, { as: 'editor' })
  expect([seen.status, seen.body.code]).toEqual([404, 'not-found'])
})

test('visitors find it under its own name once it is published, and the first site where they did', async () => {
  expect((await visit('friends.localhost')).status).toBe(404)
  const [home] = (await server.ask<PageSummary[]>(`/api/sites/${added.id}/pages`)).body
  const url = `/api/sites/${added.id}/pages/${home!.id}/publish`
  const { body } = await server.ask<{ url: string }>(url, { method: 'POST', body: { version: 1 } })
  expect(body.url).toBe('http://friends.localhost:1/')
  const html = await (await visit('friends.localhost')).text()
  expect(html).toContain('<link rel="canonical" href="http://friends.localhost:1/">')
  expect(await (await visit('friends.localhost', '/robots.txt')).text()).toContain(
    'http://friends.localhost:1/sitemap.xml',
  )
  expect((await visit('friends.localhost', '/visit/')).status).toBe(404)
  expect(await (await visit('localhost')).text()).toContain(
    '<link rel="canonical" href="http://localhost:1/">',
  )
  const elsewhere = await visit('nobody.localhost')
  expect([elsewhere.status, elsewhere.headers.get('location')]).toEqual([308, 'http://localhost:1/'])
})

test('its address can be changed; the old one leads to the first site again', async () => {
  const { body } = await server.ask<SiteInfo>(`/api/sites/${added.id}/host`, {
    method: 'PUT',
    body: { host: 'Members.localhost' },
  })
  expect([body.host, body.liveOrigin]).toEqual(['members.localhost', 'http://members.localhost:1'])
  expect(await (await visit('members.localhost')).text()).toContain('href="http://members.localhost:1/"')
  expect((await visit('friends.localhost')).status).toBe(308)
  const first = await server.ask(`${FIRST}/host`, { method: 'PUT', body: { host: 'other.localhost' } })
  expect([first.status, first.body.code]).toEqual([422, 'not-valid'])
})

test('refused is what can’t be a site, and nothing is added', async () => {
  const count = async () => (await account('keeper')).sites.length
  const before = await count()
  const refused = [
    [{ host: 'members.localhost' }, 'address-taken'],
    [{ host: 'MEMBERS.localhost' }, 'address-taken'],
    [{ host: 'localhost' }, 'address-taken'],
    [{ host: 'https://a.example' }, 'not-valid'],
    [{ host: 'a.example/path' }, 'not-valid'],
    [{ host: '127.0.0.1' }, 'not-valid'],
    [{ host: 'a b' }, 'not-valid'],
    [{ language: 'en GB', host: 'a.example' }, 'not-valid'],
    [{ name: ' '.repeat(3), host: 'a.example' }, 'malformed'],
    [{ like: 'nosuchsite', host: 'a.example' }, 'not-found'],
  ] as const
  for (const [given, code] of refused) expect([given, (await add(given)).body.code]).toEqual([given, code])
  expect((await add({ host: 'b.example' }, 'editor')).body.code).toBe('not-allowed')
  expect(await count()).toBe(before)
})

test('of twenty who want one address at once, one gets it', async () => {
  const answers = await Promise.all(Array.from({ length: 20 }, () => add({ host: 'once.example' })))
  const codes = answers.map(({ status, body }) => (status === 201 ? 'added' : body.code))
  expect(codes.filter((code) => code === 'added')).toHaveLength(1)
  expect(codes.filter((code) => code === 'address-taken')).toHaveLength(19)
})

test('people come to work on it and are taken from it at once; its last keeper stays', async () => {
  const url = `/api/sites/${added.id}/people`
  const people = (await server.ask<SitePerson[]>(url)).body
  expect(people.filter(({ isHere }) => isHere).map(({ login }) => login)).toEqual(['tarn'])
  const ines = people.find(({ login }) => login === 'ines')!
  const tarn = people.find(({ login }) => login === 'tarn')!
  await server.ask(`${url}/${ines.id}`, { method: 'PUT', body: {} })
  expect((await server.ask(`/api/sites/${added.id}`, { as: 'editor' })).status).toBe(200)
  await server.ask(`${url}/${ines.id}`, { method: 'DELETE' })
  expect((await server.ask(`/api/sites/${added.id}`, { as: 'editor' })).status).toBe(404)
  const last = await server.ask(`${url}/${tarn.id}`, { method: 'DELETE' })
  expect([last.status, last.body.code]).toEqual([422, 'not-valid'])
  expect((await server.ask(`${url}/nobody`, { method: 'PUT', body: {} })).body.code).toBe('not-found')
})

test('who does not work on a site is not seen on its pages, and is not told who is', async () => {
  const [home] = (await server.ask<PageSummary[]>(`/api/sites/${added.id}/pages`)).body
  const { presence } = server.services
  const listen = async (as: 'keeper' | 'editor') => {
    const cookie = await server.cookieOf(as)
    const session = hashOf(cookie.slice(cookie.indexOf('=') + 1))
    const told: string[] = []
    const tell = ({ event, data }: { event: string; data: unknown }): void =>
      void told.push(`${event} ${JSON.stringify(data)}`)
    await presence.connect(as, { personId: as, name: as, session, tell, close: () => undefined })
    const body = {
      tabs: [
        { tab: `t${as}`, pageId: home!.id },
        { tab: 'thome', pageId: 'tmhome' },
      ],
    }
    expect((await server.ask(`/api/presence/${as}`, { method: 'PUT', body, as })).status).toBe(200)
    return told
  }
  const keeper = await listen('keeper')
  const editor = await listen('editor')
  expect([...(await presence.openTabs(home!.id))]).toEqual(['tkeeper'])
  expect([...(await presence.openTabs('tmhome'))]).toContain('thome')
  await presence.closeAll()
  expect(editor.join()).not.toContain(home!.id)
  expect(keeper.join()).toContain(home!.id)
})

test('an account may be made for some sites alone', async () => {
  const { manager } = server.services.db
  const given = { login: 'guest', name: 'Guest', role: 'editor', password: 'lantern-heron-quay' }
  const person = await addPerson(manager, { ...given, siteIds: [added.id] })
  expect((await sitesOf(manager, person.id)).map(({ id }) => id)).toEqual([added.id])
  const everywhere = await addPerson(manager, { ...given, login: 'guest2' })
  expect((await sitesOf(manager, everywhere.id)).length).toBeGreaterThan(1)
})

test('names are read as the URL standard reads hosts', () => {
  expect(plainHost('  Tarrow.Example ')).toBe('tarrow.example')
  // URL Standard, "domain to ASCII".
  expect(plainHost('möwe.example')).toBe('xn--mwe-sna.example')
  for (const none of [
    '',
    '[::1]',
    '10.0.0.1',
    '0x7f.1',
    'a..b',
    '-a.example',
    'user@a.example',
    'a.example:80',
  ])
    expect([none, plainHost(none)]).toEqual([none, undefined])
})
