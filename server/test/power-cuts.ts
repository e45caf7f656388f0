/** Power cuts: writers that save pages all the time, something that is killed meanwhile, and what must be there after. */
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdir, mkdtemp, readFile, rm } from 'node:fs/promises'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect } from '@jest/globals'
import {
  defaultRegistry,
  validatePage,
  type Page,
  type PageDocument,
  type PageSummary,
} from '@gullyline/core'
import { startMariadb, type Database } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'
import { copySampleHome } from '../../scripts/lib/sample-home.mjs'
import { startServer, type RunningServer } from '../../scripts/lib/server.mjs'

/** Saves under way at any moment, each by a writer with a page of its own. */
const PAGES = ['tmhome', 'tmvisit', 'tmabout', 'tmquestions'] as const

/** The longest that a round waits for a first save. */
const MOST_WAIT_MS = 10_000

/** Runs a command that sees disks of its own (unshare(1)); not every machine lets everybody do so. */
const OWN_DISKS = ['unshare', '--map-root-user', '--mount']

export function canHaveOwnDisks(): boolean {
  return spawnSync(OWN_DISKS[0]!, [...OWN_DISKS.slice(1), 'true']).status === 0
}

/** A server and a MariaDB of their own, each of which can be killed and started again; a site keeper is signed in. */
export class Machine {
  #home!: string
  #ports!: Readonly<Record<'database' | 'editor' | 'site' | 'devices', number>>
  #database!: Database
  #server!: RunningServer
  #cookie = ''

  #data!: string
  #diskBytes = 0

