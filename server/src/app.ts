import { Hono } from 'hono'
import { transact } from './db/transact.ts'
import { answerError, Refused } from './http/errors.ts'
import { editorPage } from './http/editor-page.ts'
import { editorHeaders } from './http/headers.ts'
import { limitedBody, onlyFromHere, SAFE_METHODS } from './http/guards.ts'
import { answerCached } from './http/cached-answers.ts'
import { documentRoutes } from './documents/routes.ts'
import { journalRoutes } from './journal/routes.ts'
import { fileRoutes, mediaRoutes } from './media/routes.ts'
import { pageRoutes } from './pages/routes.ts'
import { gate, type SignedIn } from './people/access.ts'
import { sessionRoutes } from './people/routes.ts'
import { presenceRoutes } from './presence/routes.ts'
import { publishAgain } from './publish/publish-page.ts'
import type { Services } from './services.ts'
import { describeSite, findSite, keepNavigation } from './sites/store.ts'
import { changeSiteSettings } from './sites/settings.ts'
import { searchText } from './pages/search.ts'
import type { NavigationRequest, SiteSettingsRequest } from '@gullyline/core'
import { readBody } from './http/read-body.ts'
import { staticFiles } from './http/static-files.ts'
import { listBin } from './pages/bin.ts'

/**
 * What writes nothing that a cached answer tells: journals, which every letter goes into, who is there, and sign-ins. With
 * fifty people typing, all other reads would be made anew for each of their letters.
 */
function isAside(path: string): boolean {
  return /^\/api\/(?:presence|session)(?:\/|$)|^\/api\/pages\/[^/]+\/journal\//.test(path)
}

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
    if (!SAFE_METHODS.has(c.req.method) && !isAside(c.req.path)) services.answers.forgetAll()
  })
  app.route('/api/session', sessionRoutes(services))
  app.get('/api/site', async (c) =>
    answerCached(c, services, () => transact(services.db, (m) => describeSite(m, services.liveOrigin))),
  )
  app.put('/api/site/navigation', async (c) => {
    const given = await readBody<NavigationRequest>(c, { items: 'list', was: 'list-or-absent' })
    await transact(services.db, (m) => keepNavigation(m, given))
    await publishAgain(services)
    return c.json(await transact(services.db, (m) => describeSite(m, services.liveOrigin)))
  })
  app.put('/api/site/settings', async (c) => {
    const given = await readBody<SiteSettingsRequest>(c, {
      name: 'words-or-absent',
      language: 'words-or-absent',
      icon: 'id-or-null-or-absent',
      sharePicture: 'id-or-null-or-absent',
      ownValues: 'flag-or-absent',
      was: 'object-or-absent',
    })
    const isShown = await transact(services.db, (m) => changeSiteSettings(m, given))
    if (isShown) await publishAgain(services)
    return c.json(await transact(services.db, (m) => describeSite(m, services.liveOrigin)))
  })
  app.get('/api/search', async (c) =>
    c.json(
      await transact(services.db, async (m) => searchText(m, (await findSite(m)).id, c.req.query('q') ?? '')),
    ),
  )
  app.get('/api/bin', async (c) =>
    c.json(await transact(services.db, async (m) => listBin(m, (await findSite(m)).id))),
  )
  app.route('/api/media', mediaRoutes(services))
  app.route('/api/files', fileRoutes(services))
  app.route('/api/pages', pageRoutes(services))
  app.route('/api/pages', journalRoutes(services))
  app.route('/api/documents', documentRoutes(services))
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
