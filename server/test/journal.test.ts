import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type {
  Edit,
  JournalEntry,
  KeptJournal,
  PageDocument,
  PageSummary,
  PresenceEvent,
  Role,
} from '@gullyline/core'
import { JournalEntity } from '../src/db/rows.ts'
import { SESSION_COOKIE } from '../src/people/access.ts'
import { addPerson, findPersonRow, toPerson } from '../src/people/store.ts'
import { Presence } from '../src/presence/presence.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const edits: readonly Edit[] = [{ edit: 'set', nodeId: 'x', at: ['name'], value: 'Words 日本 🌒' }]
const entry = (number: number, base = 1): JournalEntry => ({
  number,
  base,
  at: 1_790_000_000_000 + number,
  edits,
})
const keep = (
  entries: unknown,
  { page = 'tmabout', tab = 'tab1', as }: { page?: string; tab?: string; as?: Role } = {},
) =>
  server.ask(`/api/sites/tarrowmoor/pages/${page}/journal/${tab}`, {
    method: 'POST',
    body: { entries },
    as: as ?? 'editor',
  })
const read = async (as: Role = 'editor', page = 'tmabout') =>
  (await server.ask<KeptJournal[]>(`/api/sites/tarrowmoor/pages/${page}/journal`, { as }))
    .body as unknown as KeptJournal[]

describe('the journal on the server', () => {
  test('gives back what was sent, in order, once each however often it was sent', async () => {
    await keep([entry(1), entry(0)])
    await keep([entry(1), entry(2)])
    expect(await read()).toEqual([{ tab: 'tab1', isOpen: false, entries: [entry(0), entry(1), entry(2)] }])
  })

  test('is its person’s alone', async () => {
    expect(await read('keeper')).toEqual([])
    await keep([entry(9)], { as: 'keeper' })
    expect((await read())[0]!.entries).toHaveLength(3)
    await server.ask('/api/sites/tarrowmoor/pages/tmabout/journal/tab1', { method: 'DELETE', as: 'keeper' })
    expect(await read('keeper')).toEqual([])
    expect((await read())[0]!.entries).toHaveLength(3)
  })

  test('makes no answer another one with a letter that goes into it; a change that the answer tells does', async () => {
    const path = '/api/sites/tarrowmoor/pages'
    const ask = async (tag = '') => {
      const headers = { cookie: await server.cookieOf('editor'), 'if-none-match': tag }
      return server.editor.request(`http://127.0.0.1${path}`, { headers })
    }
    const tag = (await ask()).headers.get('etag')!
    expect((await keep([entry(3)], { tab: 'tab9' })).status).toBe(200)
    await server.ask(`${path}/tmabout/journal/tab9`, { method: 'DELETE', as: 'editor' })
    expect((await ask(tag)).status).toBe(304)
    const settings = { description: 'Another one.' }
    expect((await server.ask(`${path}/tmnews`, { method: 'PATCH', body: settings })).status).toBe(200)
    const changed = await ask(tag)
    expect([changed.status, await changed.text()]).toEqual([200, expect.stringContaining('Another one.')])
  })

  test('forgets with a save what the save holds, and only then', async () => {
    const { document, summary } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmabout')).body
    const save = (base: number) =>
      server.ask<PageSummary>('/api/sites/tarrowmoor/pages/tmabout/document', {
        method: 'PUT',
        body: { base, document, journal: { tab: 'tab1', until: 2 } },
        as: 'editor',
      })
    expect((await save(summary.version + 5)).body.code).toBe('stale-save')
    expect((await read())[0]!.entries).toHaveLength(3)
    expect((await save(summary.version)).status).toBe(200)
    expect((await read())[0]!.entries).toEqual([entry(2, summary.version + 1)])
  })

  test.each([
    ['not a list', 'x'],
    ['an entry without edits', [{ number: 0, base: 1, at: 1 }]],
    ['a number that is none', [{ ...entry(0), number: 'x' }]],
    ['a number too large', [{ ...entry(0), number: 2 ** 31 }]],
    ['a moment that is none', [{ ...entry(0), at: Number.MAX_SAFE_INTEGER }]],
    ['edits that are none', [{ ...entry(0), edits: ['x'] }]],
    ['nothing', [null]],
    ['501 entries', Array.from({ length: 501 }, (_unused, i) => entry(i))],
  ])('refuses %s, and keeps nothing of it', async (_what, entries) => {
    const before = await read()
    const refused = await keep(entries)
    expect([refused.status, refused.body.code]).toEqual([400, 'malformed'])
    expect(refused.body.problems[0]!.pointer).toMatch(/^\/entries/)
    expect(await read()).toEqual(before)
  })

  test('refuses a page that does not exist and a tab that can’t be one', async () => {
    expect((await keep([entry(0)], { page: 'nosuch' })).status).toBe(404)
    expect((await keep([entry(0)], { tab: 'a%20b' })).status).toBe(404)
    expect((await keep([entry(0)], { tab: 'x'.repeat(25) })).status).toBe(404)
  })
})

