/** `npm start` as a person runs it: what it refuses, what it starts again, and that nothing is left when it has ended. */
import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { createServer, type Server } from 'node:net'
import { networkInterfaces, tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { freePort } from '../../scripts/lib/ports.mjs'
import { startServer } from '../../scripts/lib/server.mjs'
import { SESSION_COOKIE } from '../src/people/access.ts'
import { startTestServer } from './with-server.ts'

const START = join(import.meta.dirname, '../../scripts/start.mjs')

let dataDir: string
let ports: Readonly<Record<'editor' | 'site' | 'devices' | 'database', number>>
beforeEach(async () => {
  dataDir = join(await mkdtemp(join(tmpdir(), 'gullyline-start-')), 'data')
  ports = {
    editor: await freePort(),
    site: await freePort(),
    devices: await freePort(),
    database: await freePort(),
  }
})
afterEach(() => rm(join(dataDir, '..'), { recursive: true, force: true }))

/** The start command, all that it said, and its end. */
class Start {
  readonly process: ChildProcess
  readonly ended: Promise<number | null>
  said = ''

  constructor(...args: readonly string[]) {
    this.process = spawn(process.execPath, [START, ...args], {
      env: {
        ...process.env,
        GULLYLINE_DATA: dataDir,
        GULLYLINE_EDITOR_PORT: String(ports.editor),
        GULLYLINE_SITE_PORT: String(ports.site),
        GULLYLINE_DEVICE_PORT: String(ports.devices),
        GULLYLINE_SWEEP: 'no',
        GULLYLINE_DB_PORT: String(ports.database),
        GULLYLINE_DEMO: 'no',
        GULLYLINE_QUIET: 'no',
      },
    })
    this.process.stdout!.on('data', (part) => (this.said += part))
    this.process.stderr!.on('data', (part) => (this.said += part))
    this.ended = new Promise((resolve) => this.process.once('exit', resolve))
  }

  /** Waits until it has said something, so many times. */
  async hasSaid(words: string, times = 1): Promise<void> {
    await until(() => this.said.split(words).length > times || this.process.exitCode !== null)
    if (this.said.split(words).length <= times) throw new Error(`It ended and had said:\n${this.said}`)
  }

  /** The process that it runs from this program. */
  runs(program: string): number {
    const found = descendants(this.process.pid!).find(({ command }) => command.includes(program))
    if (!found) throw new Error(`It does not run ${program}`)
    return found.pid
  }
}

async function until(isSo: () => boolean | Promise<boolean>): Promise<void> {
  for (const end = Date.now() + 60_000; !(await isSo());) {
    if (Date.now() > end) throw new Error('Waited for a minute, in vain')
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}

/** Every process that a process started, and those that they started (proc(5), /proc/pid/stat). */
function descendants(pid: number): { readonly pid: number; readonly command: string }[] {
  const all = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        // The command stands in brackets and may hold spaces; the parent is the second field after it.
        const parent = Number(readFileSync(`/proc/${name}/stat`, 'utf8').split(') ').at(-1)!.split(' ')[1])
        return [{ pid: Number(name), parent, command: readFileSync(`/proc/${name}/cmdline`, 'utf8') }]
      } catch {
        return []
      }
    })
  const below = (parent: number): { pid: number; command: string }[] =>
    all.filter((one) => one.parent === parent).flatMap((one) => [one, ...below(one.pid)])
  return below(pid)
}

const isRunning = (pid: number) => existsSync(`/proc/${pid}`)
/** Whether the editor knows a cookie of nobody for what it is, which it can only tell by asking the database. */
const answers = (port: number) =>
  fetch(`http://127.0.0.1:${port}/api/session`, {
    headers: { cookie: `${SESSION_COOKIE}=${'a'.repeat(43)}` },
  }).then(
    (answer) => answer.status === 401,
    () => false,
  )

function occupy(port: number): Promise<Server> {
  return new Promise((resolve) => {
    const server = createServer().listen(port, '127.0.0.1', () => resolve(server))
  })
}

