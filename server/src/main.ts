/** Starts both servers on loopback. `npm start` runs this with its configuration in environment variables. */
import { createAdaptorServer, type ServerType } from '@hono/node-server'
import { multistream, pino, type DestinationStream } from 'pino'
import { createEditorApp } from './app.ts'
import { createDeviceApp } from './devices/device-app.ts'
import { sharePort } from './visitors/share-port.ts'
import { createSiteServer } from './visitors/site-app.ts'
import { readConfig } from './config.ts'
import { withNamedLock } from './db/named-lock.ts'
import { NewerDatabase, openDatabase } from './db/data-source.ts'
import { beginSiteIfEmpty, loadDemoIfEmpty, sampleAccounts } from './demo/load-demo.ts'
import { completeSite } from './sites/complete-site.ts'
import { allSites } from './db/site-scope.ts'
import { showRelease } from './publish/publish-page.ts'
import { writeHosts } from './publish/site-hosts.ts'
import { faultWords } from './http/storage-fault.ts'
import { logFile } from './http/log-file.ts'
import { makeServices, type Services } from './services.ts'
import { canSweep, startSweeps } from './sweeps/site-sweeps.ts'
import { closePools } from './workers/pools.ts'

const HOST = '127.0.0.1'
/** Every name of this machine, where the start command was told so. */
const ALL_HOSTS = '0.0.0.0'
/** Longer than proxies and clients keep an unused connection, so that it is never closed while a request is on its way. */
const KEEP_ALIVE_MS = 65_000
/** How long a starting server waits for another one that makes the site. */
const STARTING_S = 600
/** How long a stopping server waits for what is under way. */
const FINISHING_MS = 10_000

async function main(): Promise<void> {
  // What the server writes is for nobody else on this machine.
  process.umask(0o077)
  const config = readConfig(process.env)
  const log = pino(
    { name: 'gullyline', level: process.env.GULLYLINE_LOG ?? 'info' },
    await logTo(config.dataDir),
  )
  const db = await openDatabase(config.databaseUrl).catch((error: unknown) => {
    if (error instanceof NewerDatabase) throw error
    const { host } = new URL(config.databaseUrl)
    const reason = error instanceof Error ? error.message : String(error)
    throw new Error(
      `The database at ${host} can't be used (${reason}). Nothing was changed; check that it runs and that GULLYLINE_DATABASE_URL names it with the right user and password.`,
    )
  })
  const { dataDir, editorOrigin, liveOrigin, devices } = config
  const isHereAlone = ['127.0.0.1', 'localhost', '[::1]'].includes(new URL(editorOrigin).hostname)
  const closedAccounts = isHereAlone ? {} : await sampleAccounts(dataDir)
  const services = makeServices({
    db,
    log,
    dataDir,
    editorOrigin,
    liveOrigin,
    closedAccounts,
    pictureEffort: config.pictureEffort,
    devices: config.devices,
    isSweeping: config.isSweeping && canSweep(),
  })
  // Of servers that start together on one database, one makes the site, and the others find it.
  await withNamedLock(db, { name: 'start', patienceS: STARTING_S }, async () => {
    if (config.withDemo) await loadDemoIfEmpty(services, (words) => process.send?.({ say: words }))
    else await beginSiteIfEmpty(services)
    for (const scope of await allSites(db)) await completeSite(services, scope)
  })
  const sites = await allSites(db)
  for (const scope of sites) await showRelease(services, scope)
  await writeHosts(services)
  const { siteId } = sites[0]!
  const site = await listen(createSiteServer({ ...services, siteId }), config.sitePort, 'GULLYLINE_SITE_PORT')
  const servers = [
    await listen(editorServer(services, config.webDir), config.editorPort, 'GULLYLINE_EDITOR_PORT'),
    site,
    await listen(
      deviceServer(services),
      devices.port,
      'GULLYLINE_DEVICE_PORT',
      devices.isShared ? ALL_HOSTS : HOST,
    ),
  ]
  const stopSharing = sharePort(
    site,
    { dataDir, liveOrigin, siteId, keepAliveMs: KEEP_ALIVE_MS, finishingMs: FINISHING_MS },
    log,
  )
  const stopSweeps = services.isSweeping ? startSweeps(services) : () => Promise.resolve()
  process.send?.({ ready: true })
  let stopping: Promise<unknown> | undefined
  const stop = (): void => {
    stopping ??= Promise.all([stopSharing(), stopSweeps().then(() => finish(services, servers))]).finally(
      () => process.exit(0),
    )
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  // The parent is gone when its channel closes: nobody could stop this server any more.
  process.on('disconnect', stop)
}

/** Takes nothing new, finishes what is under way, such as a save or an upload, and lets go of the database. */
async function finish(services: Services, servers: readonly ServerType[]): Promise<void> {
  await services.presence.closeAll().catch(() => undefined)
  const closed = servers.map((server) => new Promise((resolve) => server.close(resolve)))
  const patience = new Promise((resolve) => setTimeout(resolve, FINISHING_MS).unref())
  for (const server of servers) if ('closeIdleConnections' in server) server.closeIdleConnections()
  await Promise.race([Promise.all(closed), patience])
  for (const server of servers) if ('closeAllConnections' in server) server.closeAllConnections()
  await closePools()
  await services.db.destroy()
}

/** What is logged goes to a file of the data folder, and warnings to the terminal as well. */
async function logTo(dataDir: string): Promise<DestinationStream> {
  return multistream([
    { level: 'info', stream: await logFile(dataDir) },
    { level: 'warn', stream: process.stdout },
  ])
}

function editorServer(services: Services, webDir: string | undefined): ServerType {
  return createAdaptorServer({ fetch: createEditorApp(services, webDir).fetch })
}

function deviceServer(services: Services): ServerType {
  return createAdaptorServer({ fetch: createDeviceApp(services).fetch })
}

function listen<S extends ServerType>(server: S, port: number, variable: string, host = HOST): Promise<S> {
  if ('keepAliveTimeout' in server) server.keepAliveTimeout = KEEP_ALIVE_MS
  return new Promise((resolve, reject) => {
    server.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? new Error(`Port ${port} is taken. Stop what uses it, or set ${variable} to another port.`)
          : error,
      ),
    )
    server.listen(port, host, () => resolve(server))
  })
}

main().catch((error: unknown) => {
  const words = faultWords(error) ?? (error instanceof Error ? error.message : String(error))
  process.stderr.write(`${words}\n`)
  process.exit(1)
})
