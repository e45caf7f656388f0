/** The real application for figures that need it: its own MariaDB, production build, sample site and a large page. */
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { withSettings, type Page, type PageDocument } from '@gullyline/core'
import { startMariadb } from '../scripts/lib/mariadb.mjs'
import { freePort } from '../scripts/lib/ports.mjs'
import { startServer } from '../scripts/lib/server.mjs'
import { pageOf } from './thousand-nodes.ts'

export interface MadePage {
  readonly id: string
  readonly path: string
}

export interface Application {
  readonly editor: string
  readonly site: string
  /** A session of the keeper, as a Cookie header. */
  readonly cookie: string
  /** Makes a page of so many blocks, saved and published: each figure has its own, since edits of one are offered to the next. */
  makePage(blocks: number, make?: (blocks: number) => Page): Promise<MadePage>
  readonly serverPid: number
  readonly databaseUrl: string
  stop(): Promise<void>
}

export async function startApplication(): Promise<Application> {
  const home = await mkdtemp(join(tmpdir(), 'gullyline-bench-'))
  const [databasePort, editorPort, sitePort, devicePort] = [
    await freePort(),
    await freePort(),
    await freePort(),
    await freePort(),
  ]
  const database = await startMariadb(join(home, 'database'), databasePort)
  const server = startServer({
    GULLYLINE_DATABASE_URL: database.url,
    GULLYLINE_DATA: home,
    GULLYLINE_PICTURE_EFFORT: '0',
    GULLYLINE_EDITOR_PORT: String(editorPort),
    GULLYLINE_SITE_PORT: String(sitePort),
    GULLYLINE_DEVICE_PORT: String(devicePort),
    GULLYLINE_SWEEP: 'no',
    GULLYLINE_WEB_DIR: join(import.meta.dirname, '../web/dist'),
  })
  await server.ready
  const editor = `http://127.0.0.1:${editorPort}`
  const cookie = await signIn(editor, home)
  return {
    editor,
    site: `http://localhost:${sitePort}`,
    cookie,
    makePage: (blocks, make = pageOf) => makePage(editor, cookie, blocks, make),
    serverPid: server.pid,
    databaseUrl: database.url,
    stop: async () => {
      await server.stop()
      await database.stop()
      await rm(home, { recursive: true, force: true })
    },
  }
}

async function signIn(editor: string, home: string): Promise<string> {
  const accounts = JSON.parse(await readFile(join(home, 'demo-accounts.json'), 'utf8')) as {
    role: string
    login: string
    password: string
  }[]
  const { login, password } = accounts.find((one) => one.role === 'keeper')!
  const answer = await fetch(`${editor}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login, password }),
  })
  return answer.headers.get('set-cookie')!.split(';')[0]!
}

async function makePage(
  editor: string,
  cookie: string,
  count: number,
  make: (blocks: number) => Page,
): Promise<MadePage> {
  const ask = async (path: string, method: string, body: unknown): Promise<unknown> => {
    const headers = { 'content-type': 'application/json', cookie }
    const answer = await fetch(editor + path, { method, headers, body: JSON.stringify(body) })
    if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`)
    return answer.json()
  }
  const made = (await ask('/api/sites/tarrowmoor/pages', 'POST', {
    title: `Of ${count} blocks`,
    parentId: null,
  })) as PageDocument
  const { id, version, path } = made.summary
  const document = withSettings(make(count), { title: `Of ${count} blocks` })
  await ask(`/api/sites/tarrowmoor/pages/${id}/document`, 'PUT', { base: version, document, journal: null })
  await ask(`/api/sites/tarrowmoor/pages/${id}/publish`, 'POST', { version: version + 1 })
  return { id, path }
}