test.each([
  ['editor', 'the editor', 'GULLYLINE_EDITOR_PORT'],
  ['site', 'the published site', 'GULLYLINE_SITE_PORT'],
  ['devices', 'private addresses', 'GULLYLINE_DEVICE_PORT'],
  ['database', 'MariaDB', 'GULLYLINE_DB_PORT'],
] as const)(
  'a taken port of the %s is told with what to set, and nothing is made',
  async (which, what, variable) => {
    const other = await occupy(ports[which])
    try {
      const start = new Start()
      expect(await start.ended).toBe(1)
      expect(start.said).toContain(
        `Port ${ports[which]}, wanted for ${what}, is taken. Stop what uses it, or set ${variable} to another port`,
      )
      expect(existsSync(dataDir)).toBe(false)
    } finally {
      other.close()
    }
  },
)

test('a port that is taken between the check and the start is told by the server, which ends', async () => {
  const other = await occupy(ports.site)
  const begun = await startTestServer('begun')
  try {
    const server = startServer({
      GULLYLINE_DATABASE_URL: process.env.GULLYLINE_TEST_DATABASE!.replace(/\/[^/]*$/, `/${begun.database}`),
      GULLYLINE_DATA: dataDir,
      GULLYLINE_EDITOR_PORT: String(ports.editor),
      GULLYLINE_SITE_PORT: String(ports.site),
      GULLYLINE_DEVICE_PORT: String(ports.devices),
      GULLYLINE_SWEEP: 'no',
      GULLYLINE_LOG: 'silent',
    })
    await expect(server.ready).rejects.toThrow(
      `Port ${ports.site} is taken. Stop what uses it, or set GULLYLINE_SITE_PORT to another port.`,
    )
    await server.ended
    expect(isRunning(server.pid)).toBe(false)
  } finally {
    other.close()
    await begun.close()
  }
})

/** The status of a request from another name of this machine, as other devices come; undefined where nobody listens there. */
async function statusFromOutside(port: number): Promise<number | undefined> {
  const addresses = Object.values(networkInterfaces()).flatMap((list) => list ?? [])
  const outside = addresses.find(({ family, internal }) => family === 'IPv4' && !internal)
  // Every address of 127/8 is this machine (RFC 1122, 3.2.1.3); one that nothing listens on by itself stands for outside.
  const host = outside?.address ?? '127.9.9.9'
  return fetch(`http://${host}:${port}/`).then(
    ({ status }) => status,
    () => undefined,
  )
}

test.each([
  ['this machine alone', [], undefined],
  ['other devices, where the command says so', ['--devices'], 404],
] as const)(
  'private addresses are reached by %s; all else stays on loopback',
  async (_who, args, status) => {
    const start = new Start(...args)
    try {
      await start.hasSaid('Gullyline is ready')
      expect((await fetch(`http://localhost:${ports.devices}/`)).status).toBe(404)
      expect(await statusFromOutside(ports.devices)).toBe(status)
      for (const which of ['editor', 'site', 'database'] as const)
        expect([which, await statusFromOutside(ports[which])]).toEqual([which, undefined])
    } finally {
      start.process.kill('SIGINT')
      await start.ended
    }
  },
  120_000,
)

test('a killed server and a killed database are started again, and an interrupt leaves nothing running', async () => {
  const start = new Start()
  await start.hasSaid('Gullyline is ready')
  const server = start.runs('server/dist/main.js')
  const database = start.runs('mariadbd')

  process.kill(server, 'SIGKILL')
  await start.hasSaid('The server ended by itself; starting it again')
  await until(() => answers(ports.editor))
  process.kill(database, 'SIGKILL')
  await start.hasSaid('MariaDB ended by itself; starting it again')
  await until(() => answers(ports.editor))

  const left = descendants(start.process.pid!)
  expect(left.map((one) => one.pid)).not.toContain(server)
  start.process.kill('SIGINT')
  expect(await start.ended).toBe(0)
  expect(left.filter((one) => isRunning(one.pid))).toEqual([])
  for (const port of Object.values(ports)) (await occupy(port)).close()
})
