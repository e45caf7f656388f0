/** Two servers, each a process of its own, started at the same moment on one empty database and one data folder. */
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Account, PageDocument, PageSummary, PublishResult } from '@gullyline/core'
import { startMariadb, type Database } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'
import { startServer, type RunningServer } from '../../scripts/lib/server.mjs'
import { openDatabase } from '../src/db/data-source.ts'
import { addPerson } from '../src/people/store.ts'

const PASSWORD = 'nine herons on a wire'
const ROUNDS = 20
const AT_ONCE = 200

let home: string
let database: Database
let servers: readonly RunningServer[]
let ports: readonly number[]
let liveOrigin: string
let cookie: string
let site: string

beforeAll(async () => {
  home = await mkdtemp(join(tmpdir(), 'gullyline-servers-'))
  database = await startMariadb(join(home, 'database'), await freePort())
  ports = [await freePort(), await freePort()]
  const sitePorts = [await freePort(), await freePort()]
  const devicePorts = [await freePort(), await freePort()]
  liveOrigin = `http://localhost:${sitePorts[0]}`
  servers = ports.map((port, i) =>
    startServer({
      GULLYLINE_DATABASE_URL: database.url,
      GULLYLINE_DATA: home,
      GULLYLINE_DEMO: 'no',
      GULLYLINE_EDITOR_PORT: String(port),
      GULLYLINE_SITE_PORT: String(sitePorts[i]),
      GULLYLINE_DEVICE_PORT: String(devicePorts[i]),
      GULLYLINE_SWEEP: 'no',
      GULLYLINE_SITE_ORIGIN: liveOrigin,
    }),
  )
  await Promise.all(servers.map(({ ready }) => ready))
  const db = await openDatabase(database.url)
  for (const login of ['first', 'second'])
    await addPerson(db.manager, { login, name: login, role: 'keeper', password: PASSWORD })
  await db.destroy()
  const signedIn = await signIn(0, 'first')
  cookie = signedIn.cookie
  site = `/api/sites/${signedIn.account.sites[0]!.id}`
})

afterAll(async () => {
  await Promise.all(servers.map((server) => server.stop()))
  await database.stop()
  await rm(home, { recursive: true, force: true })
})

async function signIn(at: number, login: string, password = PASSWORD) {
  const answer = await fetch(`http://127.0.0.1:${ports[at]}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login, password }),
  })
  const account = (await answer.json()) as Account
  return { status: answer.status, account, cookie: answer.headers.get('set-cookie')?.split(';')[0] ?? '' }
}

interface Asking {
  readonly method?: string
  readonly body?: unknown
  readonly headers?: Readonly<Record<string, string>>
}

/** Asks one of the two. */
function ask(at: number, path: string, { method = 'GET', body, headers = {} }: Asking = {}) {
  return fetch(`http://127.0.0.1:${ports[at]}${path}`, {
    method,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
}

async function addPage(at: number, title: string): Promise<PageSummary> {
  const answer = await ask(at, `${site}/pages`, { method: 'POST', body: { title, parentId: null } })
  return ((await answer.json()) as PageDocument).summary
}

test('one of them makes the site, and the other finds it', async () => {
  for (const at of [0, 1]) {
    const { account } = await signIn(at, 'second')
    expect(account.sites.map(({ name }) => name)).toEqual(['New site'])
    const pages = (await (await ask(at, `${site}/pages`)).json()) as PageSummary[]
    expect(pages.map(({ path }) => path)).toEqual(['/', '/404/'])
  }
})

test('what is saved at one is what the other answers next, with another tag', async () => {
  const { id } = await addPage(0, 'Seen at once')
  const path = `${site}/pages/${id}`
  for (let round = 0; round < ROUNDS; round++) {
    const [writer, reader] = round % 2 === 0 ? [0, 1] : [1, 0]
    const before = await ask(reader, path)
    const headers = { 'if-none-match': before.headers.get('etag')! }
    expect((await ask(reader, path, { headers })).status).toBe(304)
    const title = `Round ${round}`
    expect((await ask(writer, path, { method: 'PATCH', body: { title } })).status).toBe(200)
    const after = await ask(reader, path, { headers })
    expect([after.status, ((await after.json()) as PageDocument).summary.title]).toEqual([200, title])
  }
})

test('of publishes at once, one through each, both go live', async () => {
  const pages = [await addPage(0, 'Left'), await addPage(1, 'Right')]
  for (let round = 0; round < AT_ONCE; round++) {
    const titles = await Promise.all(
      pages.map(async ({ id }, at) => {
        const title = `${at} of ${round}`
        const saved = await ask(at, `${site}/pages/${id}`, { method: 'PATCH', body: { title } })
        const { version } = (await saved.json()) as PageSummary
        const published = await ask(at, `${site}/pages/${id}/publish`, { method: 'POST', body: { version } })
        expect(published.status).toBe(200)
        return { title, url: ((await published.json()) as PublishResult).url }
      }),
    )
    for (const { title, url } of titles) expect(await (await fetch(url)).text()).toContain(`<title>${title}`)
  }
})

test('whoever signs out at one is out at the other at once', async () => {
  const own = (await signIn(0, 'second')).cookie
  for (let round = 0; round < 3; round++)
    expect((await ask(1, '/api/session', { headers: { cookie: own } })).status).toBe(200)
  await ask(0, '/api/session', { method: 'DELETE', headers: { cookie: own } })
  expect((await ask(1, '/api/session', { headers: { cookie: own } })).status).toBe(401)
})

test('who is on a page is known wherever they listen, and told of what is done through the other', async () => {
  const { id } = await addPage(0, 'Two on it')
  const listening = new AbortController()
  const stream = await fetch(`http://127.0.0.1:${ports[0]}/api/presence/browsera`, {
    headers: { cookie },
    signal: listening.signal,
  })
  const reader = stream.body!.getReader()
  let heard = ''
  const hear = async (words: string): Promise<void> => {
    while (!heard.includes(words))
      heard += new TextDecoder().decode((await reader.read()).value as Uint8Array | undefined)
  }
  await hear('event: connected')
  const tabs = [{ tab: 'taba', pageId: id }]
  expect((await ask(1, '/api/presence/browsera', { method: 'PUT', body: { tabs } })).status).toBe(200)
  await hear('"tab":"taba"')
  await ask(1, `${site}/pages/${id}`, { method: 'PATCH', body: { title: 'Saved at the other' } })
  await hear('event: saved')
  listening.abort()
})

test('wrong passwords at one count at the other', async () => {
  const statuses: number[] = []
  for (let i = 0; i < 7; i++) statuses.push((await signIn(i % 2, 'second', `wrong ${i}`)).status)
  expect(statuses).toEqual([401, 401, 401, 401, 401, 429, 429])
})
