/** Files that pages link to, through the server: what is taken and what not, where visitors get it, and what replacing does. */
import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type {
  ErrorBody,
  JsonObject,
  MediaUse,
  PageDocument,
  PageNode,
  SiteFile,
  Library,
} from '@gullyline/core'
import { ATTACK_WORDS } from '../../core/test/fixtures/attack-strings.ts'
import { SiteEntity } from '../src/db/rows.ts'
import { GULLYLINE, insertVersion, lockDocument } from '../src/documents/store.ts'
import { readDocument } from '../src/documents/versions.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

/** The least that each format's own standard asks of its first bytes; RFC 5545, ISO 32000-1, ID3v2 (from memory). */
const CALENDAR = 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//a//b//EN\r\nEND:VCALENDAR\r\n'
const PDF = '%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n'

async function send(
  bytes: Buffer | string,
  name: string,
  path = '/api/sites/tarrowmoor/files',
  method = 'POST',
) {
  const response = await server.editor.request(
    new Request(`http://127.0.0.1${path}?name=${encodeURIComponent(name)}`, {
      method,
      headers: { cookie: await server.cookieOf('editor'), 'content-type': 'application/octet-stream' },
      body: new Uint8Array(Buffer.from(bytes)),
    }),
  )
  return { status: response.status, body: (await response.json()) as SiteFile & ErrorBody }
}
const files = async () => (await server.ask<Library>('/api/sites/tarrowmoor/library')).body.files

/** Saves a page whose first button leads somewhere, and asks for it to go live. */
async function publishWith(link: JsonObject) {
  const { summary, document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmquestions'))
    .body
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'button')!
  const nodes = { ...document.nodes, [id]: { ...node, content: { ...node.content, link } } }
  const saved = await server.ask('/api/sites/tarrowmoor/pages/tmquestions/document', {
    method: 'PUT',
    body: { base: summary.version, document: { ...document, nodes }, journal: null },
  })
  expect(saved.status).toBe(200)
  return server.publish<ErrorBody>('tmquestions')
}
const livePage = async () => (await server.site.request('http://localhost/questions/')).text()

test.each([
  ['a calendar', 'Open nights.ics', CALENDAR, 'ics', 'open-nights.ics'],
  ['a document to print', 'Jahresbericht (2026).PDF', PDF, 'pdf', 'jahresbericht-2026.pdf'],
  ['a table', 'seats.csv', 'Night,Seats\n27 November,14\n', 'csv', 'seats.csv'],
  ['plain words', 'Lies mich – zuerst.txt', 'Grüße vom Moor\n', 'txt', 'lies-mich-zuerst.txt'],
  ['a document under a wrong name', 'plan.jpg', PDF, 'pdf', 'plan.pdf'],
])('%s is taken, under a name that is safe in any address', async (_what, name, bytes, type, file) => {
  const { status, body } = await send(bytes, name)
  expect(status).toBe(201)
  expect(body).toMatchObject({ name, type, bytes: Buffer.byteLength(bytes) })
  expect(body.path).toBe(`/files/${body.id}/${file}`)
  expect((await files())[body.id]).toEqual(body)
  expect(await readFile(join(server.services.dataDir, body.path), 'utf8')).toBe(bytes)
})

test.each([
  ['a page with a script', 'a.txt', '<!DOCTYPE html><script>alert(1)</script>', /no kind that is known/],
  ['a page that calls itself a table', 'a.csv', '  <html><body onload=alert(1)>', /no kind that is known/],
  ['a drawing', 'a.svg', '<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>', /SVG|XML|no kind/],
  ['a program', 'a.pdf', Buffer.concat([Buffer.from([0x7f]), Buffer.from('ELF\x02\x01\x01')]), /ELF/],
  ['an archive', 'a.pdf', Buffer.from([0x50, 0x4b, 3, 4, 20, 0, 0, 0, 0, 0, 0, 0]), /ZIP|no kind/],
  ['bytes that are no words', 'a.txt', Buffer.from([0x61, 0xff, 0xfe, 0]), /no kind that is known/],
  ['nothing', 'a.pdf', '', /It is empty/],
])('%s is refused with the reason, and nothing is kept', async (_what, name, bytes, reason) => {
  const before = await files()
  const { status, body } = await send(bytes, name)
  expect(status).toBe(422)
  expect(body).toMatchObject({ code: 'not-valid', problems: [] })
  expect(body.message).toMatch(reason)
  expect(body.message).toMatch(/It was not added/)
  expect(await files()).toEqual(before)
})

test('a hostile name is a name, and nothing else', async () => {
  for (const name of ['../../etc/passwd', 'C:\\a\\b.pdf', '/x/y.pdf', ...ATTACK_WORDS.slice(0, 30)]) {
    const { status, body } = await send(CALENDAR, name)
    expect(status).toBe(201)
    expect(body.path).toMatch(/^\/files\/[a-z0-9]+\/[a-z0-9-]+\.ics$/)
  }
})

test('of a name that is too long its end is kept, in whole characters', async () => {
  for (const name of [`${'🌘'.repeat(120)}.ics`, `${'🌘'.repeat(120)}s.ics`]) {
    const { body } = await send(CALENDAR, name)
    expect(body.name).toMatch(/^🌘{97,}s?\.ics$/u)
  }
})

