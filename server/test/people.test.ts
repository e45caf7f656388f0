import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { execFileSync } from 'node:child_process'
import type { OpenSession, PageDocument, Person } from '@gullyline/core'
import { PersonEntity, SessionEntity } from '../src/db/rows.ts'
import { hashPassword, isPassword, passwordProblems } from '../src/people/password.ts'
import { Sessions } from '../src/people/sessions.ts'
import { addPerson, changePassword, listPeople, removePerson } from '../src/people/store.ts'
import { createEditorApp } from '../src/app.ts'
import { makeServices } from '../src/services.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const PASSWORD = 'nine herons on a wire'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
  await addPerson(server.services.db.manager, {
    login: 'Heron',
    name: 'Heron',
    role: 'editor',
    password: PASSWORD,
  })
})
afterAll(() => server.close())

const revisions = () => server.services.revisions.now()

async function signIn(login: string, password: string, cookie?: string) {
  const response = await server.editor.request('http://127.0.0.1/api/session', {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...(cookie ? { cookie } : {}) },
    body: JSON.stringify({ login, password }),
  })
  const set = response.headers.get('set-cookie') ?? ''
  return {
    status: response.status,
    body: (await response.json()) as Person & { code: string },
    set,
    cookie: set.split(';')[0]!,
  }
}
const whoIs = (cookie: string) => server.ask<Person>('/api/session', { as: 'nobody', headers: { cookie } })

describe('signing in', () => {
  test('gives a cookie that scripts can’t read and other sites can’t send, and the server keeps only its hash', async () => {
    const { status, body, set, cookie } = await signIn(' HERON ', PASSWORD)
    expect(status).toBe(201)
    expect(body).toMatchObject({ login: 'heron', role: 'editor' })
    expect(set).toMatch(/; HttpOnly/)
    expect(set).toMatch(/; SameSite=Strict/)
    expect((await whoIs(cookie)).body).toMatchObject({ login: 'heron', name: 'Heron' })
    const rows = await server.services.db.manager.find(SessionEntity)
    expect(rows.length).toBeGreaterThan(0)
    const token = cookie.split('=')[1]!
    expect(token.length).toBeGreaterThanOrEqual(43)
    expect(JSON.stringify(rows)).not.toContain(token)
    expect(JSON.stringify(body)).not.toContain('argon2')
  })

  test('again gives another session, and ends the one before', async () => {
    const first = await signIn('heron', PASSWORD)
    const second = await signIn('heron', PASSWORD, first.cookie)
    expect(second.cookie).not.toBe(first.cookie)
    expect((await whoIs(first.cookie)).status).toBe(401)
    expect((await whoIs(second.cookie)).status).toBe(200)
  })

  test('out ends it on the server: the cookie is worth nothing afterwards', async () => {
    const { cookie } = await signIn('heron', PASSWORD)
    await server.ask('/api/session', { method: 'DELETE', as: 'nobody', headers: { cookie } })
    expect((await whoIs(cookie)).status).toBe(401)
  })

  test('with a wrong name or a wrong password is refused in the same words', async () => {
    const wrongName = await signIn('nobody-here', PASSWORD)
    const wrongPassword = await signIn('heron', `${PASSWORD}.`)
    expect(wrongName).toMatchObject({ status: 401, set: '' })
    expect(wrongPassword.body).toEqual(wrongName.body)
  })

  test('is no longer tried after five wrong passwords, not even with the right one, and not even at once', async () => {
    await addPerson(server.services.db.manager, {
      login: 'tern',
      name: 'Tern',
      role: 'editor',
      password: PASSWORD,
    })
    const wrong = await Promise.all(
      Array.from({ length: 8 }, (_unused, i) => signIn('tern', `guess number ${i}`)),
    )
    expect(wrong.map((one) => one.status).sort()).toEqual([401, 401, 401, 401, 401, 429, 429, 429])
    const right = await signIn('tern', PASSWORD)
    expect(right.status).toBe(429)
    expect(right.body.code).toBe('too-many-tries')
    expect((await signIn('heron', PASSWORD)).status).toBe(201)
  })
})

test.each([
  ['full-width letters', 'ｈｅｒｏｎ'],
  ['an accent', 'hérôn'],
  ['a dotless i', 'ınes'],
  ['a zero-width space', 'her\u200bon'],
])('a login with %s is nobody’s, and gets no tries of another', async (_what, login) => {
  expect((await signIn(login, PASSWORD)).status).toBe(401)
})

test('a login of a megabyte is refused unread', async () => {
  const { status, body } = await signIn('x'.repeat(1_000_000), PASSWORD)
  expect([status, body.code]).toEqual([413, 'too-large'])
  expect((await signIn('x'.repeat(101), PASSWORD)).status).toBe(401)
})

