/** Backups: made while people save and publish, consistent, whole, and restored elsewhere to the last byte. */
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { chmod, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import mysql from 'mysql2/promise'
import type { Page, PageDocument, PageSummary } from '@gullyline/core'
import { startMariadb, type Database } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'
import { copySampleHome } from '../../scripts/lib/sample-home.mjs'
import { startServer, type RunningServer } from '../../scripts/lib/server.mjs'

const root = join(import.meta.dirname, '../..')

let folder = ''
let home = ''
let database: Database
let server: RunningServer
let ports: Readonly<Record<'editor' | 'site' | 'devices' | 'database', number>>
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'gullyline-backup-'))
  home = join(folder, 'home')
  // The database's user has to get to its folder.
  await chmod(folder, 0o711)
  await mkdir(home)
  await copySampleHome(home)
  ports = {
    editor: await freePort(),
    site: await freePort(),
    devices: await freePort(),
    database: await freePort(),
  }
  database = await startMariadb(join(home, 'database'), ports.database)
  server = await serve(home, database.url)
})
afterAll(async () => {
  await server.stop()
  await database.stop()
  await rm(folder, { recursive: true, force: true })
})

async function serve(data: string, url: string): Promise<RunningServer> {
  const started = startServer({
    GULLYLINE_DATABASE_URL: url,
    GULLYLINE_DATA: data,
    GULLYLINE_PICTURE_EFFORT: '0',
    GULLYLINE_EDITOR_PORT: String(ports.editor),
    GULLYLINE_SITE_PORT: String(ports.site),
    GULLYLINE_DEVICE_PORT: String(ports.devices),
    GULLYLINE_SWEEP: 'no',
  })
  await started.ready
  return started
}

/** Runs one of the two commands. */
function command(name: 'backup' | 'restore', file: string, data: string, free = false) {
  return new Promise<{ code: number | null; said: string }>((resolve) => {
    const other = free ? ['40181', '40182'] : [String(ports.editor), String(ports.database)]
    const child = spawn(process.execPath, [join(root, `scripts/${name}.mjs`), file], {
      env: {
        ...process.env,
        INIT_CWD: folder,
        GULLYLINE_DATA: data,
        GULLYLINE_EDITOR_PORT: other[0],
        GULLYLINE_DB_PORT: other[1],
      },
    })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += String(part)))
    child.once('close', (code) => resolve({ code, said }))
  })
}

const editor = () => `http://127.0.0.1:${ports.editor}`

async function signIn(): Promise<string> {
  const accounts = JSON.parse(await readFile(join(home, 'demo-accounts.json'), 'utf8')) as {
    login: string
    role: string
    password: string
  }[]
  const { login, password } = accounts.find(({ role }) => role === 'keeper')!
  const answer = await fetch(`${editor()}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login, password }),
  })
  return answer.headers.get('set-cookie')!.split(';')[0]!
}

/** A digest of every table of a database, in the order of its rows. */
async function tablesOf(url: string): Promise<Record<string, string>> {
  const connection = await mysql.createConnection(url)
  const [tables] = await connection.query<mysql.RowDataPacket[]>('SHOW TABLES')
  const sums: Record<string, string> = {}
  for (const name of tables.map((row) => String(Object.values(row)[0]))) {
    const [rows] = await connection.query<mysql.RowDataPacket[]>(`SELECT * FROM \`${name}\``)
    const lines = rows.map((row) => JSON.stringify(row)).sort()
    sums[name] = createHash('sha256').update(lines.join('\n')).digest('hex')
  }
  await connection.end()
  return sums
}

/** A digest of every file of a data folder that is no database and no log. */
function filesOf(data: string): Record<string, string> {
  const names = readdirSync(data, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name).slice(data.length + 1))
    .filter((name) => !/^(database|log)\//.test(name))
    .sort()
  return Object.fromEntries(
    names.map((name) => [
      name,
      createHash('sha256')
        .update(readFileSync(join(data, name)))
        .digest('hex'),
    ]),
  )
}

test('a backup of a quiet installation is restored elsewhere with every row and every byte', async () => {
  const made = await command('backup', 'quiet.tgz', home)
  expect([made.code, made.said]).toEqual([0, expect.stringContaining('Everything is in')])
  // Nobody else on the machine may read it.
  expect(statSync(join(folder, 'quiet.tgz')).mode & 0o077).toBe(0)
  const before = [await tablesOf(database.url), filesOf(home)] as const
  const elsewhere = join(folder, 'elsewhere')
  const restored = await command('restore', 'quiet.tgz', elsewhere, true)
  expect([restored.code, restored.said]).toEqual([0, expect.stringContaining('Restored into')])
  const copy = await startMariadb(join(elsewhere, 'database'), await freePort())
  expect(await tablesOf(copy.url)).toEqual(before[0])
  await copy.stop()
  expect(filesOf(elsewhere)).toEqual(before[1])
  expect(readdirSync(folder).filter((name) => name.startsWith('.gullyline'))).toEqual([])
})

