/** Patterns that people save: named once on a site, listed with what is in them, deleted and restored. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import {
  defaultRegistry,
  PAGE_FORMAT,
  patternOf,
  type ErrorBody,
  type MediaUse,
  type Page,
  type PageDocument,
  type SavedPart,
} from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
let document: Page
beforeAll(async () => {
  server = await startTestServer()
  const { document: page } = (await server.ask<PageDocument>(`${SITE}/pages/tmvisit`)).body
  let made = 0
  document = patternOf(
    page,
    page.nodes[page.root]!.slots.sections!.slice(0, 2),
    defaultRegistry,
    () => `p${++made}`,
  )
})
afterAll(() => server.close())

const SITE = '/api/sites/tarrowmoor'
/** The sample site has shared sections, too. */
const list = async () =>
  (await server.ask<SavedPart[]>(`${SITE}/parts`)).body.filter(({ type }) => type === 'pattern')
const add = (name: string, more: object = {}) =>
  server.ask<SavedPart>(`${SITE}/parts`, {
    method: 'POST',
    body: { name, purpose: 'contact', about: '', document, ...more },
  })
const change = (id: string, body: object) =>
  server.ask<SavedPart>(`${SITE}/parts/${id}`, { method: 'PATCH', body })
const bin = (id: string) => server.ask<SavedPart>(`${SITE}/parts/${id}`, { method: 'DELETE' })
const restore = (id: string) =>
  server.ask<SavedPart>(`${SITE}/parts/${id}/restore`, { method: 'POST', body: {} })

test('a pattern is listed with what is in it, its text, and who saved it', async () => {
  const { status, body } = await add('  Come   and see ', { about: 'How to get here' })
  expect(status).toBe(201)
  expect(body).toMatchObject({
    name: 'Come and see',
    purpose: 'contact',
    about: 'How to get here',
    document,
    savedBy: 'Tarn',
    binnedAt: null,
  })
  expect(body.words).toMatch(/\S/)
  expect(await list()).toEqual([body])
})

test('a name is had once, whatever its case: also of many who want it at once, in 20 rounds', async () => {
  const { status, body } = await add('come AND see')
  expect([status, body.code]).toEqual([409, 'name-taken'])
  for (let round = 0; round < 20; round++) {
    const all = await Promise.all(Array.from({ length: 5 }, () => add(`Round ${round}`)))
    expect(all.map((one) => one.status).sort()).toEqual([201, 409, 409, 409, 409])
  }
  const names = (await list()).map(({ name }) => name.toLowerCase())
  expect(new Set(names).size).toBe(names.length)
})

test('what is said of it is changed where nobody else changed it meanwhile, and not to a name that is taken', async () => {
  const { id } = (await add('Hours')).body
  const renamed = await change(id, { name: 'Hours of opening', was: { name: 'Hours' } })
  expect([renamed.status, renamed.body.name]).toEqual([200, 'Hours of opening'])
  const stale = await change(id, { name: 'Times', was: { name: 'Hours' } })
  expect([stale.status, stale.body.code]).toEqual([409, 'stale-save'])
  expect((await change(id, { name: 'Come and see' })).body.code).toBe('name-taken')
  expect((await change(id, { purpose: 'events', about: 'When' })).body).toMatchObject({
    name: 'Hours of opening',
    purpose: 'events',
    about: 'When',
  })
})

test('one that is deleted is offered no more, gives up its name, and comes back with all that was in it', async () => {
  const { id } = (await add('Prices')).body
  expect((await bin(id)).body.binnedAt).not.toBeNull()
  expect((await list()).find((one) => one.id === id)!.document).toEqual(document)
  expect((await change(id, { about: 'No' })).status).toBe(404)
  expect((await bin(id)).status).toBe(404)
  const other = (await add('Prices')).body
  const refused = await restore(id)
  expect([refused.status, refused.body.code]).toEqual([409, 'name-taken'])
  await bin(other.id)
  expect((await restore(id)).body).toMatchObject({ name: 'Prices', binnedAt: null, document })
})

describe('what is no pattern is refused, and nothing is saved', () => {
  const empty = () => ({
    format: PAGE_FORMAT,
    root: 'r',
    nodes: { r: { kind: 'pattern', content: {}, look: {}, sizes: { base: {} }, slots: { blocks: [] } } },
  })
  test.each<[string, object, number]>([
    ['no blocks', { document: empty() }, 422],
    ['a page', { document: { format: PAGE_FORMAT, root: 'r', nodes: {} } }, 422],
    ['no name', { name: ' ' }, 400],
    ['a name that is too long', { name: 'x'.repeat(61) }, 400],
    ['an unknown purpose', { purpose: 'magic' }, 400],
    ['a field that it has not', { evil: true }, 400],
  ])('%s', async (_what, more, expected) => {
    const before = await list()
    const { status, body } = await add('Wrong', more)
    expect([status, (body as ErrorBody).message]).toEqual([expected, expect.stringMatching(/Nothing was/)])
    expect(await list()).toEqual(before)
  })

  test('an id that no part has, such as that of a page', async () => {
    for (const id of ['tmvisit', 'nosuch'])
      expect([(await change(id, {})).status, (await bin(id)).status, (await restore(id)).status]).toEqual([
        404, 404, 404,
      ])
  })

  test('a pattern is no page: it is not opened, saved, moved or published as one', async () => {
    const { id } = (await list())[0]!
    const answers = [
      await server.ask(`${SITE}/pages/${id}`),
      await server.ask(`${SITE}/pages/${id}/document`, {
        method: 'PUT',
        body: { base: 1, document, journal: null },
      }),
      await server.ask(`${SITE}/pages/${id}/place`, {
        method: 'POST',
        body: { parentId: null, position: 0 },
      }),
      await server.ask(`${SITE}/pages/${id}/publish`, { method: 'POST', body: { version: 1 } }),
    ]
    for (const { status } of answers) expect([404, 422]).toContain(status)
  })
})

test('a picture says that a pattern shows it', async () => {
  const picture = {
    kind: 'picture',
    content: { media: { id: 'tmdome' } },
    look: {},
    sizes: { base: {} },
    slots: {},
  }
  const root = { kind: 'pattern', content: {}, look: {}, sizes: { base: {} }, slots: { blocks: ['a'] } }
  await add('With the dome', { document: { format: PAGE_FORMAT, root: 'r', nodes: { r: root, a: picture } } })
  const uses = (await server.ask<MediaUse[]>(`${SITE}/media/tmdome/uses`)).body
  expect(uses).toContainEqual({ part: 'With the dome', type: 'pattern', count: 1 })
})
