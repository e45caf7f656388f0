import { Hono } from 'hono'
import { answerError, Refused } from './http/errors.ts'
import { editorPage } from './api/editor-page.ts'
import { editorHeaders } from './http/headers.ts'
import { limitedBody, onlyFromHere } from './http/guards.ts'
import { deviceRoutes } from './devices/routes.ts'
import { documentRoutes } from './documents/routes.ts'
import { journalRoutes } from './journal/routes.ts'
import { exportRoutes, importRoutes } from './exchange/routes.ts'
import { partRoutes } from './library/routes.ts'
import { fileRoutes, mediaRoutes } from './api/media-routes.ts'
import { pageRoutes } from './api/page-routes.ts'
import { gate, type SignedIn } from './people/access.ts'
import { sessionRoutes } from './people/routes.ts'
import { presenceRoutes } from './presence/routes.ts'
import { sweepRoutes } from './sweeps/routes.ts'
import type { Services } from './services.ts'
import { siteRoutes, sitesRoutes } from './api/site-routes.ts'
import { staticFiles } from './http/static-files.ts'

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
  app.route('/api/session', sessionRoutes(services))
  app.route('/api/presence', presenceRoutes(services))
  // The gate has let the person through to the site that these name.
  const site = '/api/sites/:site'
  app.route('/api/sites', sitesRoutes(services))
  app.route(site, siteRoutes(services))
  app.route(`${site}/media`, mediaRoutes(services))
  app.route(`${site}/files`, fileRoutes(services))
  app.route(`${site}/pages`, pageRoutes(services))
  app.route(`${site}/pages`, journalRoutes(services))
  app.route(`${site}/pages`, deviceRoutes(services))
  app.route(`${site}/gullies`, sweepRoutes(services))
  app.route(`${site}/documents`, documentRoutes())
  app.route(`${site}/parts`, partRoutes(services))
  app.route(`${site}/export`, exportRoutes(services))
  app.route(`${site}/imports`, importRoutes(services))
  app.all('/api/*', () => {
    throw new Refused('not-found', 'The server knows no such address.')
  })
  for (const path of ['/media/*', '/files/*', '/fonts/*'])
    app.use(path, staticFiles(services.dataDir, { isPrivate: true }))
  app.on('GET', ['/media/*', '/files/*', '/fonts/*'], noSuchFile)
  if (webDir) {
    app.use('/assets/*', staticFiles(webDir, { precompressed: true }))
    // A script of an editor that was built anew since: the screen would be no answer to that.
    app.all('/assets/*', noSuchFile)
    app.use('*', staticFiles(webDir, { index: 'none', areAskedFor: true }))
    // Every other address is a screen of the editor, which finds its own way.
    app.get('*', editorPage(webDir, services))
  }
  return app
}

function noSuchFile(): never {
  throw new Refused('not-found', 'There is no such file.')
}