describe('how much is journaled', () => {
  const big = (number: number, bytes: number) => ({
    ...entry(number),
    edits: [{ edit: 'set', nodeId: 'a', at: ['name'], value: 'x'.repeat(bytes) }],
  })
  const forget = (tab: string) =>
    server.ask(`/api/sites/tarrowmoor/pages/tmabout/journal/${tab}`, { method: 'DELETE', as: 'keeper' })
  const put = (tab: string, entries: unknown) => keep(entries, { page: 'tmabout', tab, as: 'keeper' })

  test('is bounded for a tab and for a person on a page, with a refusal that says what to do', async () => {
    expect((await put('taba', [big(0, 3_000_000)])).status).toBe(200)
    // The same entry with another text takes its place, and is not counted twice.
    expect((await put('taba', [big(0, 3_500_000)])).status).toBe(200)
    const refused = await put('taba', [big(1, 1_000_000)])
    expect([refused.status, refused.body.code]).toEqual([413, 'journal-full'])
    expect(refused.body.message).toMatch(/still in this browser: save the page/)
    expect((await put('tabb', [big(0, 3_500_000)])).status).toBe(200)
    expect((await put('tabc', [big(0, 3_500_000)])).body.code).toBe('journal-full')
    const read = await server.ask<KeptJournal[]>('/api/sites/tarrowmoor/pages/tmabout/journal')
    expect(JSON.stringify(read.body).length).toBeLessThan(9_000_000)
    for (const tab of ['taba', 'tabb']) await forget(tab)
  })

  test('ends 30 days after it was offered, and not before', async () => {
    const { manager } = server.services.db
    await put('old', [entry(0)])
    const offered = async () =>
      (await server.ask<KeptJournal[]>('/api/sites/tarrowmoor/pages/tmabout/journal')).body.map(
        ({ tab }) => tab,
      )
    expect(await offered()).toEqual(['old'])
    const at = (days: number) => new Date(Date.now() - days * 24 * 3_600_000)
    await manager.update(JournalEntity, { tab: 'old' }, { offeredAt: at(29) })
    expect(await offered()).toEqual(['old'])
    await manager.update(JournalEntity, { tab: 'old' }, { offeredAt: at(31) })
    expect(await offered()).toEqual([])
  })

  test.each([
    ['an edit of no kind', { edit: 'explode', nodeId: 'a' }],
    ['an edit with a field too many', { edit: 'remove', nodeId: 'a', and: 1 }],
    ['nodes that are none', { edit: 'insert', parentId: 'a', slot: 's', index: 0, rootId: 'b', nodes: [] }],
    ['an index far out', { edit: 'move', nodeId: 'a', toParentId: 'b', toSlot: 's', toIndex: 1e9 }],
    ['a value that is too deep', { edit: 'set', nodeId: 'a', at: ['name'], value: deep(200) }],
  ])('refuses %s', async (_what, edit) => {
    expect((await put('bad', [{ ...entry(0), edits: [edit] }])).body.code).toBe('malformed')
  })
})

/** A list in a list in a list. */
function deep(levels: number): unknown {
  let value: unknown = 'x'
  for (let i = 0; i < levels; i++) value = [value]
  return value
}