test('a session ends after twelve hours without use, and lasts as long as it is used', async () => {
  let now = Date.now()
  const sessions = new Sessions(server.services.db, () => now)
  const [person] = await listPeople(server.services.db.manager)
  const token = await sessions.start(person!, undefined)
  for (let hours = 0; hours < 48; hours += 8) {
    now += 8 * 3_600_000
    expect((await sessions.find(token, await revisions()))?.person).toEqual(person)
  }
  now += 12 * 3_600_000 + 1
  expect(await sessions.find(token, await revisions())).toBeUndefined()
  expect(await sessions.find('', await revisions())).toBeUndefined()
})

test('a session ends after 30 days, however much it is used', async () => {
  let now = Date.now()
  const sessions = new Sessions(server.services.db, () => now)
  const [person] = await listPeople(server.services.db.manager)
  const token = await sessions.start(person!, undefined)
  for (let hours = 0; hours < 30 * 24 - 5; hours += 5) {
    now += 5 * 3_600_000
    expect((await sessions.find(token, await revisions()))?.person).toEqual(person)
  }
  now += 5 * 3_600_000 + 1
  expect(await sessions.find(token, await revisions())).toBeUndefined()
})

test('many may sign in at the same moment', async () => {
  const people = await listPeople(server.services.db.manager)
  const tokens = await Promise.all(
    Array.from({ length: 40 }, (_unused, i) =>
      server.services.sessions.start(people[i % people.length]!, undefined),
    ),
  )
  const now = await revisions()
  const found = await Promise.all(tokens.map((token) => server.services.sessions.find(token, now)))
  expect(found.map((one) => one?.person.id)).toEqual(tokens.map((_token, i) => people[i % people.length]!.id))
})

test('a removed account is out within ten seconds, wherever it was signed in', async () => {
  let now = Date.now()
  const { manager } = server.services.db
  const person = await addPerson(manager, { login: 'gone', name: 'Gone', role: 'keeper', password: PASSWORD })
  const sessions = new Sessions(server.services.db, () => now)
  const token = await sessions.start(person, undefined)
  expect((await sessions.find(token, await revisions()))?.person).toEqual(person)
  await removePerson(manager, 'gone')
  now += 10_001
  expect(await sessions.find(token, await revisions())).toBeUndefined()
})

