/** Power cuts: the server and the database are killed again and again while pages are saved. */
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import {
  defaultRegistry,
  validatePage,
  type Page,
  type PageDocument,
  type PageSummary,
} from '@gullyline/core'
import { startMariadb, type Database } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'
import { startServer, type RunningServer } from '../../scripts/lib/server.mjs'

const SERVER_KILLS = 50
const DATABASE_KILLS = 20
/** Saves under way at any moment, each by a writer with a page of its own. */
const PAGES = ['tmhome', 'tmvisit', 'tmabout', 'tmquestions'] as const

let home: string
let ports: { database: number; editor: number; site: number }
let database: Database
let server: RunningServer
let cookie: string

const startAll = async (): Promise<void> => {
  database = await startMariadb(join(home, 'database'), ports.database)
  await startOurs()
}
const startOurs = async (): Promise<void> => {
  server = startServer({
    GULLYLINE_DATABASE_URL: database.url,
    GULLYLINE_DATA: home,
    GULLYLINE_PICTURE_EFFORT: '0',
    GULLYLINE_EDITOR_PORT: String(ports.editor),
    GULLYLINE_SITE_PORT: String(ports.site),
    GULLYLINE_LOG: 'silent',
  })
  await server.ready
}
const ask = async (path: string, method = 'GET', body?: unknown): Promise<Response> =>
  fetch(`http://127.0.0.1:${ports.editor}${path}`, {
    method,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
const open = async (id: string): Promise<PageDocument> =>
  (await ask(`/api/pages/${id}`)).json() as Promise<PageDocument>

beforeAll(async () => {
  home = await mkdtemp(join(tmpdir(), 'gullyline-faults-'))
  ports = { database: await freePort(), editor: await freePort(), site: await freePort() }
  await startAll()
  const accounts = JSON.parse(await readFile(join(home, 'demo-accounts.json'), 'utf8')) as {
    login: string
    password: string
    role: string
  }[]
  const { login, password } = accounts.find((one) => one.role === 'keeper')!
  cookie = ''
  const answer = await ask('/api/session', 'POST', { login, password })
  cookie = answer.headers.get('set-cookie')!.split(';')[0]!
}, 180_000)
afterAll(async () => {
  await server.stop()
  await database.stop()
  await rm(home, { recursive: true, force: true })
})

/** The newest save of a page that was answered with success, and what may have been saved without an answer. */
interface Told {
  acknowledged: { version: number; words: string }
  asked: Map<number, string>
}

function withName(page: Page, words: string): Page {
  const id = page.nodes[page.root]!.slots.sections![0]!
  return { ...page, nodes: { ...page.nodes, [id]: { ...page.nodes[id]!, name: words } } }
}
const nameIn = (page: Page): string => page.nodes[page.nodes[page.root]!.slots.sections![0]!]!.name ?? ''

/** Saves one page over and over until told to stop; when nobody answers, it goes on from what the page turns out to be. */
async function keepSaving(id: string, told: Told, isOver: () => boolean): Promise<void> {
  const opened = await open(id).catch(() => undefined)
  if (!opened) return
  let { document, summary } = opened
  for (let n = 0; !isOver(); n++) {
    const words = `${id} ${summary.version + 1} ${n} ${'x'.repeat((n * 7919) % 20_000)}`.slice(0, 190)
    const next = withName(document, words)
    told.asked.set(summary.version + 1, words)
    try {
      const body = { base: summary.version, document: next, journal: null }
      const answer = await ask(`/api/pages/${id}/document`, 'PUT', body)
      if (answer.status !== 200) return
      summary = (await answer.json()) as PageSummary
      document = next
      told.acknowledged = { version: summary.version, words }
    } catch {
      return
    }
  }
}

async function assertNothingLost(told: ReadonlyMap<string, Told>): Promise<void> {
  for (const [id, { acknowledged, asked }] of told) {
    const { document, summary } = await open(id)
    expect(validatePage(document, defaultRegistry)).toEqual([])
    // What was answered is there; one more may be, whose answer was cut off, and then it is whole.
    expect(summary.version).toBeGreaterThanOrEqual(acknowledged.version)
    expect(summary.version).toBeLessThanOrEqual(acknowledged.version + 1)
    if (acknowledged.version > 1) {
      const kept = (await (await ask(`/api/pages/${id}/versions/${acknowledged.version}`)).json()) as Page
      expect(nameIn(kept)).toBe(acknowledged.words)
    }
    if (asked.has(summary.version)) expect(nameIn(document)).toBe(asked.get(summary.version))
    told.get(id)!.acknowledged = { version: summary.version, words: nameIn(document) }
  }
}

async function run(kills: number, kill: () => Promise<void>): Promise<number> {
  const told = new Map<string, Told>()
  for (const id of PAGES) {
    const { document, summary } = await open(id)
    told.set(id, { acknowledged: { version: summary.version, words: nameIn(document) }, asked: new Map() })
  }
  const before = [...told.values()].reduce((sum, one) => sum + one.acknowledged.version, 0)
  for (let round = 0; round < kills; round++) {
    let isOver = false
    const writers = PAGES.map((id) => keepSaving(id, told.get(id)!, () => isOver))
    // At another moment each time, so that every step of a save is hit.
    await new Promise((resolve) => setTimeout(resolve, 40 + ((round * 37) % 110)))
    await kill()
    isOver = true
    await Promise.all(writers)
    await assertNothingLost(told)
  }
  return [...told.values()].reduce((sum, one) => sum + one.acknowledged.version, 0) - before
}

test(`${SERVER_KILLS} kills of the server during saves lose no save that was answered, and leave no half-written page`, async () => {
  const saved = await run(SERVER_KILLS, async () => {
    await server.kill()
    await startOurs()
  })
  // How many there are is the machine’s to say; that there were many, between kills, is what the test needs.
  expect(saved).toBeGreaterThan(SERVER_KILLS / 3)
}, 300_000)

test(`${DATABASE_KILLS} kills of MariaDB during saves lose no save that was answered, and leave no half-written page`, async () => {
  const saved = await run(DATABASE_KILLS, async () => {
    process.kill(database.pid, 'SIGKILL')
    await database.ended
    // The server notices by itself that its connections are dead, and makes new ones.
    database = await startMariadb(join(home, 'database'), ports.database)
  })
  expect(saved).toBeGreaterThan(DATABASE_KILLS / 3)
}, 300_000)
