/** What visitors are answered: conditional requests, ranges and codings by RFC 9110, and what search engines ask for. */
import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import robotsParser from 'robots-parser'
import { faultsBySchema } from './by-schema.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const ORIGIN = 'http://localhost:1'
const get = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  server.site.request(ORIGIN + path, { method, headers })
const facts = async (answer: Response) => [answer.status, await answer.text()] as const

describe('a page', () => {
  test('that did not change is answered with 304 and no body, by its tag and by its date', async () => {
    const first = await get('/visit/')
    const tag = first.headers.get('etag')!
    expect(tag).toMatch(/^"[\w-]{16}"$/)
    expect(first.headers.get('cache-control')).toBe('no-cache')
    for (const headers of [
      { 'if-none-match': tag },
      { 'if-none-match': `"other", W/${tag}` },
      { 'if-none-match': '*' },
      { 'if-modified-since': first.headers.get('last-modified')! },
    ] as Record<string, string>[]) {
      const again = await get('/visit/', headers)
      expect([...(await facts(again)), again.headers.get('etag')]).toEqual([304, '', tag])
    }
    // The tag counts where both are given (13.2.2), and a date that is none is ignored (13.1.3).
    for (const headers of [
      { 'if-none-match': '"other"', 'if-modified-since': first.headers.get('last-modified')! },
      { 'if-modified-since': 'yesterday' },
      { 'if-modified-since': 'Sat, 01 Jan 2000 00:00:00 GMT' },
    ] as Record<string, string>[])
      expect((await get('/visit/', headers)).status).toBe(200)
  })

  test('stays the same for browsers when another page is published', async () => {
    const before = await get('/about/')
    expect((await server.publish('tmvisit')).status).toBe(200)
    const after = await get('/about/')
    for (const name of ['etag', 'last-modified'])
      expect(after.headers.get(name)).toBe(before.headers.get(name))
  })

  test('is sent compressed to those who take that, each coding with a tag of its own', async () => {
    const plain = await (await get('/visit/')).text()
    const decoders = { br: brotliDecompressSync, gzip: gunzipSync }
    for (const [accept, coding] of [
      ['gzip, deflate, br', 'br'],
      ['gzip', 'gzip'],
      ['br;q=0, gzip;q=0.5', 'gzip'],
      ['*', 'br'],
    ] as const) {
      const answer = await get('/visit/', { 'accept-encoding': accept })
      expect(answer.headers.get('content-encoding')).toBe(coding)
      expect(answer.headers.get('etag')).toMatch(new RegExp(`-${coding}"$`))
      expect(answer.headers.get('vary')).toBe('Accept-Encoding')
      const bytes = Buffer.from(await answer.arrayBuffer())
      expect(bytes.length).toBeLessThan(plain.length / 2.5)
      expect(answer.headers.get('content-length')).toBe(String(bytes.length))
      expect(decoders[coding](bytes).toString()).toBe(plain)
      const again = await get('/visit/', {
        'accept-encoding': accept,
        'if-none-match': answer.headers.get('etag')!,
      })
      expect(again.status).toBe(304)
    }
    for (const accept of ['identity', 'br;q=0', 'deflate', ''])
      expect((await get('/visit/', { 'accept-encoding': accept })).headers.get('content-encoding')).toBeNull()
  })

  test('is asked for with GET and HEAD alone, and a precondition that fails ends the request', async () => {
    const head = await get('/visit/', {}, 'HEAD')
    const whole = await (await get('/visit/')).text()
    expect([...(await facts(head)), head.headers.get('content-length')]).toEqual([
      200,
      '',
      String(Buffer.byteLength(whole)),
    ])
    for (const method of ['POST', 'PUT', 'DELETE', 'OPTIONS']) {
      const refused = await get('/visit/', {}, method)
      expect([refused.status, refused.headers.get('allow')]).toEqual([405, 'GET, HEAD'])
    }
    const tag = head.headers.get('etag')!
    expect((await get('/visit/', { 'if-match': tag })).status).toBe(200)
    expect((await get('/visit/', { 'if-match': `W/${tag}` })).status).toBe(412)
    expect((await get('/visit/', { 'if-match': '"other"' })).status).toBe(412)
    expect((await get('/visit/', { 'if-unmodified-since': 'Sat, 01 Jan 2000 00:00:00 GMT' })).status).toBe(
      412,
    )
  })
})

