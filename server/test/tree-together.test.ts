/** What many people do to the page tree at once: no two pages get one address, nothing stands under itself. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ErrorBody, PageDocument, PageSummary } from '@gullyline/core'
import { PageEntity } from '../src/db/rows.ts'
import { asTree, pagePaths } from '../src/pages/tree.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const ROUNDS = 200

let server: TestServer
beforeAll(async () => {
  server = await startTestServer('begun')
  const { manager } = server.services.db
  const { addPerson } = await import('../src/people/store.ts')
  await addPerson(manager, {
    login: 'keeper',
    name: 'Keeper',
    role: 'keeper',
    password: 'heron-lantern-quay',
  })
})
afterAll(() => server.close())

const own = () => `/api/sites/${server.at.siteId}`
const add = async (title: string, parentId: string | null = null) =>
  server.ask<PageDocument>(`${own()}/pages`, { method: 'POST', body: { title, parentId } })
const place = (id: string, parentId: string | null, position = 0) =>
  server.ask<ErrorBody>(`${own()}/pages/${id}/place`, {
    method: 'POST',
    body: { parentId, position },
  })
const pages = async () => (await server.ask<PageSummary[]>(`${own()}/pages`)).body

/** What holds after every act: each page has an address of its own, which it is stored with, and a way to the top. */
async function expectWhole(): Promise<void> {
  const listed = await pages()
  expect(new Set(listed.map(({ path }) => path)).size).toBe(listed.length)
  const rows = await server.services.db.manager.find(PageEntity)
  for (const row of rows) expect(row.address).toBe(listed.find(({ id }) => id === row.id)?.path ?? null)
  expect(asTree(rows.filter((row) => row.binnedAt === null))).toEqual(
    rows.filter((row) => row.binnedAt === null),
  )
}

test('12 pages added at once with one title get 12 addresses', async () => {
  const made = await Promise.all(Array.from({ length: 12 }, () => add('Same')))
  expect(made.map(({ status }) => status)).toEqual(Array(12).fill(201))
  expect(new Set(made.map(({ body }) => body.summary.path)).size).toBe(12)
  await expectWhole()
})

test(`two pages moved under each other at once, ${ROUNDS} times: one of both is refused, and no loop is left`, async () => {
  const [a, b] = [(await add('A')).body.summary.id, (await add('B')).body.summary.id]
  for (let round = 0; round < ROUNDS; round++) {
    const both = await Promise.all([place(a, b), place(b, a)])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422])
    const listed = await pages()
    expect(listed.filter(({ id, parentId }) => [a, b].includes(id) && parentId === null)).toHaveLength(1)
    await Promise.all([place(a, null), place(b, null)])
  }
  await expectWhole()
}, 600_000)

test('nothing is added, moved or copied under a page that goes to the bin in the same moment', async () => {
  for (let round = 0; round < ROUNDS / 4; round++) {
    const parent = (await add(`Parent ${round}`)).body.summary.id
    const [added] = await Promise.all([
      add('Child', parent),
      server.ask(`${own()}/pages/${parent}`, { method: 'DELETE' }),
    ])
    const listed = await pages()
    const child = added.status === 201 ? added.body.summary.id : undefined
    // Either it came first and went to the bin with its parent, or it was refused.
    expect(listed.some(({ id }) => id === child)).toBe(false)
    if (added.status !== 201) expect(added.body.message).toMatch(/parent page .* was deleted/)
  }
  await expectWhole()
})

test('addresses changed to one and the same at once: one has it, the other is told', async () => {
  const [a, b] = [(await add('First one')).body.summary.id, (await add('Second one')).body.summary.id]
  const rename = (id: string, slug: string) =>
    server.ask<ErrorBody>(`${own()}/pages/${id}`, { method: 'PATCH', body: { slug } })
  for (let round = 0; round < ROUNDS / 4; round++) {
    const both = await Promise.all([rename(a, `wanted-${round}`), rename(b, `wanted-${round}`)])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  }
  await expectWhole()
})

test('ids are compared letter by letter', async () => {
  const { id } = (await pages()).find(({ path }) => path === '/')!
  for (const other of [id.toUpperCase(), `${id}%20`, `${id.slice(0, -1)}%C3%A9`, '%00'])
    expect((await server.ask(`${own()}/pages/${other}`)).status).toBe(404)
  const { body } = await server.ask<ErrorBody>(`${own()}/pages`, {
    method: 'POST',
    body: { title: 'Under it', parentId: id.toUpperCase() },
  })
  expect(body.code).toBe('malformed')
})

describe('a tree that is broken in the database', () => {
  const rows = [
    { id: 'a', parentId: 'b', slug: 'a' },
    { id: 'b', parentId: 'a', slug: 'b' },
    { id: 'c', parentId: 'b', slug: 'c' },
    { id: 'd', parentId: 'gone', slug: 'd' },
    { id: 'e', parentId: 'e', slug: 'e' },
  ]
  test('is read as one that is whole', () => {
    const mended = asTree(rows)
    expect(mended.map(({ id, parentId }) => [id, parentId])).toEqual([
      ['a', null],
      ['b', null],
      ['c', 'b'],
      ['d', null],
      ['e', null],
    ])
    expect(pagePaths(mended)).toEqual({ a: '/a/', b: '/b/', c: '/b/c/', d: '/d/', e: '/e/' })
    expect(Object.keys(pagePaths(rows))).toHaveLength(5)
  })
  test('is answered by the server, and mended by the next act on it', async () => {
    const [a, b] = [(await add('Loop a')).body.summary.id, (await add('Loop b')).body.summary.id]
    await server.services.db.manager.update(PageEntity, { id: a }, { parentId: b })
    await server.services.db.manager.update(PageEntity, { id: b }, { parentId: a })
    await server.changed()
    const listed = await server.ask<PageSummary[]>(`${own()}/pages`)
    expect(listed.status).toBe(200)
    expect(listed.body.filter(({ id }) => id === a || id === b)).toHaveLength(2)
    expect((await server.ask(`${own()}/pages/${a}`)).status).toBe(200)
    expect((await place(a, null)).status).toBe(200)
    expect((await place(b, null)).status).toBe(200)
    await expectWhole()
  })
})
