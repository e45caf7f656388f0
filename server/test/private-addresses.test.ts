/** Pages at private addresses: what other devices are shown, for how long, and that nobody else learns of it. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals'
import type { Edit, PageDocument, PrivateAddress, Role } from '@gullyline/core'
import { SessionEntity } from '../src/db/rows.ts'
import { PrivateAddressEntity } from '../src/db/shown-rows.ts'
import { createDeviceApp } from '../src/devices/device-app.ts'
import { deviceOrigins } from '../src/devices/device-origins.ts'
import { beginSite } from '../src/sites/begin-site.ts'
import { hashOf } from '../src/people/sessions.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const PAGES = '/api/sites/tarrowmoor/pages'

let server: TestServer
let devices: ReturnType<typeof createDeviceApp>
beforeAll(async () => {
  server = await startTestServer()
  devices = createDeviceApp(server.services)
})
afterAll(() => server.close())
beforeEach(() => server.at.manager.clear(PrivateAddressEntity))

interface At {
  readonly page?: string
  readonly tab?: string
  readonly as?: Role
}

/** The path of a new private address. */
async function make({ page = 'tmvisit', tab = 'tab1', as = 'editor' }: At = {}): Promise<string> {
  const { status, body } = await server.ask<PrivateAddress>(`${PAGES}/${page}/private-address/${tab}`, {
    method: 'POST',
    body: {},
    as,
  })
  expect(status).toBe(201)
  return new URL(body.addresses[0]!).pathname
}

const look = (path: string, host = 'localhost'): Promise<Response> =>
  Promise.resolve(devices.request(`http://${host}${path}`, { headers: { host } }))
const textOf = async (path: string): Promise<string> => (await look(path)).text()

/** Journals one edit of the newest version in a tab. */
async function journal(number: number, edits: readonly Edit[], tab = 'tab1'): Promise<void> {
  const { body } = await server.ask<PageDocument>(`${PAGES}/tmvisit`, { as: 'editor' })
  const entries = [{ number, base: body.summary.version, at: Date.now(), edits }]
  const answer = await server.ask(`${PAGES}/tmvisit/journal/${tab}`, {
    method: 'POST',
    body: { entries },
    as: 'editor',
  })
  expect(answer.status).toBe(200)
}

const headingOf = async (): Promise<string> => {
  const { document } = (await server.ask<PageDocument>(`${PAGES}/tmvisit`)).body
  return Object.entries(document.nodes).find(
    ([, { kind, content }]) => kind === 'hero' || (kind === 'heading' && content.level === 1),
  )![0]
}
const setTitle = async (value: string): Promise<Edit> => {
  const { document } = (await server.ask<PageDocument>(`${PAGES}/tmvisit`)).body
  const id = await headingOf()
  const field = document.nodes[id]!.kind === 'hero' ? 'title' : 'text'
  return { edit: 'set', nodeId: id, at: ['content', field], value }
}

