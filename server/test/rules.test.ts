/** What the site's keeper allows: told to everybody, and asked for before a page goes live. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { ErrorBody, PageDocument, SiteInfo } from '@gullyline/core'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
afterAll(() => server.close())

const publish = () => server.publish<ErrorBody>('tmquestions', 'editor')
const allow = (ownValues: boolean) =>
  server.ask<SiteInfo>('/api/site/rules', { method: 'PUT', body: { ownValues } })
const liveCss = async () => {
  const html = await (await server.site.request('http://localhost/questions/')).text()
  const [, path] = /href="(\/styles\/[^"]+)"/.exec(html)!
  return (await server.site.request(`http://localhost${path}`)).text()
}

test('a page with a value outside the look is saved, and goes live only where the keeper allows it', async () => {
  const { summary, document } = (await server.ask<PageDocument>('/api/pages/tmquestions')).body
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'section')!
  const section = {
    ...node,
    look: { ...node.look, surface: '#f7e2c4' },
    sizes: { ...node.sizes, base: { ...node.sizes.base, above: '48px' } },
  }
  const saved = await server.ask('/api/pages/tmquestions/document', {
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
    expect.stringMatching(/“Room above” is 48 px; this site takes values of its look alone/),
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
  const { summary, document } = (await server.ask<PageDocument>('/api/pages/tmabout')).body
  const [id, node] = Object.entries(document.nodes).find(([, { kind }]) => kind === 'section')!
  const nodes = { ...document.nodes, [id]: { ...node, sizes: { base: { [key]: value } } } }
  const { status, body } = await server.ask<ErrorBody>('/api/pages/tmabout/document', {
    method: 'PUT',
    body: { base: summary.version, document: { ...document, nodes }, journal: null },
  })
  expect([status, body.code]).toEqual([422, 'not-valid'])
  expect(body.problems.map(({ pointer }) => pointer)).toEqual([`/nodes/${id}/sizes/base/${key}`])
  expect((await server.ask<PageDocument>('/api/pages/tmabout')).body.summary.version).toBe(summary.version)
})

test('rules that are no rules are refused', async () => {
  const { status, body } = await server.ask<ErrorBody>('/api/site/rules', {
    method: 'PUT',
    body: { ownValues: 'yes' },
  })
  expect([status, body.code, body.problems[0]?.pointer]).toEqual([400, 'malformed', '/ownValues'])
})
