/**
 * What other devices are shown: pages at private addresses, and nothing else. It has a port of its own and knows no session:
 * who has an address sees its page for as long as the address lasts, and who guesses is told the same as for one that ended.
 */
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { Hono, type Context } from 'hono'
import { getMimeType } from 'hono/utils/mime'
import type { Services } from '../services.ts'
import { answerError } from '../http/errors.ts'
import { deviceHeaders } from '../http/headers.ts'
import { deviceScripts } from '../../generated/device-scripts.js'
import { findAddress, TOKEN_PATTERN } from './addresses.ts'
import { SCRIPT_FILE, STYLE_FILE } from './device-page.ts'
import { DevicePages } from './device-pages.ts'
import { deviceWindow, WINDOW_CSS } from './device-window.ts'

/** Only by the name without the editor's cookie; see `SITE_NAME` in config.ts. */
const EDITORS_NAME = /^127\.0\.0\.1(:\d+)?$/

export function createDeviceApp(services: Services): Hono {
  const pages = new DevicePages(services)
  const app = new Hono()
  app.onError((error, c) => answerError(error, c, services.log))
  app.use(deviceHeaders())
  app.use(async (c, next) => {
    const host = c.req.header('host') ?? ''
    if (!EDITORS_NAME.test(host)) return next()
    const { pathname, port } = new URL(c.req.url)
    return c.redirect(`http://localhost:${port}${pathname}`, 308)
  })
  app.get(`/:token{${TOKEN_PATTERN}}`, (c) => c.redirect(`/${c.req.param('token')}/`, 301))
  app.get(`/:token{${TOKEN_PATTERN}}/:path{.*}`, async (c) => {
    const { token, path } = c.req.param()
    const address = await findAddress(services.db, token)
    if (!address) return noAddress(c)
    const base = `/${token}/`
    switch (path) {
      case 'mark':
        return c.text(await pages.markOf(address))
      case 'follow.js':
        return script(c, deviceScripts.follow)
      case 'device':
        return c.html(deviceWindow(base))
      case 'window.js':
        return script(c, deviceScripts.window)
      case 'window.css':
        return style(c, WINDOW_CSS)
    }
    const page = await pages.pageOf(address, base)
    if (path === '') return c.html(page.html)
    if (path === STYLE_FILE) return style(c, page.css)
    if (path === SCRIPT_FILE) return script(c, page.script)
    const file = page.files.get(`/${path}`)
    const facts = file === undefined ? undefined : await stat(file).catch(() => undefined)
    if (file === undefined || !facts) return elsewhere(c, base)
    const headers = {
      'Content-Length': String(facts.size),
      'Content-Type': getMimeType(path) ?? 'application/octet-stream',
      ...(path.startsWith('files/') ? { 'Content-Disposition': 'attachment' } : {}),
    }
    // Piece by piece: a file of the library may be as large as memory allows for all of them.
    return c.body(Readable.toWeb(createReadStream(file)) as ReadableStream, 200, headers)
  })
  app.all('*', noAddress)
  return app
}

function script(c: Context, content: string): Response {
  return c.body(content, 200, { 'Content-Type': 'text/javascript; charset=utf-8' })
}

function style(c: Context, content: string): Response {
  return c.body(content, 200, { 'Content-Type': 'text/css; charset=utf-8' })
}

function noAddress(c: Context): Response | Promise<Response> {
  return c.html(
    plainPage(
      'Nothing here',
      'This private address has ended, or was not copied whole. Ask whoever gave it to you for a new one.',
    ),
    404,
  )
}

function elsewhere(c: Context, base: string): Response | Promise<Response> {
  return c.html(
    plainPage(
      'Another page',
      `This link leads to another page, and a private address shows one page alone. <a href="${base}">Go back to it</a>.`,
    ),
    404,
  )
}

function plainPage(title: string, words: string): string {
  return (
    `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">` +
    `<title>${title}</title></head><body><h1>${title}</h1><p>${words}</p></body></html>\n`
  )
}
