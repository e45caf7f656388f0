/** The list of pages in parts: whoever asks only for what changed has the same list as who asks for all of it. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import {
  withSettings,
  type OpenedPage,
  type PageDocument,
  type PageListPart,
  type PageSummary,
} from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const SITE = '/api/sites/tarrowmoor'
const part = async (query = '') => (await server.ask<PageListPart>(`${SITE}/page-list${query}`)).body
const all = async () => (await server.ask<PageSummary[]>(`${SITE}/pages`)).body
const byId = (pages: Iterable<PageSummary>) => Object.fromEntries([...pages].map((page) => [page.id, page]))

/** The pages as a browser knows them that asks for no more than what changed. */
class Known {
  readonly pages = new Map<string, PageSummary>()
  mark = ''

  async begin(): Promise<void> {
    const first = await part()
    expect(first.next).toBeNull()
    this.mark = first.mark
    for (const page of first.pages) this.pages.set(page.id, page)
  }

  /** Gives how many pages were told of. */
  async follow(): Promise<number> {
    const { pages, gone, mark, total, isAnew } = await part(`?since=${this.mark}`)
    expect(isAnew).toBeUndefined()
    this.mark = mark
    for (const page of pages) this.pages.set(page.id, page)
    for (const id of gone) this.pages.delete(id)
    expect(total).toBe(this.pages.size)
    return pages.length + gone.length
  }
}

const post = (path: string, body: unknown = {}) => server.ask(`${SITE}${path}`, { method: 'POST', body })

async function save(id: string, words: string): Promise<void> {
  const { summary, document } = (await server.ask<PageDocument>(`${SITE}/pages/${id}`)).body
  const changed = withSettings(document, { description: words })
  const body = { base: summary.version, document: changed, journal: null }
  expect((await server.ask(`${SITE}/pages/${id}/document`, { method: 'PUT', body })).status).toBe(200)
}

/** Every act that lists show something of. */
const ACTS: readonly (readonly [what: string, act: () => Promise<unknown>])[] = [
  ['a save', () => save('tmvisit', 'Come by bus')],
  ['a publish', () => server.publish('tmvisit')],
  ['an unpublish', () => post('/pages/tmvisit/unpublish')],
  [
    'a move to the top, which renumbers others',
    () => post('/pages/tmvisit/place', { parentId: null, position: 1 }),
  ],
  ['another address', () => server.ask(`${SITE}/pages/tmvisit`, { method: 'PATCH', body: { slug: 'come' } })],
  [
    'another title',
    () => server.ask(`${SITE}/pages/tmabout`, { method: 'PATCH', body: { title: 'Who we are' } }),
  ],
  ['a page that is added', () => post('/pages', { title: 'Added', parentId: 'tmvisit' })],
  ['a copy with what is under it', () => post('/pages/tmvisit/copy', { withSubPages: true })],
  [
    'a page that is deleted with what is under it',
    () => server.ask(`${SITE}/pages/tmvisit`, { method: 'DELETE' }),
  ],
  ['one that is restored', () => post('/pages/tmvisit/restore')],
]

test.each(ACTS)('%s is told of, and nothing is missed', async (_what, act) => {
  const known = new Known()
  await known.begin()
  await act()
  const told = await known.follow()
  expect(told).toBeGreaterThan(0)
  expect(Object.fromEntries(known.pages)).toEqual(byId(await all()))
  expect(await known.follow()).toBe(0)
})

test('a save tells of one page', async () => {
  const known = new Known()
  await known.begin()
  await save('tmabout', 'By volunteers')
  expect(await known.follow()).toBe(1)
})

test('what many change at once is never told under a mark that somebody had already, in 40 rounds', async () => {
  const ids = (await all()).slice(1, 7).map(({ id }) => id)
  const known = new Known()
  await known.begin()
  for (let round = 0; round < 40; round++) {
    const saves = ids.map((id) => save(id, `Round ${round}`))
    // Asked between the saves, as browsers do.
    const asking = (async () => {
      for (let i = 0; i < 4; i++) {
        const { pages, mark } = await part(`?since=${known.mark}`)
        for (const page of pages) known.pages.set(page.id, page)
        known.mark = mark
      }
    })()
    await Promise.all([...saves, asking])
    await known.follow()
    expect(Object.fromEntries(known.pages)).toEqual(byId(await all()))
  }
})

test.each(['0.0', 'zzz', '1.x', `${'9'.repeat(40)}`, ''])(
  'a mark that no change has begins the list anew: “%s”',
  async (mark) => {
    const { isAnew, pages } = await part(`?since=${mark}`)
    expect([isAnew, byId(pages)]).toEqual([true, byId(await all())])
  },
)

test('a mark of a database that a backup replaced begins the list anew', async () => {
  const { mark } = await part()
  const [database, number] = mark.split('.') as [string, string]
  expect((await part(`?since=${database}.${Number(number) + 1}`)).isAnew).toBe(true)
  expect((await part(`?since=${database}x.${number}`)).isAnew).toBe(true)
  expect((await part(`?since=${mark}`)).isAnew).toBeUndefined()
})

describe('of a large site', () => {
  const count = 1_300

  beforeAll(async () => {
    const { manager } = server.at
    const rows = Array.from({ length: count }, (_, i) => [
      `tmz${i}`,
      i < 150 ? null : 'tmz0',
      i + 50,
      `z${i}`,
    ])
    for (const [id, parent, position, slug] of rows) {
      await manager.query(
        "INSERT INTO documents (id, site_id, type, version) SELECT ?, site_id, 'page', 1 FROM pages WHERE id = 'tmabout'",
        [id],
      )
      await manager.query(
        `INSERT INTO pages (id, site_id, parent_id, position, title, slug, address, description, in_navigation, more, words)
         SELECT ?, site_id, ?, ?, title, ?, ?, description, 0, more, words FROM pages WHERE id = 'tmabout'`,
        [id, parent, position, slug, parent === null ? `/${slug}/` : `/z0/${slug}/`],
      )
      await manager.query(
        `INSERT INTO versions (document_id, number, state, changes, saved_at, saved_by)
         SELECT ?, 1, state, '[]', saved_at, saved_by FROM versions WHERE document_id = 'tmabout' AND number = 1`,
        [id],
      )
    }
    await server.changed()
  })

  test('the first part is a screen of the top of the tree, and all parts are all pages', async () => {
    const first = await part()
    expect([first.pages.length, first.total > count]).toEqual([50, true])
    expect(first.pages.every(({ parentId }) => parentId === null)).toBe(true)
    const found = new Map(first.pages.map((page) => [page.id, page]))
    let { next } = first
    for (let parts = 0; next !== null; parts++) {
      expect(parts).toBeLessThan(5)
      const more = await part(`?after=${next}`)
      for (const page of more.pages) found.set(page.id, page)
      next = more.next
    }
    expect(Object.fromEntries(found)).toEqual(byId(await all()))
  })

  test('opening a page brings what it shows and refers to, and not the rest', async () => {
    const { around } = (await server.ask<OpenedPage>(`${SITE}/pages/tmhome`)).body
    expect(around.pages.length).toBeLessThan(60)
    expect(around.pages.map(({ id }) => id)).toContain('tmhome')
    const { around: deep } = (await server.ask<OpenedPage>(`${SITE}/pages/tmz1299`)).body
    // Those that it stands under.
    expect(deep.pages.map(({ path }) => path)).toEqual(expect.arrayContaining(['/', '/z0/', '/z0/z1299/']))
  })
})
