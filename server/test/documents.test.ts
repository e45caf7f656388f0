/** Every version is read as it was saved, though it is stored as a difference; the newest release decides what is live. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  sameJson,
  type Json,
  type Page,
  type PageDocument,
  type PageNode,
  type PageSummary,
  type VersionInfo,
} from '@gullyline/core'
import { anyText } from '../../core/test/arbitraries/text.ts'
import { liveVersions } from '../src/documents/live.ts'
import { packState, unpackDelta, unpackWhole } from '../src/documents/states.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const query = <T>(sql: string, values: unknown[] = []): Promise<T[]> => server.services.db.query(sql, values)
const open = async (id: string) => (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
const save = (id: string, base: number, document: Page, as: 'keeper' | 'editor' = 'keeper') =>
  server.ask<PageSummary>(`/api/sites/tarrowmoor/pages/${id}/document`, {
    method: 'PUT',
    body: { base, document, journal: null },
    as,
  })

/** The page with other words in one of its headings. */
function reworded(document: Page, turn: number): Page {
  const headings = Object.entries(document.nodes).filter(([, node]) => node.kind === 'heading')
  const [id, node] = headings[turn % headings.length]!
  const text = `Words of save ${turn}`
  return { ...document, nodes: { ...document.nodes, [id]: { ...node, content: { ...node.content, text } } } }
}

/** A page of so many headings. */
function longPage({ document }: PageDocument, count: number): Page {
  const { root } = document
  const [sectionId, section] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'section')!
  const [, heading] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'heading')!
  const ids = Array.from({ length: count }, (_, i) => `h${i}`)
  const headingOf = (i: number): PageNode => ({ ...heading, content: { level: 2, text: `Heading ${i}` } })
  const own = Object.keys(document.nodes[root]!.slots)
  const slots = Object.fromEntries(own.map((slot) => [slot, slot === 'sections' ? [sectionId] : []]))
  const nodes = {
    [root]: { ...document.nodes[root]!, slots },
    [sectionId]: { ...section, slots: { blocks: ids } },
    ...Object.fromEntries(ids.map((id, i) => [id, headingOf(i)])),
  }
  return { ...document, nodes }
}

test('200 versions are read as they were saved; together they take 2 % of what so many whole ones would', async () => {
  const saved = new Map<number, Page>()
  const opened = await open('tmbig')
  let document = longPage(opened, 400)
  let base = opened.summary.version
  const first = base + 1
  for (let turn = 0; turn < 200; turn++) {
    const { status, body } = await save('tmbig', base, document)
    expect(status).toBe(200)
    base = body.version
    saved.set(base, document)
    document = reworded(document, turn * 7)
  }
  for (const [number, page] of saved) {
    const { body } = await server.ask<Page>(`/api/sites/tarrowmoor/pages/tmbig/versions/${number}`)
    // Told in a hundredth of the time that a matcher takes for a page as long.
    expect([number, sameJson(body as unknown as Json, page as unknown as Json)]).toEqual([number, true])
  }
  const [stored] = await query<{ bytes: string; whole: string }>(
    `SELECT SUM(LENGTH(state)) AS bytes, SUM(base IS NULL) AS whole FROM versions
     WHERE document_id = 'tmbig' AND number >= ?`,
    [first],
  )
  const whole = [...saved.values()].reduce((sum, page) => sum + JSON.stringify(page).length, 0)
  expect(Number(stored!.bytes) / whole).toBeLessThan(0.02)
  // Some are whole ones, so that no difference grows without end.
  expect(Number(stored!.whole)).toBeGreaterThan(1)
})

test('a state is read as it was packed, against any other that is stored whole', async () => {
  let differences = 0
  const text = anyText(40)
  const nodes = fc.dictionary(
    fc.stringMatching(/^[a-z]{1,2}$/),
    fc.record({
      kind: fc.constant('heading'),
      content: fc.record({ text, level: fc.constantFrom(1, 2) }),
      look: fc.constant({}),
      sizes: fc.constant({ base: {} }),
      slots: fc.constant({}),
    }),
    // As many as asked, so that a few that change are often little beside the whole.
    { minKeys: 10, maxKeys: 60, size: 'max' },
  )
  const page = nodes.map((all) => ({ format: 4, root: 'a', nodes: all }) as unknown as Page)
  await fc.assert(
    fc.asyncProperty(page, page, fc.integer({ min: 0, max: 5 }), async (one, other, changes) => {
      const ids = Object.keys(other.nodes).slice(0, changes)
      const next = {
        ...one,
        nodes: { ...one.nodes, ...Object.fromEntries(ids.map((id) => [id, other.nodes[id]!])) },
      }
      const first = await packState(one, undefined)
      const before = { number: 4, bytes: first.state.length, document: one }
      const packed = await packState(next, before)
      expect([null, 4]).toContain(packed.base)
      if (packed.base !== null) differences++
      const read =
        packed.base === null ? await unpackWhole(packed.state) : await unpackDelta(packed.state, one)
      expect(read).toEqual(JSON.parse(JSON.stringify(next)))
    }),
    { numRuns: 200 },
  )
  expect(differences).toBeGreaterThan(20)
})

