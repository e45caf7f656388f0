/** Settings of the site, what they allow on pages, and the search. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ErrorBody, PageDocument, SiteInfo, TextHit } from '@gullyline/core'
import { addPerson } from '../src/people/store.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const publish = () => server.publish<ErrorBody>('tmquestions', 'editor')
const allow = (ownValues: boolean) =>
  server.ask<SiteInfo>('/api/sites/tarrowmoor/settings', { method: 'PUT', body: { ownValues } })
const liveCss = async () => {
  const html = await (await server.site.request('http://localhost/questions/')).text()
  const [, path] = /href="(\/styles\/[^"]+)"/.exec(html)!
  return (await server.site.request(`http://localhost${path}`)).text()
}

test('a page with a value outside the look is saved, and goes live only where the keeper allows it', async () => {
  const { summary, document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmquestions'))
    .body
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'section')!
  const section = {
    ...node,
    look: { ...node.look, surface: '#f7e2c4' },
    sizes: { ...node.sizes, base: { ...node.sizes.base, above: '48px' } },
  }
  const saved = await server.ask('/api/sites/tarrowmoor/pages/tmquestions/document', {
    method: 'PUT',
    body: {
      base: summary.version,
      document: { ...document, nodes: { ...document.nodes, [id]: section } },
      journal: null,
    },
  })
  expect(saved.status).toBe(200)

  const refused = await publish()
  expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
  expect(refused.body.problems.map(({ message }) => message)).toEqual([
    expect.stringMatching(/“Background” is #f7e2c4; this site takes values of its look alone/),
    expect.stringMatching(/“Space above” is 48 px; this site takes values of its look alone/),
  ])

  expect((await allow(true)).body.look.ownValues).toBe(true)
  expect((await publish()).status).toBe(200)
  const css = await liveCss()
  // 48 px at a text size of 16 px, so that it grows with the reader's own.
  expect(css).toMatch(/padding-block:3rem /)
  expect(css).toMatch(/\.own-f7e2c4\{--paper:#f7e2c4;/)

  expect((await allow(false)).status).toBe(200)
  expect((await publish()).status).toBe(409)
  // What is live stays as it was.
  expect(await liveCss()).toBe(css)
})

test.each([
  ['a measure that is too large', 'above', '1000px'],
  ['a measure in another unit', 'above', '3em'],
  ['more than a measure', 'above', '3px;color:red'],
  ['a step that no look has', 'above', 'huge'],
])('%s is refused, and nothing is saved', async (_what, key, value) => {
  const { summary, document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmabout')).body
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'section')!
  const nodes = { ...document.nodes, [id]: { ...node, sizes: { base: { [key]: value } } } }
  const { status, body } = await server.ask<ErrorBody>('/api/sites/tarrowmoor/pages/tmabout/document', {
    method: 'PUT',
    body: { base: summary.version, document: { ...document, nodes }, journal: null },
  })
  expect([status, body.code]).toEqual([422, 'not-valid'])
  expect(body.problems.map(({ pointer }) => pointer)).toEqual([`/nodes/${id}/sizes/base/${key}`])
  expect((await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmabout')).body.summary.version).toBe(
    summary.version,
  )
})

test('rules that are no rules are refused', async () => {
  const { status, body } = await server.ask<ErrorBody>('/api/sites/tarrowmoor/settings', {
    method: 'PUT',
    body: { ownValues: 'yes' },
  })
  expect([status, body.code, body.problems[0]?.pointer]).toEqual([400, 'malformed', '/ownValues'])
})

const change = (body: unknown, as: 'keeper' | 'editor' | 'reviewer' = 'keeper') =>
  server.ask<SiteInfo>('/api/sites/tarrowmoor/settings', { method: 'PUT', body, as })

test('the name and the language of the site are on every page at once, and only administrators change them', async () => {
  for (const as of ['editor', 'reviewer'] as const)
    expect((await change({ name: 'Elsewhere' }, as)).status).toBe(403)
  expect((await change({ name: '  The   hut ', language: 'en-GB' })).body.name).toBe('The hut')
  const html = await (await server.site.request('http://localhost/about/')).text()
  expect(html).toContain('<title>About · The hut</title>')
  expect(html).toContain('<html lang="en-GB">')
})

test.each([
  [{ name: '' }, /name/i],
  [{ name: 'x'.repeat(101) }, /1 to 100 characters/],
  [{ language: 'not a language' }, /tag such as/],
  [{ icon: 'nosuchpicture' }, /not in the library/],
  [{ sharePicture: 7 }, /wrong form/],
  [{ ownValues: 'yes' }, /wrong form/],
])('a setting that can’t be one is refused and changes nothing: %j', async (body, reason) => {
  const before = (await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body
  const { status, body: refusal } = await change(body)
  expect([400, 422]).toContain(status)
  expect(refusal.message).toMatch(/Nothing was changed/)
  expect(JSON.stringify(refusal)).toMatch(reason)
  expect((await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body).toEqual(before)
})

test('of two administrators at once, 200 times, the second is told, and overwrites nothing', async () => {
  // Each change makes all of the site's pages again: this one has two.
  const begun = await startTestServer('begun')
  const path = `/api/sites/${begun.at.siteId}`
  const nameNow = async () => (await begun.ask<SiteInfo>(path)).body.name
  const rename = (name: string, was: string) =>
    begun.ask<ErrorBody>(`${path}/settings`, { method: 'PUT', body: { name, was: { name: was } } })
  try {
    await addPerson(begun.services.db.manager, {
      login: 'keeper',
      name: 'Keeper',
      role: 'keeper',
      password: 'heron-lantern-quay',
    })
    for (let round = 0; round < 200; round++) {
      const before = await nameNow()
      const names = [`First ${round}`, `Second ${round}`]
      const both = await Promise.all(names.map((name) => rename(name, before)))
      expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
      const taken = names[both.findIndex(({ status }) => status === 200)]!
      expect(await nameNow()).toBe(taken)
      const refused = both.find(({ status }) => status === 409)!
      expect(refused.body.message).toMatch(`Someone else changed this meanwhile, to “${taken}”`)
    }
  } finally {
    await begun.close()
  }
})

describe('the search', () => {
  const find = async (query: string) =>
    (await server.ask<TextHit[]>(`/api/sites/tarrowmoor/search?q=${encodeURIComponent(query)}`)).body

  test('finds pages by text of their newest version, in any case and with or without accents', async () => {
    const [hit, ...more] = await find('FARMER whose field')
    expect(more).toEqual([])
    expect([hit!.title, hit!.path]).toEqual(['About', '/about/'])
    expect(hit!.match).toBe('farmer')
    expect(hit!.before + hit!.match + hit!.after).toContain('The farmer whose field they had borrowed')
    const { summary, document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmfriend'))
      .body
    const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'heading')!
    const named = { ...node, content: { ...node.content, text: 'Café 100 % dark_sky' } }
    await server.ask('/api/sites/tarrowmoor/pages/tmfriend/document', {
      method: 'PUT',
      body: {
        base: summary.version,
        document: { ...document, nodes: { ...document.nodes, [id]: named } },
        journal: null,
      },
    })
    for (const query of ['cafe', 'CAFÉ', '100 %', 'dark_sky', 'café dark'])
      expect((await find(query)).map(({ pageId }) => pageId)).toEqual(['tmfriend'])
  })

  test('takes signs for themselves, and finds nothing for nothing', async () => {
    for (const query of ['', ' ', 'x', '%%%', '__', 'farmer unicorn', '\\', "' OR 1=1 --", 'x'.repeat(5_000)])
      expect(await find(query)).toEqual([])
  })
})

test('the look can be another one, which visitors see; one that pages can’t be shown in is refused and changes nothing', async () => {
  const look = async () => (await server.ask<SiteInfo>('/api/sites/tarrowmoor')).body.look
  const before = await look()
  const change = (next: unknown, was: unknown = before) =>
    server.ask<SiteInfo>('/api/sites/tarrowmoor/settings', {
      method: 'PUT',
      body: { look: next, was: { look: was } },
    })
  const plain = { ...before.surfaces.plain!, background: '#fbf7ee' }
  const next = { ...before, surfaces: { ...before.surfaces, plain } }
  expect((await change(next)).status).toBe(200)
  expect(await look()).toEqual(next)
  expect(await liveCss()).toContain('#fbf7ee')

  const { plain: _plain, ...others } = before.surfaces
  const refused = [
    await change({ ...next, surfaces: others }, next),
    await change({ ...next, pageSurface: 'nowhere' }, next),
    await change(
      { ...next, fonts: { ...next.fonts, words: { name: 'X', fallback: 'serif', files: [] } } },
      next,
    ),
    await change({ ...next, sizes: before.sizes.toReversed() }, next),
  ]
  expect(refused.map(({ status }) => status)).toEqual([422, 422, 422, 422])
  expect((await change({ ...next, gutter: 'a{}</style>' }, next)).status).toBe(400)
  // Somebody who saw the look of before overwrites nothing.
  expect((await change(before, before)).body.code).toBe('stale-save')
  expect(await look()).toEqual(next)
})