describe('a page at its private address', () => {
  test('has all that it shows below the address, and is stored nowhere on the way', async () => {
    const base = await make()
    expect(base).toMatch(/^\/[A-Za-z0-9_-]{22}\/$/)
    const answer = await look(base)
    expect(answer.status).toBe(200)
    expect(answer.headers.get('cache-control')).toBe('no-store')
    expect(answer.headers.get('x-robots-tag')).toMatch(/noindex/)
    expect(answer.headers.get('referrer-policy')).toBe('no-referrer')
    expect(answer.headers.get('content-security-policy')).toMatch(
      /default-src 'none'.*frame-ancestors 'self'/,
    )
    const html = await answer.text()
    const named = [...html.matchAll(/(?:src|href)="([^"]+)"|srcset="([^"]+)"/g)].flatMap(([, one, set]) =>
      one === undefined ? set!.split(', ').map((each) => each.split(' ')[0]!) : [one],
    )
    const own = named.filter((href) => href.startsWith('/'))
    expect(own.length).toBeGreaterThan(10)
    expect(own.filter((href) => !href.startsWith(base))).toEqual([])
    const css = await textOf(`${base}page.css`)
    const fonts = [...css.matchAll(/url\("?([^")]+)/g)].map(([, href]) => href!)
    expect(fonts.length).toBeGreaterThan(0)
    const files = [...own, ...fonts].filter((href) =>
      /\.(avif|webp|jpg|png|svg|woff2|css|js)(\?|$)/.test(href),
    )
    for (const href of files) expect([href, (await look(href)).status]).toEqual([href, 200])
    expect(files.some((href) => href.includes('/media/'))).toBe(true)
  })

  test('follows what is typed and journaled in its tab, and what is saved', async () => {
    const base = await make()
    const before = [await textOf(`${base}mark`), await textOf(base)]
    await journal(1, [await setTitle('Seen on a phone')])
    const typed = [await textOf(`${base}mark`), await textOf(base)]
    expect(typed[0]).not.toBe(before[0])
    expect(typed[1]).toContain('Seen on a phone')
    expect(before[1]).not.toContain('Seen on a phone')
    // Of another tab nothing is shown here.
    await journal(1, [await setTitle('In another tab')], 'tab2')
    expect(await textOf(base)).toContain('Seen on a phone')
    // Letters that are typed into the same entry change it.
    await journal(1, [await setTitle('Seen on a phone too')])
    expect(await textOf(base)).toContain('Seen on a phone too')
    await server.ask(`${PAGES}/tmvisit/journal/tab1`, { method: 'DELETE', as: 'editor' })
    expect(await textOf(base)).not.toContain('Seen on a phone')
    const { document, summary } = (await server.ask<PageDocument>(`${PAGES}/tmvisit`)).body
    const id = await headingOf()
    const node = document.nodes[id]!
    const field = node.kind === 'hero' ? 'title' : 'text'
    const saved = { ...node, content: { ...node.content, [field]: 'Saved by a colleague' } }
    const mark = await textOf(`${base}mark`)
    const { status } = await server.ask(`${PAGES}/tmvisit/document`, {
      method: 'PUT',
      body: {
        base: summary.version,
        document: { ...document, nodes: { ...document.nodes, [id]: saved } },
        journal: null,
      },
    })
    expect(status).toBe(200)
    expect(await textOf(`${base}mark`)).not.toBe(mark)
    expect(await textOf(base)).toContain('Saved by a colleague')
  })

  test('leaves out edits that do not fit it, and does the others', async () => {
    const base = await make({ tab: 'tab3' })
    await journal(1, [{ edit: 'set', nodeId: 'nosuchnode', at: ['name'], value: 'x' }], 'tab3')
    await journal(2, [await setTitle('Fits all the same')], 'tab3')
    const answer = await look(base)
    expect([answer.status, (await answer.text()).includes('Fits all the same')]).toEqual([200, true])
  })

  test('shows no other page, picture or file, and nothing of the editor', async () => {
    const base = await make()
    const shown = await textOf(base)
    const others = Object.values(
      (await server.ask<{ pictures: Record<string, { fallback: string }> }>('/api/sites/tarrowmoor/library'))
        .body.pictures,
    ).filter((picture) => !shown.includes(picture.fallback))
    expect(others.length).toBeGreaterThan(0)
    for (const path of [
      others[0]!.fallback,
      '/other-page',
      '/media/../../demo-accounts.json',
      '/media/%2e%2e/%2e%2e/demo-accounts.json',
      '/fonts/../demo-accounts.json',
      '/api/session',
      '/nosuch',
    ]) {
      const answer = await look(base + path.slice(1))
      const [status, body] = [answer.status, await answer.text()]
      expect([path, status]).toEqual([path, 404])
      expect(body).not.toContain('password')
    }
    expect((await look('/api/session')).status).toBe(404)
    expect((await look('/')).status).toBe(404)
    for (const method of ['POST', 'PUT', 'DELETE'])
      expect((await devices.request(`http://localhost${base}`, { method })).status).toBe(404)
  })

  test('is found by the name that the editor’s cookie never goes to', async () => {
    const base = await make()
    const answer = await look(base, '127.0.0.1:4184')
    expect([answer.status, answer.headers.get('location')]).toEqual([308, `http://localhost:4184${base}`])
  })
})