describe('passwords', () => {
  test('are kept as Argon2id at OWASP’s cost, and checked as another implementation computes it', async () => {
    const kept = await hashPassword(PASSWORD)
    // PHC string format: $argon2id$v=19$m=19456,t=2,p=1$salt$hash (github.com/P-H-C/phc-string-format).
    const [, kind, version, cost, salt, hash] = kept.split('$') as [
      string,
      string,
      string,
      string,
      string,
      string,
    ]
    expect([kind, version, cost]).toEqual(['argon2id', 'v=19', 'm=19456,t=2,p=1'])
    // A process of its own: the other implementation is slow inside of Jest.
    const script = `import { argon2id } from '@noble/hashes/argon2.js'
      const [password, salt] = process.argv.slice(1)
      const hash = argon2id(password, Buffer.from(salt, 'base64'), { t: 2, m: 19456, p: 1, dkLen: 32 })
      process.stdout.write(Buffer.from(hash).toString('base64'))`
    const again = execFileSync(process.execPath, ['--input-type=module', '-e', script, PASSWORD, salt], {
      encoding: 'utf8',
    })
    expect(again.replace(/=+$/, '')).toBe(hash)
    expect(await isPassword(PASSWORD, kept)).toBe(true)
    expect(await isPassword(PASSWORD.toUpperCase(), kept)).toBe(false)
    expect(await isPassword(PASSWORD, undefined)).toBe(false)
    expect(await hashPassword(PASSWORD)).not.toBe(kept)
  })

  test('can be changed by a command; the old one is worth nothing then, and its sessions end', async () => {
    const { manager } = server.services.db
    await addPerson(manager, { login: 'owl', name: 'Owl', role: 'reviewer', password: PASSWORD })
    const { cookie } = await signIn('owl', PASSWORD)
    await changePassword(manager, 'owl', 'another long one')
    expect((await signIn('owl', PASSWORD)).status).toBe(401)
    expect((await signIn('owl', 'another long one')).status).toBe(201)
    const sessions = new Sessions(server.services.db)
    expect(await sessions.find(cookie.split('=')[1]!, await revisions())).toBeUndefined()
    await expect(changePassword(manager, 'owl', 'short')).rejects.toThrow(/must have 15 to 200 characters/)
    const owl = { login: 'owl', name: 'Owl' }
    expect(passwordProblems('vexed quilt 14', owl)).toHaveLength(1)
    expect(passwordProblems('vexed quilt of 15', owl)).toEqual([])
    // At least 64 are taken, spaces and signs of any script among them (NIST SP 800-63B-4, 3.1.1.2).
    expect(passwordProblems('夜 vexed quilt '.repeat(5).slice(0, 64), owl)).toEqual([])
    await expect(changePassword(manager, 'nobody', PASSWORD)).rejects.toThrow('no account "nobody"')
  })

  test('are changed by the person, who gives the present one; all other sessions end at once', async () => {
    await addPerson(server.services.db.manager, {
      login: 'rook',
      name: 'Rook',
      role: 'editor',
      password: PASSWORD,
    })
    const [here, there] = [await signIn('rook', PASSWORD), await signIn('rook', PASSWORD)]
    expect((await whoIs(there.cookie)).status).toBe(200)
    const change = (present: string, password: string) =>
      server.ask('/api/session/password', {
        method: 'PUT',
        body: { present, password },
        as: 'nobody',
        headers: { cookie: here.cookie },
      })
    expect((await change('not the present one', 'seven grey geese')).body.code).toBe('wrong-password')
    expect((await change(PASSWORD, 'rook rook rook rook')).body.message).toMatch(/name of the account/)
    expect((await change(PASSWORD, 'seven grey geese')).status).toBe(200)
    expect((await whoIs(here.cookie)).status).toBe(200)
    expect((await whoIs(there.cookie)).status).toBe(401)
    expect((await signIn('rook', 'seven grey geese')).status).toBe(201)
  })

  test('somebody sees where they are signed in, and ends that there', async () => {
    await addPerson(server.services.db.manager, {
      login: 'wren',
      name: 'Wren',
      role: 'editor',
      password: PASSWORD,
    })
    const [here, there] = [await signIn('wren', PASSWORD), await signIn('wren', PASSWORD)]
    const ask = <T>(path: string, method = 'GET') =>
      server.ask<T>(path, { method, as: 'nobody', headers: { cookie: here.cookie } })
    const all = (await ask<OpenSession[]>('/api/session/all')).body
    expect(all.map(({ isThis }) => isThis).sort()).toEqual([false, true])
    const other = all.find(({ isThis }) => !isThis)!
    expect((await ask(`/api/session/all/${other.id}`, 'DELETE')).status).toBe(200)
    expect((await whoIs(there.cookie)).status).toBe(401)
    expect((await ask(`/api/session/all/${other.id}`, 'DELETE')).status).toBe(404)
    // Of somebody else there is nothing to see, and nothing to end.
    const heron = await signIn('heron', PASSWORD)
    const own = (await ask<OpenSession[]>('/api/session/all')).body[0]!
    const foreign = await server.ask(`/api/session/all/${own.id}`, {
      method: 'DELETE',
      as: 'nobody',
      headers: { cookie: heron.cookie },
    })
    expect(foreign.status).toBe(404)
    expect((await whoIs(here.cookie)).status).toBe(200)
  })

  /** NIST SP 800-63B-4, 3.1.1.2: what must be refused, and what must not be asked for. */
  test.each([
    ['a common one', 'q1w2e3r4t5y6u7i8', false],
    ['a common one with digits behind it', 'PasswordPassword2026!', false],
    ['a few letters over and over', 'abcabcabcabcabc', false],
    ['the login and a number', 'heron-heron-heron-1', false],
    ['four words', 'lantern heron quay moss', true],
    ['letters of any script', 'тихая вода на болоте', true],
    ['64 letters', 'a quiet heron by the water '.repeat(3).slice(0, 64), true],
    ['letters alone, without digits and signs', 'quietheronbythewater', true],
  ])('%s', (_what, password, isTaken) => {
    const problems = passwordProblems(password, { login: 'heron', name: 'Heron' })
    expect(problems.length === 0).toBe(isTaken)
    // For what it is, and not for its length.
    for (const { message } of problems) expect(message).not.toMatch(/characters/)
  })
})

test('an account that can’t be one is refused with every reason, and one name is given once', async () => {
  const { manager } = server.services.db
  const before = await manager.count(PersonEntity)
  await expect(
    addPerson(manager, { login: '<b>', name: ' ', role: 'king', password: 'x' }),
  ).rejects.toMatchObject({
    problems: [{ pointer: '/login' }, { pointer: '/name' }, { pointer: '/role' }, { pointer: '/password' }],
  })
  await expect(
    addPerson(manager, { login: 'HERON', name: 'Other', role: 'editor', password: PASSWORD }),
  ).rejects.toThrow('There is an account "heron" already')
  expect(await manager.count(PersonEntity)).toBe(before)
})

test('the sample site has one account for each role', async () => {
  const people = (await listPeople(server.services.db.manager)).filter((one) =>
    ['ines', 'moss', 'tarn'].includes(one.login),
  )
  expect(people.map((one) => one.role)).toEqual(['editor', 'reviewer', 'keeper'])
})