test('visitors get the file of a live page to keep, and a newer one under a new address once it is replaced', async () => {
  const { body: file } = await send(CALENDAR, 'Nights.ics')
  expect((await publishWith({ file: file.id })).status).toBe(200)
  expect(await livePage()).toContain(`href="${file.path}"`)
  const got = await server.site.request(`http://localhost${file.path}`)
  expect(got.headers.get('content-disposition')).toBe('attachment')
  expect(got.headers.get('content-type')).toMatch(/^text\/calendar/)
  expect(await got.text()).toBe(CALENDAR)
  // What is named by its content is never asked for again; pages are, each time.
  expect(got.headers.get('cache-control')).toMatch(/immutable/)
  const asked = await server.site.request('http://localhost/questions/')
  expect(asked.headers.get('cache-control')).toBe('no-cache')

  const newer = CALENDAR.replace('//a//', '//newer//')
  const replaced = await send(
    newer,
    'Nights of winter.ics',
    `/api/sites/tarrowmoor/files/${file.id}/file`,
    'PUT',
  )
  expect(replaced.status).toBe(200)
  expect(replaced.body.path).not.toBe(file.path)
  expect(await livePage()).toContain(`href="${replaced.body.path}"`)
  expect(await (await server.site.request(`http://localhost${replaced.body.path}`)).text()).toBe(newer)

  const uses = (await server.ask<MediaUse[]>(`/api/sites/tarrowmoor/files/${file.id}/uses`)).body
  expect(uses).toEqual([{ pageId: 'tmquestions', title: 'Questions', path: '/questions/', count: 1 }])
})

test('of a file that is replaced again and again, what it is now and what it was before is left', async () => {
  const { body: first } = await send(CALENDAR, 'Nights.ics')
  const paths = [first.path]
  for (const word of ['//one//', '//two//', '//three//']) {
    const path = `/api/sites/tarrowmoor/files/${first.id}/file`
    const { body } = await send(CALENDAR.replace('//a//', word), 'Nights.ics', path, 'PUT')
    paths.push(body.path)
  }
  const there = await readdir(join(server.services.dataDir, 'files'))
  expect(paths.map((path) => there.includes(path.split('/')[2]!))).toEqual([false, false, true, true])
})

test('of two who replace a file at once, 200 times over, one is told, and what the other sent is what is handed over', async () => {
  const { body: file } = await send(CALENDAR, 'Nights.ics')
  const all = join(server.services.dataDir, 'files')
  /** Returns the file as it is now and as it was before, in no order. */
  const kept = async () => {
    const folders = (await readdir(all)).filter((name) => name.startsWith(file.id))
    return Promise.all(folders.map((name) => readFile(join(all, name, 'nights.ics'), 'utf8')))
  }
  let told = 0
  for (let round = 0; round < 200; round++) {
    const sent = ['first', 'second'].map((word) => CALENDAR.replace('//a//', `//${word} ${round}//`))
    const answers = await Promise.all(
      sent.map((words) => send(words, 'Nights.ics', `/api/sites/tarrowmoor/files/${file.id}/file`, 'PUT')),
    )
    const taken = sent.filter((_words, i) => answers[i]!.status === 200)
    // On a busy machine one may have come wholly after the other, and is taken as well.
    expect(taken).not.toEqual([])
    const there = await kept()
    expect(there).toHaveLength(2)
    expect(there).toEqual(expect.arrayContaining(taken))
    for (const [i, { status, body }] of answers.entries())
      if (status === 200) {
        // Of two that were taken, the later one may be what both are told of.
        expect(taken).toContain(await readFile(join(server.services.dataDir, body.path), 'utf8'))
      } else {
        told++
        expect(body.code).toBe('stale-save')
        expect(there).not.toContain(sent[i])
      }
  }
  expect(told).toBeGreaterThan(20)
})

test('what stands in the site’s footer is used on every page', async () => {
  const { body: file } = await send(CALENDAR, 'Everywhere.ics')
  const { db } = server.services
  const [site] = await db.getRepository(SiteEntity).find()
  const locked = await lockDocument(server.at, site!.footerId)
  const footer = readDocument(locked.newest)
  const linked: PageNode = {
    kind: 'button',
    content: { label: 'Calendar', link: { file: file.id } },
    look: {},
    sizes: { base: {} },
    slots: {},
  }
  const root = footer.nodes[footer.root]!
  const blocks = [...root.slots.blocks!, 'linked']
  const nodes = { ...footer.nodes, linked, [footer.root]: { ...root, slots: { blocks } } }
  await insertVersion(server.at, locked, { document: { ...footer, nodes }, by: GULLYLINE })
  expect((await server.ask(`/api/sites/tarrowmoor/files/${file.id}/uses`)).body).toEqual([
    { onEveryPage: 'footer', count: 1 },
  ])
  const next = await lockDocument(server.at, site!.footerId)
  await insertVersion(server.at, next, { document: footer, by: GULLYLINE })
})

test('a file that no live page links to can’t be had by visitors, and one that does not exist by nobody', async () => {
  const { body: file } = await send(CALENDAR, 'Not yet.ics')
  expect((await server.site.request(`http://localhost${file.path}`)).status).toBe(404)
  for (const path of ['/api/sites/tarrowmoor/files/nosuch/uses', '/files/nosuch/a.ics']) {
    const { status, body } = await server.ask<ErrorBody>(path)
    expect([status, body.code]).toEqual([404, 'not-found'])
  }
  const replaced = await send(CALENDAR, 'x.ics', '/api/sites/tarrowmoor/files/nosuch/file', 'PUT')
  expect([replaced.status, replaced.body.code]).toEqual([404, 'not-found'])
})

test('a link to an address elsewhere that looks like a file of ours does not stop publishing', async () => {
  const { status } = await publishWith({ href: 'https://elsewhere.example/files/abc/plan.pdf' })
  expect(status).toBe(200)
})

test('a link to a file that is gone keeps the page from going live', async () => {
  const refused = await publishWith({ file: 'nosuch' })
  expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
  expect(refused.body.problems.map(({ message }) => message)).toEqual([
    expect.stringMatching(/leads to a file that is not in the library/),
  ])
})
