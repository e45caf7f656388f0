/** What is written down of who comes in, and who is kept out although the password is right. */
import { execFileSync } from 'node:child_process'
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { pino } from 'pino'
import { createEditorApp } from '../src/app.ts'
import { addPerson } from '../src/people/store.ts'
import { Tries } from '../src/people/tries.ts'
import { makeServices } from '../src/services.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const PASSWORD = 'nine herons on a wire'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
  await addPerson(server.services.db.manager, {
    login: 'heron',
    name: 'Heron',
    role: 'reviewer',
    password: PASSWORD,
  })
})
afterAll(() => server.close())

/** The editor with a log of its own, and what was written to it. */
function withLog() {
  const lines: string[] = []
  const log = pino({ level: 'info' }, { write: (line: string) => void lines.push(line) })
  const app = createEditorApp(makeServices({ ...server.services, log }), undefined)
  const ask = (path: string, method: string, body: unknown, cookie = '') =>
    app.request(`http://127.0.0.1${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...(cookie ? { cookie } : {}) },
      body: JSON.stringify(body),
    })
  const events = () =>
    lines.map((line) => (JSON.parse(line) as { audit?: string }).audit).filter((one) => one !== undefined)
  return { ask, events, lines }
}

test('sign-ins, refusals, lockouts, refused access, publishes and other passwords are in the log, and no password is', async () => {
  const { ask, events, lines } = withLog()
  const signIn = (password: string) => ask('/api/session', 'POST', { login: 'heron', password })
  await signIn('a wrong one of many letters')
  const cookie = (await signIn(PASSWORD)).headers.get('set-cookie')!.split(';')[0]!
  expect(events()).toEqual(['sign-in refused', 'signed in'])
  await ask('/api/sites/tarrowmoor/pages', 'POST', { title: 'X', parentId: null, template: 'plain' }, cookie)
  expect(events().at(-1)).toBe('access refused')
  const { version } = (
    await server.ask<{ summary: { version: number } }>('/api/sites/tarrowmoor/pages/tmvisit')
  ).body.summary
  await ask('/api/sites/tarrowmoor/pages/tmvisit/publish', 'POST', { version }, cookie)
  expect(events().at(-1)).toBe('published')
  await ask('/api/sites/tarrowmoor/pages/tmvisit/publish', 'POST', { version: 9_999 }, cookie)
  expect(events().at(-1)).toBe('publish refused')
  await ask('/api/session/password', 'PUT', { present: PASSWORD, password: `${PASSWORD} too` }, cookie)
  expect(events().at(-1)).toBe('password changed')
  for (let i = 0; i < 6; i++) await signIn(`wrong number ${i} of many`)
  expect(events().at(-1)).toBe('sign-in locked')
  for (const words of [PASSWORD, 'a wrong one', 'wrong number', 'argon2'])
    expect(lines.join()).not.toContain(words)
})

test('what the command does to accounts is in the log of the data folder, and the password is not', async () => {
  const dataDir = await mkdtemp(join(tmpdir(), 'gullyline-accounts-'))
  const url = process.env.GULLYLINE_TEST_DATABASE!.replace(/\/[^/]*$/, `/${server.database}`)
  const run = (...args: string[]) =>
    execFileSync(process.execPath, [join(import.meta.dirname, '../dist/account-command.js'), ...args], {
      env: { ...process.env, GULLYLINE_DATABASE_URL: url, GULLYLINE_DATA: dataDir },
      input: PASSWORD,
      encoding: 'utf8',
      stdio: ['pipe', 'pipe', 'ignore'],
    })
  run('add', 'swift', '--role', 'reviewer')
  run('password', 'swift')
  run('remove', 'swift')
  expect(() => run('remove', 'swift')).toThrow()
  const log = await readFile(join(dataDir, 'log/gullyline.log'), 'utf8')
  const lines = log
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, string>)
  expect(lines.map(({ audit, login }) => [audit, login])).toEqual([
    ['account added', 'swift'],
    ['password changed', 'swift'],
    ['account removed', 'swift'],
  ])
  expect(lines[0]!.role).toBe('reviewer')
  expect(log).not.toContain(PASSWORD)
  await rm(dataDir, { recursive: true })
})

test('a name with line breaks makes no second line of the log', async () => {
  const { ask, lines } = withLog()
  await ask('/api/session', 'POST', { login: 'x\n{"audit":"signed in"}\n', password: 'y' })
  expect(lines).toHaveLength(1)
  expect((JSON.parse(lines[0]!) as { audit: string }).audit).toBe('sign-in refused')
})

test('a sample account gets in from the machine itself alone, until it has another password', async () => {
  await addPerson(server.services.db.manager, {
    login: 'tarn2',
    name: 'Tarn',
    role: 'keeper',
    password: PASSWORD,
  })
  const behindName = createEditorApp(
    makeServices({
      ...server.services,
      editorOrigin: 'https://edit.example',
      closedAccounts: { tarn2: PASSWORD },
    }),
    undefined,
  )
  const answer = await behindName.request('https://edit.example/api/session', {
    method: 'POST',
    headers: { host: 'edit.example', 'content-type': 'application/json', origin: 'https://edit.example' },
    body: JSON.stringify({ login: 'tarn2', password: PASSWORD }),
  })
  expect([answer.status, answer.headers.get('set-cookie')]).toEqual([403, null])
  expect(await answer.text()).toContain('npm run account')
})

test('an old address of the site leads on with the headers of every other answer', async () => {
  await server.ask('/api/sites/tarrowmoor/pages/tmvisit/place', {
    method: 'POST',
    body: { parentId: 'tmabout', position: 0 },
  })
  const moved = await server.site.request('http://localhost:1/visit/')
  const page = await server.site.request('http://localhost:1/about/visit/')
  expect([moved.status, page.status]).toEqual([301, 200])
  for (const name of ['content-security-policy', 'x-content-type-options', 'referrer-policy'])
    expect([name, moved.headers.get(name)]).toEqual([name, page.headers.get(name)])
  expect(moved.headers.get('x-content-type-options')).toBe('nosniff')
})

test('what is counted of tries is bounded: what no longer counts is removed', async () => {
  let now = Date.now()
  const { db } = server.services
  const tries = new Tries(db, () => now)
  for (let i = 0; i < 40; i++) await tries.begin(`made up ${i}`, `address ${i}`)
  const rows = async () =>
    Number((await db.query<{ n: number }[]>('SELECT COUNT(*) AS n FROM wrong_tries'))[0]!.n)
  expect(await rows()).toBeGreaterThanOrEqual(120)
  now += 16 * 60_000
  await tries.begin('x', 'a')
  // Three of the last try, and the row that tries lock while they count.
  expect(await rows()).toBe(4)
})