describe('a part of a file', () => {
  test('is sent as it was asked for, and the whole where it was asked for otherwise', async () => {
    const whole = await (await get('/visit/')).text()
    const size = Buffer.byteLength(whole)
    const bytes = Buffer.from(whole)
    for (const [range, start, end] of [
      ['bytes=0-9', 0, 9],
      ['bytes=10-', 10, size - 1],
      ['bytes=-5', size - 5, size - 1],
      [`bytes=5-${size + 100}`, 5, size - 1],
    ] as const) {
      const answer = await get('/visit/', { range, 'accept-encoding': 'br' })
      expect(answer.headers.get('content-range')).toBe(`bytes ${start}-${end}/${size}`)
      expect(await facts(answer)).toEqual([206, bytes.subarray(start, end + 1).toString()])
    }
    for (const range of ['bytes=9-3', 'bytes=-', 'lines=1-2', 'bytes=0-1,3-4'])
      expect(await facts(await get('/visit/', { range }))).toEqual([200, whole])
    const beyond = await get('/visit/', { range: `bytes=${size}-` })
    expect([beyond.status, beyond.headers.get('content-range')]).toEqual([416, `bytes */${size}`])
  })

  test('is sent only while the file is the one that the first part came from', async () => {
    const tag = (await get('/visit/')).headers.get('etag')!
    const range = 'bytes=0-9'
    expect((await get('/visit/', { range, 'if-range': tag })).status).toBe(206)
    expect((await get('/visit/', { range, 'if-range': '"other"' })).status).toBe(200)
    expect((await get('/visit/', { range, 'if-range': 'Sat, 01 Jan 2000 00:00:00 GMT' })).status).toBe(200)
  })
})

describe('an address', () => {
  test('without its slash leads to the one with it, with its query', async () => {
    const moved = await get('/visit?from=mail')
    expect([moved.status, moved.headers.get('location')]).toEqual([301, '/visit/?from=mail'])
  })

  test('that does not exist gets the site’s own page for that, which can be changed', async () => {
    const missing = await get('/no-such-page/')
    const html = await missing.text()
    expect(missing.status).toBe(404)
    expect(html).toContain('<title>Page not found · Tarrowmoor Observatory</title>')
    expect(html).toContain('noindex')
    expect(html).toContain('class="site-header')
    const { notFoundPageId } = (await server.ask<{ notFoundPageId: string }>('/api/sites/tarrowmoor')).body
    for (const [method, path, body] of [
      ['DELETE', '', undefined],
      ['POST', '/unpublish', {}],
      ['POST', '/place', { parentId: 'tmvisit', position: 0 }],
      ['PATCH', '', { slug: 'other' }],
    ] as const) {
      const { status, body: refusal } = await server.ask(
        `/api/sites/tarrowmoor/pages/${notFoundPageId}${path}`,
        {
          method,
          body,
        },
      )
      expect([status, refusal.message]).toEqual([
        422,
        expect.stringMatching(/^The 404 page of the site can’t be/),
      ])
    }
  })

  test.each(['/../../etc/passwd', '/%2e%2e/%2e%2e/etc/passwd', '/..%5c..%5c', '/%00', '/%'])(
    'that leads outside or is none, %s, is not found',
    async (path) => {
      const answer = await server.site.request(`${ORIGIN}${path}`)
      expect(answer.status).toBe(404)
    },
  )
})

test('what was taken from visitors is gone for them, and back once it is published again', async () => {
  const { status, body } = await server.ask<{ state: string }>(
    '/api/sites/tarrowmoor/pages/tmfriend/unpublish',
    {
      method: 'POST',
      body: {},
      as: 'reviewer',
    },
  )
  expect([status, body.state]).toEqual([200, 'never-published'])
  expect((await get('/friend/')).status).toBe(404)
  expect(await (await get('/sitemap.xml')).text()).not.toContain('/friend/')
  expect((await server.publish('tmfriend')).status).toBe(200)
  expect((await get('/friend/')).status).toBe(200)
  const home = await server.ask('/api/sites/tarrowmoor/pages/tmhome/unpublish', { method: 'POST', body: {} })
  expect([home.status, home.body.message]).toEqual([
    422,
    'The home page of the site can’t be unpublished. Nothing was changed.',
  ])
})

describe('search engines', () => {
  test('may read everything, and are told where the sitemap is (RFC 9309)', async () => {
    const robots = await get('/robots.txt')
    expect(robots.headers.get('content-type')).toBe('text/plain; charset=utf-8')
    const text = await robots.text()
    // Read by a parser of others, for a crawler that the file does not name.
    const rules = robotsParser(`${ORIGIN}/robots.txt`, text)
    for (const path of ['/', '/visit/', '/media/x.jpg', '/friend/'])
      expect([path, rules.isAllowed(ORIGIN + path, 'AnyCrawler')]).toEqual([path, true])
    expect(rules.getSitemaps()).toEqual([`${ORIGIN}/sitemap.xml`])
  })

  test('get every page that may be listed, by the schema of sitemaps.org', async () => {
    const answer = await get('/sitemap.xml')
    const xml = await answer.text()
    expect(await faultsBySchema(xml, 'sitemap-0.9.xsd')).toEqual([])
    expect(await faultsBySchema(xml.replace('<loc>', '<location>'), 'sitemap-0.9.xsd')).not.toEqual([])
    const entries = xml.matchAll(
      /<url><loc>([^<]+)<\/loc><lastmod>\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d+Z<\/lastmod><\/url>/g,
    )
    const found = [...entries].map(([, address]) => address!)
    const { body: pages } = await server.ask<{ path: string; more: { isListed: boolean } }[]>(
      '/api/sites/tarrowmoor/pages',
    )
    const listed = pages.filter(({ more, path }) => more.isListed && path !== '/404/')
    expect(found.sort()).toEqual(listed.map(({ path }) => ORIGIN + path).sort())
    for (const address of found) expect((await server.site.request(address)).status).toBe(200)
  })
})