test('versions say what changed and who saved it, and are listed in parts', async () => {
  const listed = (await server.ask<VersionInfo[]>('/api/sites/tarrowmoor/pages/tmbig/versions')).body
  expect(listed).toHaveLength(50)
  const numbers = listed.map(({ number }) => number)
  expect(numbers).toEqual([...numbers].sort((a, b) => b - a))
  const before = numbers.at(-1)!
  const next = (
    await server.ask<VersionInfo[]>(`/api/sites/tarrowmoor/pages/tmbig/versions?before=${before}`)
  ).body
  expect(next[0]!.number).toBe(before - 1)
  expect((await server.ask('/api/sites/tarrowmoor/pages/tmbig/versions?before=all')).status).toBe(400)
  const opened = await open('tmabout')
  await save('tmabout', opened.summary.version, reworded(opened.document, 1), 'editor')
  const [newest] = (await server.ask<VersionInfo[]>('/api/sites/tarrowmoor/pages/tmabout/versions')).body
  expect(newest).toMatchObject({
    savedBy: 'Ines',
    changes: [expect.stringMatching(/^Changed text of heading “/)],
  })
  const [row] = await query<{ login: string }>(
    `SELECT p.login FROM versions v JOIN people p ON p.id = v.person_id
     WHERE v.document_id = 'tmabout' ORDER BY v.number DESC LIMIT 1`,
  )
  expect(row).toEqual({ login: 'ines' })
})

test('a page is saved whatever characters stand where the list of versions cuts its words', async () => {
  const { document, summary } = await open('tmfriend')
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'heading')!
  let base = summary.version
  // Of the first two, one is cut between the halves of a character, which MariaDB takes in no JSON.
  for (const text of ['🌘'.repeat(60), `x${'🌘'.repeat(60)}`, 'After both']) {
    const nodes = { ...document.nodes, [id]: { ...node, content: { ...node.content, text } } }
    const saved = await save('tmfriend', base, { ...document, nodes })
    expect(saved.status).toBe(200)
    base = saved.body.version
  }
  const versions = (await server.ask<VersionInfo[]>('/api/sites/tarrowmoor/pages/tmfriend/versions')).body
  for (const { changes } of versions.slice(0, 2))
    expect(changes).toEqual([expect.stringMatching(/^Changed text of heading “x?🌘+…”$/u)])
})

test('what is live of each document is what the newest release of it says, whatever was published and taken back', async () => {
  const ids = ['tmabout', 'tmvisit', 'tmnews'] as const
  const expected = new Map<string, number | undefined>()
  for (const id of ids) expected.set(id, (await liveVersions(server.at)).get(id)?.version)
  const step = fc.tuple(fc.constantFrom(...ids), fc.constantFrom('save', 'publish', 'unpublish', 'move'))
  const steps = fc.sample(step, { numRuns: 60, seed: 11 })
  for (const [id, act] of steps) {
    const { document, summary } = await open(id)
    if (act === 'save') await save(id, summary.version, reworded(document, summary.version))
    if (act === 'publish' && (await server.publish(id)).status === 200) expected.set(id, summary.version)
    if (act === 'unpublish') {
      await server.ask(`/api/sites/tarrowmoor/pages/${id}/unpublish`, { method: 'POST', body: {} })
      expected.set(id, undefined)
    }
    if (act === 'move')
      await server.ask(`/api/sites/tarrowmoor/pages/${id}/place`, {
        method: 'POST',
        body: { parentId: null, position: 2 },
      })
    const live = await liveVersions(server.at)
    for (const one of ids) expect(live.get(one)?.version).toBe(expected.get(one))
    const visited = await server.site.request(`http://localhost${summary.path}`)
    expect(visited.status).toBe(expected.get(id) === undefined ? 404 : 200)
  }
  expect(new Set(steps.map(([, act]) => act)).size).toBe(4)
  const [released] = await query<{ count: string }>('SELECT COUNT(*) AS count FROM releases')
  expect(Number(released!.count)).toBeGreaterThan(10)
})
