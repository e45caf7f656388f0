import { Hono } from 'hono'
import { transact } from './db/transact.ts'
import { answerError, Refused } from './http/errors.ts'
import { editorPage } from './http/editor-page.ts'
import { editorHeaders, siteHeaders } from './http/headers.ts'
import { limitedBody, onlyFromHere, SAFE_METHODS } from './http/guards.ts'
import { answerKept } from './http/kept-answers.ts'
import { journalRoutes } from './journal/routes.ts'
import { fileRoutes, mediaRoutes } from './media/routes.ts'
import { pageRoutes } from './pages/routes.ts'
import { gate, type SignedIn } from './people/access.ts'
import { sessionRoutes } from './people/routes.ts'
import { presenceRoutes } from './presence/routes.ts'
import { readRedirects } from './publish/redirects.ts'
import { liveDir } from './media/folders.ts'
import { publishAgain } from './publish/publish-page.ts'
import type { Services } from './services.ts'
import { describeSite, findSite, keepNavigation, keepRules } from './sites/store.ts'
import type { NavigationRequest, SiteRulesRequest } from '@gullyline/core'
import { readBody } from './http/read-body.ts'
import { staticFiles } from './http/static-files.ts'
import { listBin } from './pages/tree-acts.ts'

/** The editor's server: its data under /api, media and fonts, and the editor itself from `webDir` where that is given. */
export function createEditorApp(services: Services, webDir: string | undefined): Hono<SignedIn> {
  const app = new Hono<SignedIn>()
  app.onError((error, context) => answerError(error, context, services.log))
  app.use(editorHeaders(services))
  app.use(onlyFromHere(services.editorOrigin))
  const only = gate(services)
  for (const path of ['/api/*', '/media/*', '/files/*', '/fonts/*']) app.use(path, only)
  // Nothing is read of a body before it is known who sends it.
  app.use(limitedBody)
  app.use(async (c, next) => {
    await next()
    if (!SAFE_METHODS.has(c.req.method)) services.kept.forgetAll()
  })
  app.route('/api/session', sessionRoutes(services))
  app.get('/api/site', async (c) =>
    answerKept(c, services, () => transact(services.db, (m) => describeSite(m, services.liveOrigin))),
  )
  app.put('/api/site/navigation', async (c) => {
    const given = await readBody<NavigationRequest>(c, { items: 'list', was: 'list-or-absent' })
    await transact(services.db, (m) => keepNavigation(m, given))
    await publishAgain(services)
    return c.json(await transact(services.db, (m) => describeSite(m, services.liveOrigin)))
  })
  app.put('/api/site/rules', async (c) => {
    const { ownValues } = await readBody<SiteRulesRequest>(c, { ownValues: 'flag' })
    await transact(services.db, (m) => keepRules(m, { ownValues }))
    return c.json(await transact(services.db, (m) => describeSite(m, services.liveOrigin)))
  })
  app.get('/api/bin', async (c) =>
    c.json(await transact(services.db, async (m) => listBin(m, (await findSite(m)).id))),
  )
  app.route('/api/media', mediaRoutes(services))
  app.route('/api/files', fileRoutes(services))
  app.route('/api/pages', pageRoutes(services))
  app.route('/api/pages', journalRoutes(services))
  app.route('/api/presence', presenceRoutes(services))
  app.all('/api/*', () => {
    throw new Refused('not-found', 'The server knows no such address.')
  })
  for (const path of ['/media/*', '/files/*', '/fonts/*'])
    app.use(path, staticFiles(services.dataDir, { isPrivate: true }))
  app.on('GET', ['/media/*', '/files/*', '/fonts/*'], () => {
    throw new Refused('not-found', 'There is no such file.')
  })
  if (webDir) {
    app.use('/assets/*', staticFiles(webDir, { precompressed: true }))
    app.use('*', staticFiles(webDir, { index: 'none', areAskedFor: true }))
    // Every other address is a screen of the editor, which finds its own way.
    app.get('*', editorPage(webDir, services))
  }
  return app
}

/**
 * The published site: files, and nothing but files. It shares neither port nor cookies nor code with the editor:
 * cookies know no ports (RFC 6265, 8.5), so the two are on different names of this machine, and whoever comes by the
 * editor's name is sent to the site's own.
 */
export function createSiteApp(services: Services): Hono {
  const app = new Hono()
  const { hostname } = new URL(services.liveOrigin)
  app.onError((error, context) => answerError(error, context, services.log))
  app.use(siteHeaders(services))
  app.use(async (c, next) => {
    const asked = new URL(c.req.url)
    if (asked.hostname === hostname) return next()
    return c.redirect(`${services.liveOrigin}${asked.pathname}`, 308)
  })
  app.get('*', staticFiles(liveDir(services.dataDir)))
  app.notFound(async (c) => {
    const path = new URL(c.req.url).pathname
    const to = await oldAddress(services, path.endsWith('/') ? path : `${path}/`)
    return to === undefined ? c.html(NOT_FOUND, 404) : c.redirect(to, 301)
  })
  return app
}

/** Where an address leads that a page had before. */
async function oldAddress({ dataDir }: Services, path: string): Promise<string | undefined> {
  const redirects = await readRedirects(dataDir)
  return Object.hasOwn(redirects, path) ? redirects[path] : undefined
}

const NOT_FOUND =
  '<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Not found</title></head>' +
  '<body><h1>There is no page here</h1><p><a href="/">Go to the first page</a></p></body></html>\n'
