/** Outside judges of the published pages: html-validate's rules, and what a browser would fetch. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { HtmlValidate } from 'html-validate'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const judge = new HtmlValidate({ extends: ['html-validate:recommended', 'html-validate:document'] })

describe.each(['/', '/visit/', '/about/', '/questions/'])('the published page %s', (path) => {
  const read = async () => (await server.site.request(`http://localhost${path}`)).text()

  test('has no finding of html-validate, recommended and document', async () => {
    const report = await judge.validateString(await read())
    expect(
      report.results.flatMap((result) =>
        result.messages.map((one) => `${one.ruleId}: ${one.message} at ${one.selector ?? ''}`),
      ),
    ).toEqual([])
  })

  test('carries no script and no style attribute, and asks for nothing from elsewhere', async () => {
    const html = await read()
    expect(html).not.toMatch(/<script|\son\w+=|\sstyle=/i)
    // The canonical address is told, and not asked for.
    const fetched = [
      ...html.matchAll(/<(?:img|source|link)(?! rel="canonical")[^>]*\s(?:src|href)="([^"]*)"/g),
    ].map((match) => match[1]!)
    expect(fetched.length).toBeGreaterThan(0)
    const css = await (
      await server.site.request(`http://localhost${/href="(\/styles\/[^"]+)"/.exec(html)![1]}`)
    ).text()
    const named = [...css.matchAll(/url\(([^)]*)\)/g)].map((match) => match[1]!)
    for (const address of [...fetched, ...named]) expect(address).toMatch(/^\/[^/]/)
  })
})
