/** Header and footer through the server: saved with a page or not at all, live with it, never without having been named. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type {
  ErrorBody,
  KeptJournal,
  Page,
  PageDocument,
  PageNode,
  PublishResult,
  SaveResult,
  SharedSave,
  SiteInfo,
  VersionInfo,
} from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

const ROUNDS = 200

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const site = async () => (await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body
const open = async (id: string) => (await server.ask<PageDocument>(`/api/sites/tarrowmoor/pages/${id}`)).body
const save = (id: string, body: object) =>
  server.ask<SaveResult>(`/api/sites/tarrowmoor/pages/${id}/document`, {
    method: 'PUT',
    body: { journal: null, ...body },
  })

/** The header with another name in it. */
function branded(header: Page, brand: string): Page {
  const root = header.nodes[header.root]!
  return { ...header, nodes: { ...header.nodes, [header.root]: { ...root, content: { brand } } } }
}

async function headerSave(brand: string): Promise<SharedSave> {
  const { header, shared } = await site()
  return { id: shared.header.id, base: shared.header.version, document: branded(header, brand) }
}

test('a header is saved from a page that did not change, with its own version and what changed in it', async () => {
  const { summary } = await open('tmvisit')
  const header = await headerSave('Tarrowmoor Hill')
  const { status, body } = await save('tmvisit', { base: summary.version, shared: [header] })
  expect([status, body.version, body.shared]).toEqual([
    200,
    summary.version,
    { [header.id]: header.base + 1 },
  ])
  const [newest] = (await server.ask<VersionInfo[]>(`/api/sites/tarrowmoor/documents/${header.id}/versions`))
    .body
  expect(newest).toMatchObject({
    number: header.base + 1,
    savedBy: 'Tarn',
    changes: [expect.stringMatching(/header/)],
  })
  const read = await server.ask<Page>(
    `/api/sites/tarrowmoor/documents/${header.id}/versions/${header.base + 1}`,
  )
  expect(read.body).toEqual(header.document)
  expect(
    (await server.ask<VersionInfo[]>('/api/sites/tarrowmoor/pages/tmvisit/versions')).body[0]!.number,
  ).toBe(summary.version)
})

