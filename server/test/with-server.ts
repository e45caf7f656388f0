/**
 * Two servers on one database and one data folder of their own, for tests: requests go to one and the other in turn, as
 * behind a proxy that spreads them. The test runner starts MariaDB and names it in GULLYLINE_TEST_DATABASE.
 */
import { randomBytes } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Hono } from 'hono'
import mysql from 'mysql2/promise'
import { pino } from 'pino'
import type { ErrorBody, PageDocument, PublishResult, Role } from '@gullyline/core'
import { copySampleFiles, SAMPLE_ORIGIN } from '../../scripts/lib/sample-home.mjs'
import { createEditorApp } from '../src/app.ts'
import { createSiteApp, type SiteApp } from '../src/visitors/site-app.ts'
import { allSites, type SiteData, type SiteScope } from '../src/db/site-scope.ts'
import { openDatabase } from '../src/db/data-source.ts'
import { beginSiteIfEmpty } from '../src/demo/load-demo.ts'
import { SESSION_COOKIE, type SignedIn } from '../src/people/access.ts'
import { completeSite } from '../src/sites/complete-site.ts'
import { listPeople } from '../src/people/store.ts'
import { closePools } from '../src/workers/pools.ts'
import { makeServices, type Services } from '../src/services.ts'

interface AskOptions {
  readonly method?: string
  readonly body?: unknown
  readonly headers?: Readonly<Record<string, string>>
  readonly as?: Role | 'nobody'
}

export interface TestServer {
  /** Of the first of the two servers. */
  readonly services: Services
  readonly scope: SiteScope
  /** Its data, outside of any transaction. */
  readonly at: SiteData
  /** The name of its database. */
  readonly database: string
  /** One server and the other, in turn. */
  readonly editor: Pick<Hono<SignedIn>, 'request'>
  readonly site: SiteApp
  /** Asks the editor's server as its own page would, signed in as the keeper unless told otherwise; gives the status and the JSON it answered. */
  ask<T>(path: string, options?: AskOptions): Promise<{ status: number; body: T & ErrorBody }>
  /** Publishes the newest version of a page, as the editor does after showing it. */
  publish<T = PublishResult>(pageId: string, as?: Role): Promise<{ status: number; body: T & ErrorBody }>
  /** To be called after something was written past the server. */
  changed(): Promise<void>
  /** The cookie of somebody of this role, signed in. */
  cookieOf(role: Role): Promise<string>
  close(): Promise<void>
}

/** Starts with the sample site loaded and published, or with a site that somebody has just begun. */
export async function startTestServer(site: 'sample' | 'begun' = 'sample'): Promise<TestServer> {
  const base = process.env.GULLYLINE_TEST_DATABASE
  if (!base) throw new Error('GULLYLINE_TEST_DATABASE is not set: run these tests with "npm test"')
  const name = `test_${randomBytes(6).toString('hex')}`
  const admin = await mysql.createConnection(base)
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`)
  const dataDir = await mkdtemp(join(tmpdir(), 'gullyline-test-'))
  if (site === 'sample') {
    await copySampleTables(admin, name)
    await copySampleFiles(dataDir)
  }
  const db = await openDatabase(base.replace(/\/[^/]*$/, `/${name}`))
  const given = {
    log: pino({ level: 'silent' }),
    dataDir,
    liveOrigin: SAMPLE_ORIGIN,
    pictureEffort: 0,
  }
  const services = makeServices({ ...given, db })
  await beginSiteIfEmpty(services)
  const [scope] = (await allSites(db)) as [SiteScope]
  const { siteId } = scope
  await completeSite(services, scope)
  const otherDb = await openDatabase(base.replace(/\/[^/]*$/, `/${name}`))
  const servers = [services, makeServices({ ...given, db: otherDb })].map((one) =>
    createEditorApp(one, undefined),
  )
  let turn = 0
  const editor: TestServer['editor'] = {
    request: (...request) => servers[turn++ % servers.length]!.request(...request),
  }
  const cookies = new Map<Role, Promise<string>>()
  const cookieOf = (role: Role): Promise<string> => {
    const known = cookies.get(role) ?? signIn(services, role)
    cookies.set(role, known)
    return known
  }
  const server: TestServer = {
    services,
    scope,
    at: { manager: db.manager, siteId },
    database: name,
    editor,
    site: createSiteApp({ ...services, siteId }),
    cookieOf,
    changed: () => scope.change(['pages', 'site'], () => Promise.resolve()),
    async ask(path, { method = 'GET', body, headers = {}, as = 'keeper' } = {}) {
      const cookie: Record<string, string> = as === 'nobody' ? {} : { cookie: await cookieOf(as) }
      const response = await editor.request(`http://127.0.0.1${path}`, {
        method,
        headers: {
          ...cookie,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      })
      return { status: response.status, body: (await response.json()) as never }
    },
    async publish(pageId, as = 'keeper') {
      const { body } = await server.ask<PageDocument>(`/api/sites/${siteId}/pages/${pageId}`, { as })
      const version = body.summary?.version ?? 1
      return server.ask(`/api/sites/${siteId}/pages/${pageId}/publish`, {
        method: 'POST',
        body: { version },
        as,
      })
    },
    async close() {
      await closePools()
      await db.destroy()
      await otherDb.destroy()
      await admin.query(`DROP DATABASE ${name}`)
      await admin.end()
      await rm(dataDir, { recursive: true, force: true })
    },
  }
  return server
}

async function signIn({ db, sessions }: Services, role: Role): Promise<string> {
  const person = (await listPeople(db.manager)).find((one) => one.role === role)
  if (!person) throw new Error(`The sample site has nobody with the role ${role}`)
  return `${SESSION_COOKIE}=${await sessions.start(person, undefined)}`
}

/**
 * Copies the sample site's database, which the test runner made by a first start, into another one: loading, translating
 * and publishing it anew for every file of tests would take most of their time.
 */
async function copySampleTables(admin: mysql.Connection, to: string): Promise<void> {
  await admin.query(`USE ${to}`)
  await admin.query('SET foreign_key_checks = 0')
  const [tables] = await admin.query<mysql.RowDataPacket[]>('SHOW TABLES FROM gullyline')
  for (const name of tables.map((row) => Object.values(row)[0] as string)) {
    const [[made]] = await admin.query<mysql.RowDataPacket[]>(`SHOW CREATE TABLE gullyline.\`${name}\``)
    await admin.query(made!['Create Table'] as string)
    await admin.query(`INSERT INTO \`${name}\` SELECT * FROM gullyline.\`${name}\``)
  }
}
