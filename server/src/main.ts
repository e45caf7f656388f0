/** Starts both servers on loopback. `npm start` runs this with its configuration in environment variables. */
import { serve, type ServerType } from '@hono/node-server'
import { pino } from 'pino'
import { createEditorApp, createSiteApp } from './app.ts'
import { readConfig } from './config.ts'
import { openDatabase } from './db/data-source.ts'
import { beginSiteIfEmpty, loadDemoIfEmpty } from './demo/load-demo.ts'
import { derivePicture } from './media/derive.ts'
import { showRelease } from './publish/publish-page.ts'
import { makeServices } from './services.ts'

const HOST = '127.0.0.1'
/** The same machine under another name, so that no cookie of the editor ever reaches the published site. */
const SITE_NAME = 'localhost'

async function main(): Promise<void> {
  const config = readConfig(process.env)
  const db = await openDatabase(config.databaseUrl).catch((error: unknown) => {
    const { host } = new URL(config.databaseUrl)
    const reason = error instanceof Error ? error.message : String(error)
    throw new Error(
      `The database at ${host} can't be used (${reason}). Nothing was changed; check that it runs and that GULLYLINE_DATABASE_URL names it with the right user and password.`,
    )
  })
  const services = makeServices({
    db,
    log: pino({ name: 'gullyline', level: process.env.GULLYLINE_LOG ?? 'warn' }),
    dataDir: config.dataDir,
    liveOrigin: `http://${SITE_NAME}:${config.sitePort}`,
  })
  const derive: typeof derivePicture = (original, folder) =>
    derivePicture(original, folder, config.pictureEffort)
  if (config.withDemo) await loadDemoIfEmpty(services, (words) => process.send?.({ say: words }), derive)
  else await beginSiteIfEmpty(services)
  await showRelease(services)
  const servers = [
    await listen(createEditorApp(services, config.webDir), config.editorPort),
    await listen(createSiteApp(services), config.sitePort),
  ]
  process.send?.({ ready: true })
  let stopping = false
  const stop = (): void => {
    if (stopping) return
    stopping = true
    for (const server of servers) {
      server.close()
      // Open pages hold a connection for who else is there; they come back by themselves.
      if ('closeAllConnections' in server) server.closeAllConnections()
    }
    void db.destroy().finally(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  // The parent is gone when its channel closes: nobody could stop this server any more.
  process.on('disconnect', stop)
}

function listen(app: { fetch: Parameters<typeof serve>[0]['fetch'] }, port: number): Promise<ServerType> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch: app.fetch, port, hostname: HOST }, () => resolve(server))
    server.on('error', reject)
  })
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