describe('the two ports', () => {
  test('share no cookie: the site is on another name, and never sets one', async () => {
    const moved = await server.site.request('http://127.0.0.1/visit/')
    expect([moved.status, moved.headers.get('location')]).toEqual([308, 'http://localhost:1/visit/'])
    expect(moved.headers.get('x-content-type-options')).toBe('nosniff')
    expect((await server.site.request('http://localhost/')).headers.get('set-cookie')).toBeNull()
  })

  test('with https, the cookie is kept to this very host and sent by https alone', async () => {
    const secure = createEditorApp(
      makeServices({ ...server.services, editorOrigin: 'https://edit.example' }),
      undefined,
    )
    const answer = await secure.request('https://edit.example/api/session', {
      method: 'POST',
      headers: { host: 'edit.example', 'content-type': 'application/json', origin: 'https://edit.example' },
      body: JSON.stringify({ login: 'heron', password: PASSWORD }),
    })
    expect(answer.headers.get('set-cookie')).toMatch(
      /^__Host-gullyline_session=.*; Path=\/; HttpOnly; Secure; SameSite=Strict/,
    )
    expect(answer.headers.get('strict-transport-security')).toBe('max-age=31536000')
  })

  test('the editor answers to one name, and sends those who come by another there', async () => {
    const one = createEditorApp(
      makeServices({ ...server.services, editorOrigin: 'http://127.0.0.1:4180' }),
      undefined,
    )
    const moved = await one.request('http://localhost:4180/pages/x?y=1', {
      headers: { host: 'localhost:4180' },
    })
    expect([moved.status, moved.headers.get('location')]).toEqual([308, 'http://127.0.0.1:4180/pages/x?y=1'])
    const written = await one.request('http://localhost:4180/api/session', {
      method: 'POST',
      headers: { host: 'localhost:4180', 'content-type': 'application/json' },
      body: '{}',
    })
    expect(written.status).toBe(403)
    const foreign = await one.request('http://evil.example/', { headers: { host: 'evil.example' } })
    expect(foreign.status).toBe(403)
  })

  test('what is private is stored by nothing on the way, and the list of old addresses is nobody’s to read', async () => {
    const cookie = await server.cookieOf('keeper')
    const get = (path: string) => server.editor.request(`http://127.0.0.1${path}`, { headers: { cookie } })
    for (const path of [
      '/api/sites/tarrowmoor',
      '/api/sites/tarrowmoor/pages',
      '/api/session',
      '/api/sites/tarrowmoor/bin',
    ])
      expect([path, (await get(path)).headers.get('cache-control')]).toEqual([
        path,
        // What has a tag is asked for each time, and nobody but this browser may have it.
        expect.stringMatching(/^(no-store|private, no-cache)$/),
      ])
    const picture = await get('/media/tmdusk/fallback.jpg')
    expect([picture.status, picture.headers.get('cache-control')]).toEqual([
      200,
      'private, max-age=31536000, immutable',
    ])
    for (const path of ['/redirects.json', '/.redirects.json', '/../current.redirects.json'])
      expect((await server.site.request(`http://localhost${path}`)).status).toBe(404)
  })

  test('a page called “Files” is a page', async () => {
    const { body } = await server.ask<PageDocument>('/api/sites/tarrowmoor/pages', {
      method: 'POST',
      body: { title: 'Files', parentId: null, template: 'plain' },
    })
    expect((await server.publish(body.summary.id)).status).toBe(200)
    const page = await server.site.request('http://localhost/files/')
    expect([page.status, page.headers.get('content-disposition')]).toEqual([200, null])
  })

  test('answer with strict headers', async () => {
    const editor = (await server.editor.request('http://127.0.0.1/api/sites/tarrowmoor')).headers
    const site = (await server.site.request('http://localhost/')).headers
    for (const headers of [editor, site]) {
      expect(headers.get('content-security-policy')).toMatch(/default-src '(self|none)'/)
      expect(headers.get('content-security-policy')).toMatch(/frame-ancestors 'none'/)
      expect(headers.get('content-security-policy')).not.toMatch(
        /unsafe-eval|script-src[^;]*unsafe-inline|\*/,
      )
      expect(headers.get('x-content-type-options')).toBe('nosniff')
      expect(headers.get('referrer-policy')).toBeTruthy()
    }
  })

  test('a write that the browser says comes from another site is refused', async () => {
    const refused = await server.ask('/api/sites/tarrowmoor/pages/tmhome', {
      method: 'PATCH',
      body: { title: 'x' },
      headers: { 'sec-fetch-site': 'same-site' },
    })
    expect(refused.body.code).toBe('foreign-origin')
  })
})
