/** The media library through the server: what is taken, what is refused and why, and what becomes of it. */
import { deflateSync, crc32 } from 'node:zlib'
import { readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import type { ErrorBody, Picture, MediaUse, Library } from '@gullyline/core'
import { makePicture } from '../src/media/library.ts'
import type { Services } from '../src/services.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

interface Sent {
  readonly name?: string
  readonly path?: string
  readonly method?: string
  readonly type?: string
  readonly signal?: AbortSignal
}

async function send(bytes: Buffer | string, more: Sent = {}) {
  const { name = 'a.jpg', method = 'POST', type = 'application/octet-stream', signal } = more
  const path = more.path ?? `/api/sites/tarrowmoor/media?name=${encodeURIComponent(name)}`
  const response = await server.editor.request(
    new Request(`http://127.0.0.1${path}`, {
      method,
      headers: { cookie: await server.cookieOf('editor'), 'content-type': type },
      body: new Uint8Array(Buffer.from(bytes)),
      ...(signal ? { signal } : {}),
    }),
  )
  return { status: response.status, body: (await response.json()) as Picture & ErrorBody }
}
const pictures = async () => (await server.ask<Library>('/api/sites/tarrowmoor/library')).body.pictures
const painted = (width: number, height: number, alpha = false) =>
  sharp({
    create: { width, height, channels: alpha ? 4 : 3, background: { r: 40, g: 90, b: 70, alpha: 0.5 } },
  })
const folder = (id: string) => join(server.services.dataDir, 'media', id)

/** A black PNG of this many pixels, which takes next to nothing until it is opened (PNG specification, 11.2). */
function hugePng(size: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data])
    const out = Buffer.alloc(8 + body.length)
    out.writeUInt32BE(data.length, 0)
    body.copy(out, 4)
    out.writeUInt32BE(crc32(body), 4 + body.length)
    return out
  }
  const head = Buffer.alloc(13)
  head.writeUInt32BE(size, 0)
  head.writeUInt32BE(size, 4)
  head[8] = 1
  const rows = Buffer.alloc(size * (Math.ceil(size / 8) + 1))
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  return Buffer.concat([
    signature,
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ])
}

describe('a picture that is added', () => {
  test('is there in modern formats and one to fall back on, under the name it came with', async () => {
    const { status, body } = await send(await painted(900, 600).jpeg().toBuffer(), {
      name: 'Moon over the hut.jpg',
    })
    expect(status).toBe(201)
    expect(body).toMatchObject({
      name: 'Moon over the hut.jpg',
      width: 900,
      height: 600,
      alt: '',
      isDecoration: false,
    })
    expect(body.sources.map(({ width }) => width)).toEqual([320, 480, 720, 900])
    expect((await pictures())[body.id]).toEqual(body)
    const kept = await readFile(join(server.services.dataDir, 'originals', body.id))
    expect((await sharp(kept).metadata()).width).toBe(900)
  })

  test('keeps what can be seen through, and stands as the camera meant it, without saying where it was', async () => {
    const see = await send(await painted(400, 300, true).png().toBuffer())
    expect(see.body.fallback).toMatch(/fallback\.png$/)
    expect((await sharp(join(folder(see.body.id), '320.webp')).metadata()).hasAlpha).toBe(true)
    const lying = await painted(400, 200)
      .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '54/1 30/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    const { body } = await send(lying)
    expect([body.width, body.height]).toEqual([200, 400])
    for (const file of await readdir(folder(body.id)))
      expect((await sharp(join(folder(body.id), file)).metadata()).exif).toBeUndefined()
  })

  test.each(['png', 'webp', 'avif', 'gif', 'tiff'] as const)(
    'may be a %s, whatever its name says',
    async (format) => {
      const { status, body } = await send(await painted(64, 48).toFormat(format).toBuffer(), {
        name: 'x.jpg',
      })
      expect([status, body.width]).toEqual([201, 64])
    },
  )
})

describe('a drawing', () => {
  const svg = (inside: string, more = '') =>
    `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="80" height="60" ${more}><circle r="9" fill="red"/>${inside}</svg>`

  test.each([
    ['a script', '<script>alert(1)</script>'],
    ['an event', '<rect width="9" height="9" onload="alert(1)"/>'],
    ['an event of its own', '', 'onload="alert(1)"'],
    [
      'foreign markup',
      '<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><iframe src="javascript:alert(1)"/></body></foreignObject>',
    ],
    ['a link that runs', '<a xlink:href="javascript:alert(1)"><text>x</text></a>'],
    ['an animation that sets a link', '<animate attributeName="href" values="javascript:alert(1)"/>'],
    ['a file from elsewhere', '<image href="https://evil.example/x.png"/>'],
    ['a use from elsewhere', '<use href="https://evil.example/x.svg#a"/>'],
    ['a style from elsewhere', '<style>@import url(https://evil.example/x.css)</style>'],
    ['a fill from elsewhere', '<rect width="9" height="9" fill="url(https://evil.example/x.svg#a)"/>'],
    ['data in a link', '<use href="data:image/svg+xml;base64,PHN2Zz4="/>'],
  ])('is cleaned of %s, and the rest stays', async (_what, inside, more = '') => {
    const { status, body } = await send(svg(inside, more), { name: 'drawing.svg' })
    expect(status).toBe(201)
    expect([body.width, body.height, body.sources]).toEqual([80, 60, []])
    const kept = await readFile(join(folder(body.id), 'fallback.svg'), 'utf8')
    expect(kept).toContain('<circle')
    expect(kept).not.toMatch(/script|onload|foreignObject|javascript|evil|data:|@import|<a[\s>]|animate/i)
  })

  test('served by itself runs nothing: its answer forbids it', async () => {
    const { body } = await send(svg(''), { name: 'drawing.svg' })
    const answer = await server.editor.request(`http://127.0.0.1${body.fallback}`, {
      headers: { cookie: await server.cookieOf('editor') },
    })
    expect(answer.headers.get('content-type')).toMatch(/^image\/svg\+xml/)
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'self'")
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff')
  })
})

