/** Two sites in one installation: nothing of one is found, changed or shown under the address of the other. */
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type {
  Account,
  Library,
  PageDocument,
  PageListPart,
  SavedPart,
  PageSummary,
  SiteInfo,
  TextHit,
} from '@gullyline/core'
import type { SiteScope } from '../src/db/site-scope.ts'
import { beginSite } from '../src/sites/begin-site.ts'
import { ACCESS } from '../src/people/access.ts'
import { completeSite } from '../src/sites/complete-site.ts'
import { Releases } from '../src/publish/manifest.ts'
import { publishNow } from '../src/publish/publish-page.ts'
import { releasedFiles } from './released-files.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const FIRST = '/api/sites/tarrowmoor'

let server: TestServer
let other: SiteScope
let second: string
/** Ids of the first site, as a request to the second may name them. */
let ids: Readonly<Record<'page' | 'picture' | 'file' | 'header' | 'part', string>>

beforeAll(async () => {
  server = await startTestServer()
  other = await beginSite(server.services)
  await completeSite(server.services, other)
  second = `/api/sites/${other.siteId}`
  const site = (await server.ask<SiteInfo>(FIRST)).body
  const library = (await server.ask<Library>(`${FIRST}/library`)).body
  ids = {
    page: 'tmvisit',
    picture: Object.keys(library.pictures)[0]!,
    file: Object.keys(library.files)[0]!,
    header: site.shared.header.id,
    part: await addPattern(),
  }
})
afterAll(() => server.close())

const first = async () => [
  (await server.ask(FIRST)).body,
  (await server.ask(`${FIRST}/library`)).body,
  (await server.ask(`${FIRST}/parts`)).body,
  (await server.ask(`${FIRST}/pages`)).body,
  (await server.ask(`${FIRST}/page-list`)).body,
  (await server.ask(`${FIRST}/bin`)).body,
  (await server.ask(`${FIRST}/pages/tmvisit/journal`)).body,
  new Releases(server.services.dataDir).current('tarrowmoor'),
]

async function addPattern(): Promise<string> {
  const node = (kind: string, content: object, slots: object) => ({
    kind,
    content,
    look: {},
    sizes: { base: {} },
    slots,
  })
  const nodes = {
    r: node('pattern', {}, { blocks: ['h'] }),
    h: node('heading', { text: 'Ours', level: 2 }, {}),
  }
  const body = { name: 'Ours', purpose: 'other', about: '', document: { format: 4, root: 'r', nodes } }
  return (await server.ask<SavedPart>(`${FIRST}/parts`, { method: 'POST', body })).body.id
}

/** A body that each route takes, so that nothing but the id is wrong with a request. */
const BODIES: Readonly<Record<string, unknown>> = {
  'PATCH pages/:id': { title: 'Taken over' },
  'POST pages/:id/place': { parentId: null, position: 0 },
  'POST pages/:id/copy': { withSubPages: true },
  'POST pages/:id/publish': { version: 1 },
  'POST pages/:id/journal/:tab': { entries: [{ number: 1, base: 1, at: 1, edits: [] }] },
  'PATCH media/:id': { name: 'Taken over' },
  'PATCH parts/:id': { name: 'Taken over' },
  'POST parts/:id/replace': { instead: 'copies' },
  'POST imports/:id': { choices: {}, surfaces: {} },
}

async function bodyOf(route: string): Promise<unknown> {
  if (!route.endsWith('/document')) return BODIES[route] ?? {}
  const { document, summary } = (await server.ask<PageDocument>(`${FIRST}/pages/tmvisit`)).body
  if (route === 'PUT parts/:id/document') return { base: 1, document }
  return { base: summary.version, document, journal: null }
}

const routes = Object.keys(ACCESS)
  .filter((route) => route.includes('/api/sites/:site/') && route.includes('/:id'))
  .map((route) => route.replace('/api/sites/:site/', ''))

test.each(routes)('%s finds nothing of another site', async (route) => {
  const before = await first()
  const [method, path] = route.split(' ') as [string, string]
  const kind = path.split('/')[0]!
  const id = { pages: ids.page, media: ids.picture, files: ids.file, documents: ids.header, parts: ids.part }[
    kind
  ]!
  const url = `${second}/${path.replace(':id', id).replace(':tab', 'tab1').replace(':number', '1')}`
  const isUpload = path.endsWith('/file')
  const bytes = isUpload ? 'GIF89a' : await bodyOf(route)
  const { status, body } = await server.ask(url, {
    method,
    ...(method === 'GET' ? {} : { body: bytes }),
    ...(isUpload ? { headers: { 'content-type': 'application/octet-stream' } } : {}),
  })
  expect([status, body.code]).toEqual([404, 'not-found'])
  expect(await first()).toEqual(before)
})