test(`of two who save a page with the header at once, ${ROUNDS} times, one has all of it and the other nothing`, async () => {
  for (let round = 0; round < ROUNDS; round++) {
    const [visit, about] = [await open('tmvisit'), await open('tmabout')]
    const [one, other] = [await headerSave(`One ${round}`), await headerSave(`Other ${round}`)]
    const both = await Promise.all([
      save('tmvisit', { base: visit.summary.version, document: visit.document, shared: [one] }),
      save('tmabout', { base: about.summary.version, document: about.document, shared: [other] }),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const refused = both.find(({ status }) => status === 409)!.body as unknown as ErrorBody
    expect([refused.code, refused.stale?.map(({ documentId }) => documentId)]).toEqual([
      'stale-save',
      [one.id],
    ])
    const now = [await open('tmvisit'), await open('tmabout')]
    const isFirst = both[0].status === 200
    expect(now.map(({ summary }) => summary.version)).toEqual([
      visit.summary.version + (isFirst ? 1 : 0),
      about.summary.version + (isFirst ? 0 : 1),
    ])
    const { header } = await site()
    expect(header.nodes[header.root]!.content.brand).toBe(isFirst ? `One ${round}` : `Other ${round}`)
  }
})

test('the same save sent twice is saved once, page and header alike', async () => {
  const { document, summary } = await open('tmvisit')
  const body = { base: summary.version, document, shared: [await headerSave('Twice')], saveId: 'twice1' }
  const [first, second] = [await save('tmvisit', body), await save('tmvisit', body)]
  expect([first.status, second.status]).toEqual([200, 200])
  expect(second.body).toEqual(first.body)
})

test.each<[string, (good: SharedSave) => unknown, number, string]>([
  ['another page', () => ({ id: 'tmabout', base: 1, document: {} }), 404, 'not-found'],
  ['what does not exist', (good) => ({ ...good, id: 'nosuch' }), 404, 'not-found'],
  [
    'a page as a header',
    (good) => ({ ...good, document: { format: 4, root: 'a', nodes: {} } }),
    422,
    'not-valid',
  ],
  ['no number', ({ base: _base, ...good }) => good, 400, 'malformed'],
  ['no document', ({ document: _document, ...good }) => good, 400, 'malformed'],
  ['nothing', () => null, 400, 'malformed'],
  ['an older version', (good) => ({ ...good, base: 1 }), 409, 'stale-save'],
])(
  'a save with %s as a shared section is refused, and nothing of it is saved',
  async (_what, change, status, code) => {
    const before = [await site(), await open('tmvisit')]
    const { document, summary } = await open('tmvisit')
    const shared = [change(await headerSave('Refused'))]
    const answer = await save('tmvisit', { base: summary.version, document, shared })
    expect([answer.status, (answer.body as unknown as ErrorBody).code]).toEqual([status, code])
    expect([await site(), await open('tmvisit')]).toEqual(before)
  },
)

test('a save that holds nothing, one document twice, or too many is refused', async () => {
  const { summary } = await open('tmvisit')
  const one = await headerSave('Twice over')
  for (const shared of [
    undefined,
    [],
    [one, one],
    Array.from({ length: 51 }, (_, i) => ({ ...one, id: `x${i}` })),
  ]) {
    const answer = await save('tmvisit', { base: summary.version, ...(shared ? { shared } : {}) })
    expect([answer.status, (answer.body as unknown as ErrorBody).code]).toEqual([400, 'malformed'])
  }
})

test('a header goes live with the page that it is published with, on every page, and an older one never again', async () => {
  const { summary } = await open('tmvisit')
  const publish = (shared: object, version = summary.version) =>
    server.ask<PublishResult>('/api/sites/tarrowmoor/pages/tmvisit/publish', {
      method: 'POST',
      body: { version, shared },
    })
  const header = await headerSave('Live now')
  const saved = await save('tmvisit', { base: summary.version, shared: [header] })
  const about = async () => (await server.site.request('http://localhost/about/')).text()
  // Another page that is published takes along no header that was not named.
  await server.publish('tmabout')
  expect(await about()).not.toContain('Live now')
  expect((await publish(saved.body.shared)).status).toBe(200)
  expect(await about()).toContain('>Live now</a>')
  expect((await site()).shared.header).toMatchObject({ liveVersion: header.base + 1 })
  for (const [shared, status, code] of [
    [{ [header.id]: header.base }, 409, 'stale-publish'],
    [{ [header.id]: 999 }, 404, 'not-found'],
    [{ tmabout: 1 }, 404, 'not-found'],
    [{ nosuch: 1 }, 404, 'not-found'],
    [['tmabout'], 400, 'malformed'],
    [{ [header.id]: 'all' }, 400, 'malformed'],
  ] as const) {
    const { status: got, body } = await publish(shared)
    expect([got, (body as unknown as ErrorBody).code]).toEqual([status, code])
  }
  expect(await about()).toContain('>Live now</a>')
})

test('a footer with a problem that stops publishing goes live with no page, and says where it is', async () => {
  const { summary } = await open('tmvisit')
  const { footer, shared } = await site()
  const link: PageNode = {
    kind: 'button',
    content: { text: 'Gone', link: { page: 'nosuch' } },
    look: {},
    sizes: { base: {} },
    slots: {},
  }
  const root = footer.nodes[footer.root]!
  const nodes = { [footer.root]: { ...root, slots: { blocks: ['gone'] } }, gone: link }
  const broken = { id: shared.footer.id, base: shared.footer.version, document: { ...footer, nodes } }
  const saved = await save('tmvisit', { base: summary.version, shared: [broken] })
  expect(saved.status).toBe(200)
  const refused = await server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmvisit/publish', {
    method: 'POST',
    body: { version: summary.version, shared: saved.body.shared },
  })
  expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
  expect(refused.body.message).toMatch(/one problem to fix in the footer first/)
  expect(refused.body.problems.map(({ pointer }) => pointer)).toEqual(['/nodes/gone'])
  // A footer alone is asked for no main heading, and a page goes live without it.
  expect((await server.publish('tmvisit')).status).toBe(200)
  const again = { id: shared.footer.id, base: shared.footer.version + 1, document: footer }
  expect((await save('tmvisit', { base: summary.version, shared: [again] })).status).toBe(200)
})

test('what is journaled of a header stands on its version, and on the new one once that was saved', async () => {
  const { summary } = await open('tmvisit')
  const header = await headerSave('Journaled')
  const shared = { header: header.base, footer: 1 }
  const set = { edit: 'set', nodeId: header.document.root, at: ['content', 'brand'], value: 'Journaled' }
  const entry = (number: number) => ({
    number,
    base: summary.version,
    shared,
    at: 1_700_000_000_000,
    edits: [set],
  })
  const path = '/api/sites/tarrowmoor/pages/tmvisit/journal'
  const sent = await server.ask(`${path}/tab1`, { method: 'POST', body: { entries: [entry(0), entry(1)] } })
  expect(sent.status).toBe(200)
  const kept = async () =>
    (await server.ask<KeptJournal[]>(path)).body.find(({ tab }) => tab === 'tab1')!.entries
  expect((await kept()).map((one) => one.shared)).toEqual([shared, shared])
  await save('tmvisit', { base: summary.version, shared: [header], journal: { tab: 'tab1', until: 1 } })
  expect(await kept()).toMatchObject([
    { number: 1, base: summary.version, shared: { header: header.base + 1, footer: 1 } },
  ])
  for (const bad of [{ header: 'x' }, { header: 1.5 }, { footer: 2 ** 40 }]) {
    const refused = await server.ask<ErrorBody>(`${path}/tab1`, {
      method: 'POST',
      body: { entries: [{ ...entry(2), shared: bad }] },
    })
    expect(refused.status).toBe(400)
  }
})