describe('a private address ends', () => {
  const isThere = async (base: string): Promise<boolean> => {
    const statuses = await Promise.all(
      ['', 'mark', 'page.css', 'device'].map(async (one) => (await look(base + one)).status),
    )
    expect(new Set(statuses).size).toBe(1)
    return statuses[0] === 200
  }

  test('when it is ended, or another is made in the same tab', async () => {
    const first = await make()
    const other = await make({ tab: 'tab2' })
    expect([await isThere(first), await isThere(other)]).toEqual([true, true])
    const second = await make()
    expect([await isThere(first), await isThere(second), await isThere(other)]).toEqual([false, true, true])
    await server.ask(`${PAGES}/tmvisit/private-address/tab1`, { method: 'DELETE', as: 'editor' })
    expect([await isThere(second), await isThere(other)]).toEqual([false, true])
  })

  test('for nobody but who made it', async () => {
    const base = await make()
    await server.ask(`${PAGES}/tmvisit/private-address/tab1`, { method: 'DELETE', as: 'keeper' })
    expect(await isThere(base)).toBe(true)
  })

  test('after an hour', async () => {
    const base = await make()
    const row = (await server.at.manager.find(PrivateAddressEntity))[0]!
    expect(Math.abs(row.expiresAt.getTime() - Date.now() - 3_600_000)).toBeLessThan(60_000)
    await server.at.manager.update(
      PrivateAddressEntity,
      { tab: 'tab1' },
      { expiresAt: new Date(Date.now() - 1) },
    )
    expect(await isThere(base)).toBe(false)
  })

  test('with the session that it was made in', async () => {
    const base = await make({ as: 'reviewer' })
    expect(await isThere(base)).toBe(true)
    const cookie = await server.cookieOf('reviewer')
    const tokenHash = hashOf(cookie.split('=')[1]!)
    const session = (await server.at.manager.findOneBy(SessionEntity, { tokenHash }))!
    await server.at.manager.update(SessionEntity, { tokenHash }, { expiresAt: new Date(Date.now() - 1) })
    expect(await isThere(base)).toBe(false)
    await server.at.manager.update(SessionEntity, { tokenHash }, { expiresAt: session.expiresAt })
    expect(await isThere(base)).toBe(true)
    await server.at.manager.delete(SessionEntity, { tokenHash })
    expect(await isThere(base)).toBe(false)
  })

  test('when its maker no longer works on the site', async () => {
    const base = await make()
    const [{ person_id: personId } = { person_id: '' }] = await server.services.db.query<
      { person_id: string }[]
    >('SELECT person_id FROM private_addresses')
    await server.services.db.query('DELETE FROM site_people WHERE person_id = ?', [personId])
    expect(await isThere(base)).toBe(false)
    await server.services.db.query('INSERT INTO site_people (site_id, person_id) VALUES (?, ?)', [
      'tarrowmoor',
      personId,
    ])
    expect(await isThere(base)).toBe(true)
  })
})

describe('who guesses', () => {
  test('is told the same as for an address that ended', async () => {
    const base = await make()
    await server.ask(`${PAGES}/tmvisit/private-address/tab1`, { method: 'DELETE', as: 'editor' })
    const ended = await look(base)
    const never = await look(`/${'A'.repeat(22)}/`)
    expect([ended.status, never.status]).toEqual([404, 404])
    expect(await never.text()).toBe(await ended.text())
    const short = await look('/short/')
    expect([short.status, await short.text()]).toEqual([404, await textOf(base)])
  })

  test('finds no token in the database', async () => {
    const token = (await make()).replaceAll('/', '')
    const rows = JSON.stringify(await server.services.db.query('SELECT * FROM private_addresses'))
    expect(rows).not.toContain(token)
    expect(rows).toContain(hashOf(token))
  })
})

test('a person has so many addresses at once and no more; none is made for a page of another site', async () => {
  for (let i = 0; i < 20; i++) await make({ tab: `many${i}` })
  const { status, body } = await server.ask(`${PAGES}/tmvisit/private-address/many20`, {
    method: 'POST',
    body: {},
    as: 'editor',
  })
  expect([status, body.code]).toEqual([503, 'busy'])
  // The same tab may have another, and another person as well.
  await make({ tab: 'many3' })
  await make({ tab: 'many20', as: 'keeper' })
  const other = await beginSite(server.services)
  const foreign = await server.ask(`/api/sites/${other.siteId}/pages/tmvisit/private-address/tab1`, {
    method: 'POST',
    body: {},
  })
  expect([foreign.status, foreign.body.code]).toEqual([404, 'not-found'])
})

test('addresses name this machine alone, unless the start command was told to share them', () => {
  expect(deviceOrigins({ port: 4184, isShared: false, origin: undefined })).toEqual(['http://localhost:4184'])
  expect(deviceOrigins({ port: 4184, isShared: true, origin: 'https://look.example' })).toEqual([
    'https://look.example',
  ])
  for (const origin of deviceOrigins({ port: 4184, isShared: true, origin: undefined }))
    expect(new URL(origin).hostname).not.toMatch(/^127\./)
})
