import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type {
  Edit,
  JournalEntry,
  KeptJournal,
  PageDocument,
  PageSummary,
  Present,
  Role,
} from '@gullyline/core'
import { Presence, type PresenceEvent } from '../src/presence/presence.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
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
  server.ask(`/api/pages/${page}/journal/${tab}`, { method: 'POST', body: { entries }, as: as ?? 'editor' })
const read = async (as: Role = 'editor', page = 'tmabout') =>
  (await server.ask<KeptJournal[]>(`/api/pages/${page}/journal`, { as })).body as unknown as KeptJournal[]

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
    await server.ask('/api/pages/tmabout/journal/tab1', { method: 'DELETE', as: 'keeper' })
    expect(await read('keeper')).toEqual([])
    expect((await read())[0]!.entries).toHaveLength(3)
  })

  test('forgets with a save what the save holds, and only then', async () => {
    const { document, summary } = (await server.ask<PageDocument>('/api/pages/tmabout')).body
    const save = (base: number) =>
      server.ask<PageSummary>('/api/pages/tmabout/document', {
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
    expect((await keep([entry(0)], { tab: 'a%20b' })).status).toBe(400)
    expect((await keep([entry(0)], { tab: 'x'.repeat(25) })).status).toBe(400)
  })
})

describe('presence', () => {
  const people = (told: readonly PresenceEvent[]): readonly Present[] => {
    const last = told.filter((one) => one.event === 'people').at(-1)
    return last ? last.data : []
  }

  test('everybody on a page learns who comes and goes, and when it is saved', () => {
    const presence = new Presence()
    const [ines, tarn]: PresenceEvent[][] = [[], []]
    const leave = presence.join('p', { tab: 'a', name: 'Ines' }, (told) => ines!.push(told))
    presence.join('q', { tab: 'c', name: 'Elsewhere' }, () => undefined)
    const leaveTarn = presence.join('p', { tab: 'b', name: 'Tarn' }, (told) => tarn!.push(told))
    expect(people(ines!)).toEqual([
      { tab: 'a', name: 'Ines' },
      { tab: 'b', name: 'Tarn' },
    ])
    presence.saved('p', { number: 3, savedAt: '2026-01-01T00:00:00.000Z', savedBy: 'Tarn' }, 'b')
    expect(ines!.at(-1)).toMatchObject({ event: 'saved', data: { number: 3, tab: 'b' } })
    leaveTarn()
    expect(people(ines!)).toEqual([{ tab: 'a', name: 'Ines' }])
    expect(presence.isOpen('p', 'a')).toBe(true)
    leave()
    expect(presence.isOpen('p', 'a')).toBe(false)
  })

  test('a tab that comes back before its old connection is found dead stays there', () => {
    const presence = new Presence()
    const leaveOld = presence.join('p', { tab: 'a', name: 'Ines' }, () => undefined)
    presence.join('p', { tab: 'a', name: 'Ines' }, () => undefined)
    leaveOld()
    expect(presence.isOpen('p', 'a')).toBe(true)
  })

  test('is told over the wire as server-sent events', async () => {
    const response = await server.editor.request('http://127.0.0.1/api/pages/tmhome/presence/tabz', {
      headers: { cookie: await server.cookieOf('reviewer') },
    })
    expect(response.headers.get('content-type')).toContain('text/event-stream')
    const reader = response.body!.getReader()
    const first = new TextDecoder().decode((await reader.read()).value)
    expect(first).toBe('event: people\ndata: [{"tab":"tabz","name":"Moss"}]\n\n')
    expect(server.services.presence.isOpen('tmhome', 'tabz')).toBe(true)
    await reader.cancel()
    expect(server.services.presence.isOpen('tmhome', 'tabz')).toBe(false)
  })
})