describe('what one site says of another', () => {
  test('is refused: a parent, a picture, a shared section', async () => {
    const before = await first()
    const home = (await server.ask<PageSummary[]>(`${second}/pages`)).body[0]!
    const under = await server.ask(`${second}/pages`, {
      method: 'POST',
      body: { title: 'Here', parentId: 'tmvisit' },
    })
    expect([under.status, under.body.code]).toEqual([404, 'not-found'])
    const icon = await server.ask(`${second}/settings`, { method: 'PUT', body: { icon: ids.picture } })
    expect([icon.status, icon.body.code]).toEqual([422, 'not-valid'])
    const header = (await server.ask<SiteInfo>(FIRST)).body.header
    const saved = await server.ask(`${second}/pages/${home.id}/document`, {
      method: 'PUT',
      body: { base: home.version, shared: [{ id: ids.header, base: 1, document: header }], journal: null },
    })
    expect([saved.status, saved.body.code]).toEqual([404, 'not-found'])
    const shared = { [ids.header]: 1 }
    const published = await server.ask(`${second}/pages/${home.id}/publish`, {
      method: 'POST',
      body: { version: home.version, shared },
    })
    expect([published.status, published.body.code]).toEqual([404, 'not-found'])
    expect(await first()).toEqual(before)
  })

  test('is nothing: lists, the search, the bin and the library are its own', async () => {
    expect((await server.ask<PageSummary[]>(`${second}/pages`)).body.map(({ path }) => path)).toEqual([
      '/',
      '/404/',
    ])
    const { navigation } = (await server.ask<SiteInfo>(second)).body
    const library = (await server.ask<Library>(`${second}/library`)).body
    expect([library, navigation]).toEqual([{ pictures: {}, files: {} }, []])
    const { pages } = (await server.ask<PageListPart>(`${second}/page-list`)).body
    expect(pages.map(({ path }) => path)).toEqual(['/', '/404/'])
    expect((await server.ask<TextHit[]>(`${FIRST}/search?q=telescope`)).body.length).toBeGreaterThan(0)
    expect((await server.ask<TextHit[]>(`${second}/search?q=telescope`)).body).toEqual([])
    await server.ask(`${FIRST}/pages/tmvisit`, { method: 'DELETE' })
    expect((await server.ask<unknown[]>(`${second}/bin`)).body).toEqual([])
    await server.ask(`${FIRST}/pages/tmvisit/restore`, { method: 'POST', body: {} })
  })
})

test('an act on one site makes no answer of the other another one, and publishes nothing of it', async () => {
  const tag = async (path: string) => {
    const headers = { cookie: await server.cookieOf('keeper') }
    return (await server.editor.request(`http://127.0.0.1${path}`, { headers })).headers.get('etag')
  }
  const before = [await tag(FIRST), await tag(`${FIRST}/pages`), await first()]
  const visit = await (await server.site.request('http://localhost/visit/')).text()
  const [home] = (await server.ask<PageSummary[]>(`${second}/pages`)).body
  await publishNow(server.services, other, { [home!.id]: home!.version })
  expect([await tag(FIRST), await tag(`${FIRST}/pages`), await first()]).toEqual(before)
  expect(await (await server.site.request('http://localhost/visit/')).text()).toBe(visit)
  // Its own release is there, beside the other.
  const { dataDir } = server.services
  const files = releasedFiles(dataDir, other.siteId)
  const html = await readFile(join(dataDir, 'live/content', files['/index.html']!), 'utf8')
  expect(html).toContain('New site')
})

test('a site that is not there is told so, and whoever signs in is told which there are', async () => {
  const none = await server.ask('/api/sites/nosuch/pages')
  expect([none.status, none.body.code]).toEqual([404, 'not-found'])
  const { sites } = (await server.ask<Account>('/api/session')).body
  expect(sites.map(({ name }) => name).sort()).toEqual(['New site', 'Tarrowmoor Observatory'])
})