test('a backup made while people save and publish is one moment: it starts, and says of every page what was saved', async () => {
  const cookie = await signIn()
  const ask = async <T>(path: string, method = 'GET', body?: unknown) => {
    const answer = await fetch(editor() + path, {
      method,
      headers: { cookie, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return { status: answer.status, body: (await answer.json()) as T }
  }
  const saved = new Map<string, Map<number, Page>>()
  let isOver = false
  const work = async (id: string): Promise<void> => {
    const versions = new Map<number, Page>()
    saved.set(id, versions)
    for (let round = 0; !isOver; round++) {
      const { document, summary } = (await ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
      versions.set(summary.version, document)
      const root = document.nodes[document.root]!
      const content = { ...root.content, description: `Round ${round} of ${id}` }
      const next = { ...document, nodes: { ...document.nodes, [document.root]: { ...root, content } } }
      const { body } = await ask<PageSummary>(`/api/sites/tarrowmoor/pages/${id}/document`, 'PUT', {
        base: summary.version,
        document: next,
        journal: null,
      })
      versions.set(body.version, next)
      if (round % 3 === 0)
        await ask(`/api/sites/tarrowmoor/pages/${id}/publish`, 'POST', { version: body.version })
    }
  }
  const people = ['tmabout', 'tmvisit', 'tmnews'].map(work)
  const made = await command('backup', 'busy.tgz', home)
  isOver = true
  await Promise.all(people)
  expect(made.code).toBe(0)
  await server.stop()
  const elsewhere = join(folder, 'busy')
  expect((await command('restore', 'busy.tgz', elsewhere, true)).code).toBe(0)
  const copy = await startMariadb(join(elsewhere, 'database'), await freePort())
  server = await serve(elsewhere, copy.url)
  try {
    let compared = 0
    for (const [id, versions] of saved) {
      const { document, summary } = (await ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
      expect(document).toEqual(versions.get(summary.version))
      compared++
      const live = await fetch(`http://localhost:${ports.site}${summary.path}`)
      expect(live.status).toBe(200)
    }
    expect(compared).toBe(3)
  } finally {
    await server.stop()
    await copy.stop()
    server = await serve(home, database.url)
  }
})

test('what can’t be used is refused with a sentence, and nothing is changed', async () => {
  await writeFile(join(folder, 'letter.txt'), 'Dear all')
  const used = join(folder, 'elsewhere')
  const before = filesOf(used)
  for (const [name, file, data, free, words] of [
    ['backup', 'quiet.tgz', home, false, /is there already/],
    ['backup', 'no/such/folder.tgz', home, false, /There is no folder/],
    ['backup', 'other.tgz', join(folder, 'nothing'), false, /There is no database yet/],
    ['restore', 'nosuch.tgz', used, true, /There is no file/],
    ['restore', 'letter.txt', used, true, /can’t be read. Nothing was changed/],
    ['restore', 'quiet.tgz', home, false, /Gullyline is running/],
  ] as const) {
    const { code, said } = await command(name, file, data, free)
    expect([file, code, said]).toEqual([file, 1, expect.stringMatching(words)])
  }
  // A backup of which one byte is another.
  const opened = join(folder, 'opened')
  spawnSync('mkdir', [opened])
  spawnSync('tar', ['-xzf', join(folder, 'quiet.tgz'), '-C', opened])
  const robots = readdirSync(join(opened, 'fonts')).map((name) => join(opened, 'fonts', name))[0]!
  const bytes = readFileSync(robots)
  bytes[100] = bytes[100]! ^ 1
  await writeFile(robots, bytes)
  spawnSync('tar', ['-czf', join(folder, 'damaged.tgz'), '-C', opened, '.'])
  const damaged = await command('restore', 'damaged.tgz', used, true)
  expect([damaged.code, damaged.said]).toEqual([
    1,
    expect.stringMatching(/damaged, at fonts.*Nothing was changed/),
  ])
  expect(filesOf(used)).toEqual(before)
})

test.each([0, 300])(
  'a restore that is interrupted after %i ms of filling the database leaves no process and no folder',
  async (pause) => {
    const child = spawn(process.execPath, [join(root, 'scripts/restore.mjs'), 'quiet.tgz'], {
      env: {
        ...process.env,
        INIT_CWD: folder,
        GULLYLINE_DATA: join(folder, 'never'),
        GULLYLINE_EDITOR_PORT: '40181',
        GULLYLINE_DB_PORT: '40182',
      },
    })
    const ended = new Promise<number | null>((resolve) => child.once('close', resolve))
    child.stdout.on('data', (part) => {
      if (String(part).includes('Filling the database')) setTimeout(() => child.kill('SIGINT'), pause)
    })
    expect(await ended).not.toBe(0)
    const running = spawnSync('pgrep', ['-fa', 'mariadbd'], { encoding: 'utf8' }).stdout
    expect(running).not.toContain('.gullyline-restore-')
    expect(readdirSync(folder).filter((name) => /^(\.gullyline|never)/.test(name))).toEqual([])
  },
  60_000,
)

test('restoring over data moves what was there aside', async () => {
  const used = join(folder, 'elsewhere')
  await writeFile(join(used, 'mine.txt'), 'Mine')
  const restored = await command('restore', 'quiet.tgz', used, true)
  expect([restored.code, restored.said]).toEqual([0, expect.stringMatching(/What was there before is in/)])
  const aside = readdirSync(folder).find((name) => name.startsWith('elsewhere-before-'))!
  expect(readFileSync(join(folder, aside, 'mine.txt'), 'utf8')).toBe('Mine')
  expect(existsSync(join(used, 'mine.txt'))).toBe(false)
})