  /** With `diskBytes` the server's data folder is a disk of its own of that size; the database stands elsewhere. */
  async start({ diskBytes = 0 }: { readonly diskBytes?: number } = {}): Promise<void> {
    this.#diskBytes = diskBytes
    this.#home = await mkdtemp(join(tmpdir(), 'gullyline-faults-'))
    this.#data = diskBytes > 0 ? join(this.#home, 'data') : this.#home
    if (diskBytes > 0) await mkdir(this.#data)
    await copySampleHome(this.#home)
    this.#ports = {
      database: await freePort(),
      editor: await freePort(),
      site: await freePort(),
      devices: await freePort(),
    }
    this.#database = await startMariadb(join(this.#home, 'database'), this.#ports.database)
    await this.#startServer()
    const accounts = JSON.parse(await readFile(join(this.dataFolder, 'demo-accounts.json'), 'utf8')) as {
      login: string
      password: string
      role: string
    }[]
    const { login, password } = accounts.find((one) => one.role === 'keeper')!
    const answer = await this.ask('/api/session', 'POST', { login, password })
    this.#cookie = answer.headers.get('set-cookie')!.split(';')[0]!
  }

  async stop(): Promise<void> {
    await this.#server.stop()
    await this.#database.stop()
    await rm(this.#home, { recursive: true, force: true })
  }

  async killServer(): Promise<void> {
    await this.#server.kill()
    await this.#startServer()
  }

  /** The server notices by itself that its connections are dead, and makes new ones. */
  async killDatabase(): Promise<void> {
    process.kill(this.#database.pid, 'SIGKILL')
    await this.#database.ended
    this.#database = await startMariadb(join(this.#home, 'database'), this.#ports.database)
  }

  /** Sends the first part of a body, and gives how to send the rest and get the answer. */
  async sendInTwo(path: string, method: string, body: string): Promise<() => Promise<Response>> {
    const bytes = Buffer.from(body)
    const sent = request({
      host: '127.0.0.1',
      port: this.#ports.editor,
      path,
      method,
      headers: {
        cookie: this.#cookie,
        'content-type': 'application/json',
        'content-length': bytes.length,
      },
    })
    const answer = new Promise<Response>((resolve, reject) => {
      sent.on('error', reject)
      sent.on('response', (got) => {
        let text = ''
        got.setEncoding('utf8')
        got.on('data', (part: string) => (text += part))
        got.on('end', () => resolve(new Response(text, { status: got.statusCode ?? 0 })))
      })
    })
    answer.catch(() => undefined)
    const half = Math.floor(bytes.length / 2)
    await new Promise<void>((resolve) => sent.write(bytes.subarray(0, half), () => resolve()))
    return () => {
      sent.end(bytes.subarray(half))
      return answer
    }
  }

  get sitePort(): number {
    return this.#ports.site
  }

  ask(path: string, method = 'GET', body?: unknown): Promise<Response> {
    return fetch(`http://127.0.0.1:${this.#ports.editor}${path}`, {
      method,
      headers: {
        cookie: this.#cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
  }

  /** The server's data folder as the server sees it. */
  get dataFolder(): string {
    return this.#diskBytes > 0 ? `/proc/${this.serverPid}/root${this.#data}` : this.#data
  }

  /** Asks the server to stop, as `npm start` does, and waits until it has. */
  async stopServer(): Promise<void> {
    await this.#server.stop()
  }

  async startServerAgain(): Promise<void> {
    await this.#startServer()
  }

  /** From now on these folders of the data folder can be read alone. */
  makeReadOnly(...folders: readonly string[]): void {
    const own = ['-t', String(this.serverPid), '--user', '--mount', '--preserve-credentials', 'mount']
    for (const folder of folders.map((one) => join(this.#data, one))) {
      execFileSync('nsenter', [...own, '--bind', folder, folder])
      execFileSync('nsenter', [...own, '-o', 'remount,bind,ro', folder])
    }
  }

  get serverPid(): number {
    return this.#server.pid
  }

  /** Sends a body as it stands. */
  send(path: string, method: string, body: string): Promise<Response> {
    return this.#fetch(path, method, body, { cookie: this.#cookie, 'content-type': 'application/json' })
  }

  /** The same without being signed in. */
  unsigned(path: string, method: string, body: string): Promise<Response> {
    return this.#fetch(path, method, body, { 'content-type': 'application/json' })
  }

  upload(path: string, bytes: Buffer): Promise<Response> {
    return this.#fetch(path, 'POST', bytes, {
      cookie: this.#cookie,
      'content-type': 'application/octet-stream',
    })
  }

  /**
   * Begins to send a body, and gives how it is answered before the rest is sent. What comes is the server's answer to the
   * head of the request alone, or the end of the connection, which is status 0.
   */
  begin(
    path: string,
    {
      type,
      bytes,
      isSignedIn,
    }: { readonly type: string; readonly bytes: number; readonly isSignedIn: boolean },
  ): Promise<Response> {
    return new Promise((resolve) => {
      const sent = request(
        {
          host: '127.0.0.1',
          port: this.#ports.editor,
          path,
          method: 'POST',
          headers: {
            'content-type': type,
            'content-length': bytes,
            ...(isSignedIn ? { cookie: this.#cookie } : {}),
          },
        },
        (answer) => {
          let text = ''
          answer.setEncoding('utf8')
          answer.on('data', (part: string) => (text += part))
          answer.on('end', () => {
            sent.destroy()
            resolve(new Response(text, { status: answer.statusCode ?? 0 }))
          })
        },
      )
      sent.on('error', () => resolve(Response.error()))
      sent.write(Buffer.alloc(64 * 1024, 0x20))
    })
  }

  #fetch(
    path: string,
    method: string,
    body: string | Buffer,
    headers: Readonly<Record<string, string>>,
  ): Promise<Response> {
    return fetch(`http://127.0.0.1:${this.#ports.editor}${path}`, { method, headers, body })
  }

  async open(id: string): Promise<PageDocument> {
    const answer = await this.ask(`/api/sites/tarrowmoor/pages/${id}`)
    // While the database is away, the server says so, which is no page.
    if (!answer.ok) throw new Error(`${id} could not be opened: ${await answer.text()}`)
    return answer.json() as Promise<PageDocument>
  }

  async #startServer(): Promise<void> {
    // A disk of its own begins empty: what stands beside it comes to it, but for the database.
    const disk = `cd "${this.#home}" && mount -t tmpfs -o size=${this.#diskBytes},mode=700 tmpfs data &&
      for one in *; do case $one in data | database) ;; *) cp -a "$one" data ;; esac; done && exec "$@"`
    const within = this.#diskBytes > 0 ? [...OWN_DISKS, 'sh', '-c', disk, 'sh'] : []
    this.#server = startServer(
      {
        GULLYLINE_DATABASE_URL: this.#database.url,
        GULLYLINE_DATA: this.#data,
        GULLYLINE_PICTURE_EFFORT: '0',
        GULLYLINE_EDITOR_PORT: String(this.#ports.editor),
        GULLYLINE_SITE_PORT: String(this.#ports.site),
        GULLYLINE_DEVICE_PORT: String(this.#ports.devices),
        GULLYLINE_SWEEP: 'no',
        GULLYLINE_LOG: this.#diskBytes > 0 ? 'info' : 'silent',
      },
      { within },
    )
    await this.#server.ready
  }
}

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
async function keepSaving(machine: Machine, id: string, told: Told, isOver: () => boolean): Promise<void> {
  const opened = await machine.open(id).catch(() => undefined)
  if (!opened) return
  let { document, summary } = opened
  for (let n = 0; !isOver(); n++) {
    const words = `${id} ${summary.version + 1} ${n} ${'x'.repeat((n * 7919) % 20_000)}`.slice(0, 190)
    const next = withName(document, words)
    told.asked.set(summary.version + 1, words)
    try {
      const body = { base: summary.version, document: next, journal: null }
      const answer = await machine.ask(`/api/sites/tarrowmoor/pages/${id}/document`, 'PUT', body)
      if (answer.status !== 200) return
      summary = (await answer.json()) as PageSummary
      document = next
      told.acknowledged = { version: summary.version, words }
    } catch {
      return
    }
  }
}

async function assertNothingLost(machine: Machine, told: ReadonlyMap<string, Told>): Promise<void> {
  for (const [id, { acknowledged, asked }] of told) {
    const { document, summary } = await machine.open(id)
    expect(validatePage(document, defaultRegistry)).toEqual([])
    // What was answered is there; one more may be, whose answer was cut off, and then it is whole.
    expect(summary.version).toBeGreaterThanOrEqual(acknowledged.version)
    expect(summary.version).toBeLessThanOrEqual(acknowledged.version + 1)
    if (acknowledged.version > 1) {
      const kept = (await (
        await machine.ask(`/api/sites/tarrowmoor/pages/${id}/versions/${acknowledged.version}`)
      ).json()) as Page
      expect(nameIn(kept)).toBe(acknowledged.words)
    }
    if (asked.has(summary.version)) expect(nameIn(document)).toBe(asked.get(summary.version))
    told.get(id)!.acknowledged = { version: summary.version, words: nameIn(document) }
  }
}

/** Kills `kills` times while every page is saved, and looks after each what is there. Gives how many saves went through. */
export async function saveWhileKilling(
  machine: Machine,
  kills: number,
  kill: () => Promise<void>,
): Promise<number> {
  const told = new Map<string, Told>()
  for (const id of PAGES) {
    const { document, summary } = await machine.open(id)
    told.set(id, { acknowledged: { version: summary.version, words: nameIn(document) }, asked: new Map() })
  }
  const savedSoFar = () => [...told.values()].reduce((sum, one) => sum + one.acknowledged.version, 0)
  const before = savedSoFar()
  for (let round = 0; round < kills; round++) {
    let isOver = false
    const soFar = savedSoFar()
    const writers = PAGES.map((id) => keepSaving(machine, id, told.get(id)!, () => isOver))
    // At another moment each time, so that every step of a save is hit.
    await new Promise((resolve) => setTimeout(resolve, 40 + ((round * 37) % 110)))
    // On a slow machine, once something was saved at all: kills between which nothing is saved try nothing.
    for (const until = Date.now() + MOST_WAIT_MS; savedSoFar() === soFar && Date.now() < until;)
      await new Promise((resolve) => setTimeout(resolve, 5))
    await kill()
    isOver = true
    await Promise.all(writers)
    await assertNothingLost(machine, told)
  }
  return savedSoFar() - before
}
