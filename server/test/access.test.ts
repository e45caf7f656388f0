import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { ROLES } from '@gullyline/core'
import { createEditorApp } from '../src/app.ts'
import { JournalEntity } from '../src/db/rows.ts'
import { ACCESS, SESSION_COOKIE } from '../src/people/access.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const routes = Object.entries(ACCESS)
const state = async () => [
  (await server.ask('/api/sites/tarrowmoor/pages')).body,
  (await server.ask('/api/sites/tarrowmoor')).body,
  await server.services.db.manager.count(JournalEntity),
]

interface Asked {
  readonly path: string
  readonly method: string
  readonly body?: unknown
  readonly headers?: Readonly<Record<string, string>>
}

const UPLOAD = { 'content-type': 'application/octet-stream' }

/** A request to a route, with ids that do not exist: refused before anything is looked up, it must never come so far. */
function request(route: string): Asked {
  const [method, path] = route.split(' ') as [string, string]
  return {
    method,
    path: path.replace(':site', 'tarrowmoor').replace(/:\w+/g, 'nosuch').replace('*', 'nosuch/320.webp'),
    ...(method === 'GET' ? {} : { body: {} }),
    // Files come as they are; all else is JSON.
    ...(/^(POST \/api\/sites\/:site\/(media|files|imports)|PUT \/api\/sites\/:site\/(media|files)\/:id\/file)$/.test(
      route,
    )
      ? { headers: UPLOAD }
      : {}),
  }
}

test('the table names every route of the server, and none that is not there', () => {
  const served = createEditorApp(server.services, undefined)
    .routes.filter((one) => one.method !== 'ALL')
    .map((one) => `${one.method} ${one.path}`)
  expect([...new Set(served)].sort()).toEqual(Object.keys(ACCESS).sort())
})

describe.each(routes)('%s', (route, who) => {
  const { path, ...options } = request(route)

  test('refuses everyone it does not name, in the one shape, and changes nothing', async () => {
    const before = await state()
    if (who !== 'everyone') {
      const unsigned = await server.ask(path, { ...options, as: 'nobody' })
      expect([unsigned.status, unsigned.body.code]).toEqual([401, 'not-signed-in'])
      const forged = await server.ask(path, {
        ...options,
        as: 'nobody',
        headers: { ...options.headers, cookie: `${SESSION_COOKIE}=${'A'.repeat(43)}` },
      })
      expect([forged.status, forged.body.code]).toEqual([401, 'not-signed-in'])
    }
    for (const role of ROLES.filter((one) => who !== 'everyone' && !who.includes(one))) {
      const refused = await server.ask(path, { ...options, as: role })
      expect([role, refused.status, refused.body.code]).toEqual([role, 403, 'not-allowed'])
      expect(refused.body.problems).toEqual([])
    }
    expect(await state()).toEqual(before)
  })

  test('lets in everyone it names', async () => {
    for (const role of who === 'everyone' ? ROLES : who) {
      if (route === 'DELETE /api/session') continue
      if (route === 'GET /api/presence/:browser') {
        // An answer that does not end.
        const headers = { cookie: await server.cookieOf(role) }
        const stream = await server.editor.request(`http://127.0.0.1${path}`, { headers })
        expect(stream.status).toBe(200)
        await stream.body?.cancel()
        continue
      }
      const answer = await server.ask(path, { ...options, as: role })
      expect([role, ['not-signed-in', 'not-allowed'].includes(answer.body.code)]).toEqual([role, false])
    }
  })
})

test('what the table does not name is refused to everyone, and only those signed in learn that it is not there', async () => {
  for (const path of [
    '/api/people',
    '/api/sites/tarrowmoor/pages/tmhome/nothing',
    '/api',
    '/media',
    '/api/..%2fapi/site',
  ]) {
    const outside = await server.ask(path, { as: 'nobody' })
    const inside = await server.ask(path)
    expect([path, outside.status >= 400, inside.status >= 400]).toEqual([path, true, true])
    if (path.startsWith('/api/'))
      expect([outside.body.code, inside.body.code]).toEqual(['not-signed-in', 'not-found'])
  }
  for (const path of ['/api/sites/tarrowmoor', '/api/sites/tarrowmoor/pages/tmhome']) {
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH'].filter(
      (one) => !(`${one} ${path.replace('tarrowmoor', ':site').replace('tmhome', ':id')}` in ACCESS),
    ))
      expect([method, path, (await server.ask(path, { method, body: {} })).status]).toEqual([
        method,
        path,
        404,
      ])
  }
})