describe('presence', () => {
  const listener = (name: string, told: PresenceEvent[] = [], session = name) => ({
    personId: name,
    name,
    session,
    tell: (one: PresenceEvent) => void told.push(one),
    close: (): unknown => undefined,
  })

  /** Two servers on one database, as the program starts them. */
  const two = () => {
    const log = { error: (...said: unknown[]) => expect(said).toEqual([]) }
    return [new Presence(server.services.db, log), new Presence(server.services.db, log)] as const
  }
  const isOpen = async (presence: Presence, pageId: string, tab: string) =>
    (await presence.openTabs(pageId)).has(tab)
  /** What one server writes, the other finds a moment later. */
  const soon = async (expectation: () => void | Promise<void>) => {
    for (let left = 40; ; left--) {
      try {
        return await expectation()
      } catch (error) {
        if (left === 0) throw error
        await new Promise((resolve) => setTimeout(resolve, 50))
      }
    }
  }

  test('everybody on a page learns who comes and goes, and what becomes of it, at whatever server they are', async () => {
    const [one, other] = two()
    const [ines, tarn]: [PresenceEvent[], PresenceEvent[]] = [[], []]
    const listening = [
      await one.connect('a', listener('Ines', ines)),
      await other.connect('b', listener('Tarn', tarn)),
    ]
    // Which server is told of tabs is not the one that a browser listens to.
    expect(await other.setTabs('a', 'Ines', [{ tab: 'ta', pageId: 'p' }])).toBe(true)
    await one.setTabs('b', 'Tarn', [
      { tab: 'tb', pageId: 'p' },
      { tab: 'tc', pageId: 'q' },
    ])
    await soon(() =>
      expect(ines.at(-1)).toEqual({ event: 'came', data: { pageId: 'p', tab: 'tb', name: 'Tarn' } }),
    )
    const people = [
      { tab: 'ta', name: 'Ines' },
      { tab: 'tb', name: 'Tarn' },
    ]
    await soon(() => expect(tarn[0]).toEqual({ event: 'people', data: { pageId: 'p', people } }))
    await other.saved('p', { number: 3, savedAt: '2026-01-01T00:00:00.000Z', savedBy: 'Tarn' }, 'tb')
    await soon(() =>
      expect(ines.at(-1)).toMatchObject({ event: 'saved', data: { number: 3, tab: 'tb', pageId: 'p' } }),
    )
    await other.binned('p', 'deleted', 'Tarn')
    await soon(() => expect(ines.at(-1)).toEqual({ event: 'deleted', data: { pageId: 'p', by: 'Tarn' } }))
    await other.setTabs('b', 'Tarn', [{ tab: 'tc', pageId: 'q' }])
    await soon(() => expect(ines.at(-1)).toEqual({ event: 'left', data: { pageId: 'p', tab: 'tb' } }))
    expect([
      await isOpen(one, 'p', 'ta'),
      await isOpen(one, 'p', 'tb'),
      await isOpen(one, 'q', 'tc'),
    ]).toEqual([true, false, true])
    for (const one of listening) await one.leave()
    expect(await isOpen(one, 'p', 'ta')).toBe(false)
    // Each was told of each thing once.
    expect(ines.map(({ event }) => event)).toEqual(['people', 'came', 'saved', 'deleted', 'left'])
  })

  test('a browser that comes back, to whatever server, before its old connection is found dead stays there', async () => {
    for (const [before, after] of [two(), [two()[0], two()[0]] as const]) {
      let isClosed = false
      const old = await before.connect('a', { ...listener('Ines'), close: () => (isClosed = true) })
      const again = await after.connect('a', listener('Ines'))
      await after.setTabs('a', 'Ines', [{ tab: 'ta', pageId: 'p' }])
      await soon(() => expect(isClosed).toBe(true))
      await old.leave()
      expect([await isOpen(before, 'p', 'ta'), await old.stillThere(), await again.stillThere()]).toEqual([
        true,
        false,
        true,
      ])
      await again.leave()
    }
  })

  test('browsers of a server that is gone are given up', async () => {
    const [gone, left] = two()
    const dead = await gone.connect('a', listener('Ines'))
    await gone.setTabs('a', 'Ines', [{ tab: 'ta', pageId: 'p' }])
    const told: PresenceEvent[] = []
    const mine = await left.connect('b', listener('Tarn', told))
    await left.setTabs('b', 'Tarn', [{ tab: 'tb', pageId: 'p' }])
    await server.services.db.query(
      "UPDATE browsers SET seen_at = UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE WHERE id = 'a'",
    )
    expect(await isOpen(left, 'p', 'ta')).toBe(false)
    await mine.stillThere()
    await soon(() => expect(told.at(-1)).toEqual({ event: 'left', data: { pageId: 'p', tab: 'ta' } }))
    expect(await dead.stillThere()).toBe(false)
    await Promise.all([dead.leave(), mine.leave()])
  })

  test('what is told of tabs counts only from the session that listens, and ends with it', async () => {
    const [one, other] = two()
    let isClosed = false
    await one.connect('a', { ...listener('Ines'), close: () => (isClosed = true) })
    expect(await other.setTabs('a', 'Tarn', [{ tab: 'ta', pageId: 'p' }])).toBe(false)
    await other.setTabs('a', 'Ines', [{ tab: 'ta', pageId: 'p' }])
    await other.endSession('Ines')
    await soon(() => expect(isClosed).toBe(true))
    expect(await isOpen(one, 'p', 'ta')).toBe(false)
  })

  test('a person has no more connections than a person can have: the oldest gives way', async () => {
    const [one, other] = two()
    const closed: number[] = []
    const all = []
    for (let i = 0; i < 22; i++)
      all.push(
        await (i % 2 === 0 ? one : other).connect(`m${i}`, {
          ...listener('Many'),
          close: () => closed.push(i),
        }),
      )
    await soon(() => expect(closed.sort()).toEqual([0, 1]))
    await Promise.all(all.map((one) => one.leave()))
  })

  test('what a hundred people cost to tell of one more grows with them, and not with their square', async () => {
    const cost = async (people: number): Promise<number> => {
      const told: PresenceEvent[] = []
      const [presence] = two()
      for (let i = 0; i < people; i++) {
        await presence.connect(`b${i}`, listener(`P${i}`, told))
        await presence.setTabs(`b${i}`, `P${i}`, [{ tab: `t${i}`, pageId: `of${people}` }])
      }
      told.length = 0
      await presence.connect('last', listener('Last', told))
      await presence.setTabs('last', 'Last', [{ tab: 'tlast', pageId: `of${people}` }])
      await presence.closeAll()
      return JSON.stringify(told.filter(({ event }) => event !== 'left')).length
    }
    expect((await cost(60)) / (await cost(30))).toBeLessThan(2.5)
  })

  test('is told over the wire as server-sent events, and ends when the session does', async () => {
    const { manager } = server.services.db
    await addPerson(manager, {
      login: 'guest',
      name: 'Guest',
      role: 'reviewer',
      password: 'lantern-heron-quay',
    })
    const guest = await findPersonRow(manager, 'guest')
    const token = await server.services.sessions.start(toPerson(guest!), undefined)
    const headers = { cookie: `${SESSION_COOKIE}=${token}` }
    const response = await server.editor.request('http://127.0.0.1/api/presence/browser', { headers })
    expect(response.headers.get('content-type')).toContain('text/event-stream')
    const reader = response.body!.getReader()
    const next = async () => new TextDecoder().decode((await reader.read()).value as Uint8Array | undefined)
    expect(await next()).toBe('event: connected\ndata: \n\n')
    const told = await server.editor.request('http://127.0.0.1/api/presence/browser', {
      method: 'PUT',
      headers: { ...headers, 'content-type': 'application/json' },
      body: JSON.stringify({ tabs: [{ tab: 'tabz', pageId: 'tmhome' }] }),
    })
    expect(told.status).toBe(200)
    expect(await next()).toBe(
      'event: people\ndata: {"pageId":"tmhome","people":[{"tab":"tabz","name":"Guest"}]}\n\n',
    )
    expect(await isOpen(server.services.presence, 'tmhome', 'tabz')).toBe(true)
    await server.editor.request('http://127.0.0.1/api/session', { method: 'DELETE', headers })
    expect(await isOpen(server.services.presence, 'tmhome', 'tabz')).toBe(false)
    expect((await reader.read()).done).toBe(true)
  })

  test.each([
    ['a tab that is none', { tabs: [{ tab: 'A b', pageId: 'tmhome' }] }, 400],
    ['a page that is none', { tabs: [{ tab: 'a', pageId: '../x' }] }, 400],
    [
      'far too many',
      { tabs: Array.from({ length: 101 }, (_unused, i) => ({ tab: `t${i}`, pageId: 'p' })) },
      400,
    ],
    ['tabs of a browser that does not listen', { tabs: [] }, 404],
  ])('%s are refused', async (_what, body, status) => {
    expect((await server.ask('/api/presence/nobody', { method: 'PUT', body })).status).toBe(status)
  })
})
