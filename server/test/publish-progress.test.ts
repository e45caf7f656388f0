/** A publish that makes many pages says how far it is, and can be cancelled until it is done. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { ErrorBody, PageDocument, ProgressLine, PublishResult, SiteInfo } from '@gullyline/core'
import { Releases } from '../src/publish/manifest.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

type Line = ProgressLine<PublishResult>
const SITE = '/api/sites/tarrowmoor'
const current = () => new Releases(server.services.dataDir).current('tarrowmoor')
const header = async () => (await server.site.request('http://localhost/visit/')).text()

/** Saves another name in the header, and gives the publish that brings it to every page. */
async function rebranded(brand: string) {
  const { header: document, shared } = (await server.ask<SiteInfo>(SITE)).body
  const { summary } = (await server.ask<PageDocument>(`${SITE}/pages/tmvisit`)).body
  const root = document.nodes[document.root]!
  const nodes = { ...document.nodes, [document.root]: { ...root, content: { ...root.content, brand } } }
  const { id, version } = shared.header
  const body = {
    base: summary.version,
    shared: [{ id, base: version, document: { ...document, nodes } }],
    journal: null,
  }
  expect((await server.ask(`${SITE}/pages/tmvisit/document`, { method: 'PUT', body })).status).toBe(200)
  return { version: summary.version, shared: { [id]: version + 1 } }
}

async function publishInLines(
  body: object,
  onLine: (line: Line) => void,
  signal = new AbortController().signal,
) {
  const response = await server.editor.request(
    new Request(`http://127.0.0.1${SITE}/pages/tmvisit/publish`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: {
        cookie: await server.cookieOf('keeper'),
        'content-type': 'application/json',
        accept: 'application/x-ndjson',
      },
      signal,
    }),
  )
  let rest = ''
  for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
    const lines = (rest + part).split('\n')
    rest = lines.pop()!
    for (const line of lines) onLine(JSON.parse(line) as Line)
  }
  return { status: response.status, type: response.headers.get('content-type'), rest }
}

test('how many pages are made is told until all are, and then what came of it', async () => {
  const lines: Line[] = []
  const { type, rest } = await publishInLines(await rebranded('Tarrowmoor Hill'), (line) => lines.push(line))
  expect([type, rest]).toEqual(['application/x-ndjson', ''])
  const last = lines.pop()!
  expect('result' in last && last.result.url).toMatch(/\/visit\/$/)
  const told = lines.flatMap((line) => ('done' in line ? [line] : []))
  expect(told).toHaveLength(lines.length)
  expect(told.at(-1)!.done).toBe(told.at(-1)!.total)
  // All pages show the header.
  expect(told.at(-1)!.total).toBeGreaterThan(15)
  expect(told.map(({ done }) => done)).toEqual(told.map(({ done }) => done).toSorted((a, b) => a - b))
  expect(await header()).toContain('Tarrowmoor Hill')
})

test('cancelled while pages are made, nothing is live of it and nothing is left of it; asked again, it is done', async () => {
  const body = await rebranded('Tarrowmoor Deep')
  const before = current()
  const controller = new AbortController()
  const lines: Line[] = []
  await publishInLines(
    body,
    (line) => {
      lines.push(line)
      controller.abort()
    },
    controller.signal,
  ).catch(() => undefined)
  // The next publish waits for the one that was cancelled to be over.
  expect(lines.some((line) => 'result' in line)).toBe(false)
  const again = await server.ask(`${SITE}/pages/tmabout/publish`, { method: 'POST', body: { version: 1 } })
  expect(again.status).toBe(200)
  expect(await header()).not.toContain('Tarrowmoor Deep')
  expect(current()).not.toBe(before)
  expect((await server.ask(`${SITE}/pages/tmvisit/publish`, { method: 'POST', body })).status).toBe(200)
  expect(await header()).toContain('Tarrowmoor Deep')
})

test('what is refused is told as a line once the act has begun, and as ever before it', async () => {
  const lines: Line[] = []
  await publishInLines({ version: 999 }, (line) => lines.push(line))
  expect(lines).toEqual([{ error: expect.objectContaining({ code: 'not-found' }) as unknown as ErrorBody }])
  const { status, rest } = await publishInLines({ version: 'newest' }, (line) => lines.push(line))
  expect([status, (JSON.parse(rest) as ErrorBody).code]).toEqual([400, 'malformed'])
})