describe('what is refused, each with its reason, and leaves nothing behind', () => {
  const zip = Buffer.concat([Buffer.from('PK\u0005\u0006'), Buffer.alloc(18)])
  const halfZip = Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(200)])
  test.each([
    ['a zip named .jpg', () => zip, 'not-valid', /ZIP/],
    ['half a zip', () => halfZip, 'not-valid', /neither a picture|ZIP/],
    ['a PDF', () => Buffer.from('%PDF-1.7\n%âãÏÓ\n' + 'x'.repeat(100)), 'not-valid', /PDF/],
    ['10 MB of text', () => Buffer.alloc(10 * 1024 * 1024, 'a'), 'not-valid', /neither a picture/],
    [
      'a page of HTML',
      () => Buffer.from('<!DOCTYPE html><script>alert(1)</script>'),
      'not-valid',
      /neither a picture/,
    ],
    ['nothing', () => Buffer.alloc(0), 'not-valid', /empty/],
    ['30,000 by 30,000 pixels', () => hugePng(30_000), 'too-large', /30000 by 30000/],
    [
      'half a picture',
      async () => (await painted(600, 600).png().toBuffer()).subarray(0, 60),
      'not-valid',
      /damaged/,
    ],
    ['41 MB', () => Buffer.alloc(41 * 1024 * 1024), 'too-large', /40 MB/],
    [
      'a drawing that is nothing but a script',
      () => Buffer.from('<svg><script>alert(1)</script></svg>'),
      'not-valid',
      /./,
    ],
  ])('%s', async (_what, make, code, reason) => {
    const before = [await pictures(), (await readdir(join(server.services.dataDir, 'media'))).sort()]
    const { status, body } = await send(await make())
    expect([body.code, status >= 400 && status < 500]).toEqual([code, true])
    expect(body.message).toMatch(reason)
    expect([await pictures(), (await readdir(join(server.services.dataDir, 'media'))).sort()]).toEqual(before)
  })
  test('a file sent as something that a foreign page could send', async () => {
    for (const type of ['text/plain', 'multipart/form-data', 'image/jpeg'])
      expect((await send(await painted(9, 9).png().toBuffer(), { type })).body.code).toBe('malformed')
  })
  test('an upload that is cancelled while it waits', async () => {
    const before = await pictures()
    const cancel = new AbortController()
    const slow = send(await painted(4000, 3000).jpeg().toBuffer())
    const gone = send(await painted(300, 300).jpeg().toBuffer(), { signal: cancel.signal })
    cancel.abort()
    await slow
    expect((await gone).body.message).toContain('cancelled')
    expect(Object.keys(await pictures())).toHaveLength(Object.keys(before).length + 1)
  })
})

test('words, where it is used, and another file for it everywhere', async () => {
  const words = { name: 'The dome', alt: 'A dome on a hill', isDecoration: true }
  const patched = await server.ask<Picture>('/api/sites/tarrowmoor/media/tmdome', {
    method: 'PATCH',
    body: words,
  })
  expect(patched.body).toMatchObject(words)
  const uses = (await server.ask<MediaUse[]>('/api/sites/tarrowmoor/media/tmdome/uses')).body
  const countOn = Object.fromEntries(
    uses.flatMap((use) => ('pageId' in use ? [[use.pageId, use.count]] : [])),
  )
  expect(countOn).toMatchObject({ tmhome: 1, tmabout: expect.any(Number), tmbig: expect.any(Number) })

  const replaced = await send(await painted(700, 500).jpeg().toBuffer(), {
    method: 'PUT',
    path: '/api/sites/tarrowmoor/media/tmdome/file',
  })
  expect(replaced.body).toMatchObject({ id: 'tmdome', width: 700, alt: 'A dome on a hill' })
  const { fallback } = replaced.body
  expect(fallback).toMatch(/^\/media\/tmdomer\d+\/fallback\.jpg$/)
  const home = await (await server.site.request('http://localhost:1/')).text()
  expect(home).toContain(dirname(fallback))
  expect(home).not.toContain('/media/tmdome/')
  expect((await server.site.request(`http://localhost:1${fallback}`)).status).toBe(200)
})

test('of a picture that is replaced again and again, what it is now and what it was before is left', async () => {
  const { body: first } = await send(await painted(300, 200).png().toBuffer())
  const path = `/api/sites/tarrowmoor/media/${first.id}/file`
  const replace = async (width: number) =>
    (await send(await painted(width, 200).png().toBuffer(), { method: 'PUT', path })).body
  const second = await replace(310)
  const third = await replace(320)
  const last = await replace(330)
  const names = [first, second, third, last].map(({ fallback }) => fallback.split('/')[2]!)
  for (const kind of ['media', 'originals']) {
    const there = await readdir(join(server.services.dataDir, kind))
    expect(names.map((name) => there.includes(name))).toEqual([false, false, true, true])
  }
})

describe('a picture that was made before', () => {
  const filesOf = (picture: Picture): string => join(server.services.dataDir, dirname(picture.fallback))

  test('is copied; both stand on their own', async () => {
    const bytes = await painted(350, 210).png().toBuffer()
    const { body: first } = await send(bytes)
    // What nobody would make of it shows where the second has it from.
    await writeFile(join(filesOf(first), '320.webp'), 'of the first')
    const { body: second } = await send(bytes)
    expect(second.id).not.toBe(first.id)
    const { id: _one, fallback: _its, sources: _those, ...told } = first
    expect(second).toMatchObject(told)
    for (const name of await readdir(filesOf(first)))
      expect(await readFile(join(filesOf(second), name))).toEqual(await readFile(join(filesOf(first), name)))
    await writeFile(join(filesOf(first), '320.webp'), 'changed')
    expect(await readFile(join(filesOf(second), '320.webp'), 'utf8')).toBe('of the first')
  })

  test('is made again where its files are gone, or only some of them', async () => {
    const bytes = await painted(360, 210).png().toBuffer()
    const { body: first } = await send(bytes)
    const names = (await readdir(filesOf(first))).sort()
    await rm(join(filesOf(first), '360.avif'))
    const { body: second } = await send(bytes)
    expect((await readdir(filesOf(second))).sort()).toEqual(names)
    for (const one of [first, second]) await rm(filesOf(one), { recursive: true })
    const { status, body: third } = await send(bytes)
    expect([status, (await readdir(filesOf(third))).sort()]).toEqual([201, names])
    expect((await sharp(join(filesOf(third), '360.avif')).metadata()).width).toBe(360)
  })
})

test('a database that can’t be reached is not taken for a damaged picture', async () => {
  const db = { manager: { findOneBy: () => Promise.reject(new Error('The connection is lost')) } }
  const services = { ...server.services, db: db as unknown as Services['db'] }
  const upload = {
    name: 'a.png',
    bytes: await painted(40, 30).png().toBuffer(),
    signal: new AbortController().signal,
  }
  await expect(makePicture(services, { id: 'unmade', revision: 1 }, upload)).rejects.toThrow(
    'The connection is lost',
  )
  expect(await readdir(join(server.services.dataDir, 'media'))).not.toContain('unmade')
})

test('of two who replace a picture at once, 200 times over, one is told, and the other’s picture stands untouched', async () => {
  const { body: first } = await send(await painted(8, 6).png().toBuffer())
  const path = `/api/sites/tarrowmoor/media/${first.id}/file`
  const [narrow, wide] = [await painted(10, 6).png().toBuffer(), await painted(12, 6).png().toBuffer()]
  let told = 0
  for (let round = 0; round < 200; round++) {
    const answers = await Promise.all([
      send(narrow, { method: 'PUT', path }),
      send(wide, { method: 'PUT', path }),
    ])
    const taken = answers.filter(({ status }) => status === 200)
    const refused = answers.filter(({ status }) => status !== 200)
    for (const { body } of refused) expect(body.code).toBe('stale-save')
    // On a busy machine one may have come wholly after the other, and is taken as well.
    expect(taken).not.toEqual([])
    told += refused.length
    for (const { body } of taken) {
      const file = await readFile(join(server.services.dataDir, body.fallback))
      expect((await sharp(file).metadata()).width).toBe(body.width)
    }
    // The picture and the one before it are kept; what was refused leaves nothing.
    for (const kind of ['media', 'originals']) {
      const folders = await readdir(join(server.services.dataDir, kind))
      expect(folders.filter((name) => name.startsWith(first.id))).toHaveLength(2)
    }
  }
  expect(told).toBeGreaterThan(20)
})

test.each([
  ['PATCH', '/api/sites/tarrowmoor/media/nosuch', { alt: 'x' }],
  ['GET', '/api/sites/tarrowmoor/media/nosuch/uses', undefined],
])('%s of a picture that does not exist is not found', async (method, path, body) => {
  expect((await server.ask(path, { method, body })).body.code).toBe('not-found')
})
