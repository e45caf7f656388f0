/** `npm start`: from a fresh checkout to a working editor. Needs Node and npm alone; see README.md. */
import { spawn } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureGenerated, ensureServer, ensureWeb } from './lib/build.mjs'
import { ensureDebian, ensurePackages } from './lib/install.mjs'
import { startMariadb } from './lib/mariadb.mjs'
import { keepRunning } from './lib/keep-running.mjs'
import { MARIADB, root, tool } from './lib/paths.mjs'
import { assertFree } from './lib/ports.mjs'
import { run, say } from './lib/say.mjs'
import { startServer } from './lib/server.mjs'

const dev = process.argv.includes('--dev')
/** Whether other devices on the network may open pages at private addresses. */
const isForDevices = process.argv.includes('--devices') || process.env.GULLYLINE_DEVICES === 'yes'
const env = process.env
const dataDir = env.GULLYLINE_DATA ?? join(root, '.data')
const editorPort = Number(env.GULLYLINE_EDITOR_PORT ?? 4180)
const sitePort = Number(env.GULLYLINE_SITE_PORT ?? 4181)
const devicePort = Number(env.GULLYLINE_DEVICE_PORT ?? 4184)
const databasePort = Number(env.GULLYLINE_DB_PORT ?? 4182)
const devPort = Number(env.GULLYLINE_DEV_PORT ?? 4183)

await run(async () => {
  await assertFree(editorPort, 'GULLYLINE_EDITOR_PORT', 'the editor')
  await assertFree(sitePort, 'GULLYLINE_SITE_PORT', 'the published site')
  await assertFree(devicePort, 'GULLYLINE_DEVICE_PORT', 'private addresses')
  if (!env.GULLYLINE_DATABASE_URL) {
    await assertFree(databasePort, 'GULLYLINE_DB_PORT', 'MariaDB')
    await ensureDebian(MARIADB)
  }
  await ensurePackages()
  if (dev) await ensureGenerated()
  else {
    await ensureWeb()
    await ensureServer()
  }

  const running = []
  const stop = stopper(running)
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
  process.on('SIGHUP', stop)
  try {
    let databaseUrl = env.GULLYLINE_DATABASE_URL
    if (!databaseUrl) {
      say('Starting MariaDB')
      const database = await keepRunning('MariaDB', () =>
        startMariadb(join(dataDir, 'database'), databasePort),
      )
      running.push(database)
      databaseUrl = database.current.url
    }
    say('Starting the server')
    const server = await keepRunning('The server', async () => {
      const started = startServer(
        {
          GULLYLINE_DATABASE_URL: databaseUrl,
          GULLYLINE_DATA: dataDir,
          GULLYLINE_EDITOR_PORT: String(editorPort),
          GULLYLINE_SITE_PORT: String(sitePort),
          GULLYLINE_DEVICE_PORT: String(devicePort),
          ...(isForDevices ? { GULLYLINE_DEVICES: 'yes' } : {}),
          ...(dev ? {} : { GULLYLINE_WEB_DIR: join(root, 'web/dist') }),
        },
        { fromSource: dev },
      )
      await started.ready
      return started
    })
    running.push(server)
    if (dev) running.push(startVite())
    console.log(`
  Gullyline is ready.
    Editor          ${dev ? `http://127.0.0.1:${devPort}` : (env.GULLYLINE_EDITOR_ORIGIN ?? `http://127.0.0.1:${editorPort}`)}/
    Published site  ${env.GULLYLINE_SITE_ORIGIN ?? `http://localhost:${sitePort}`}/
${devices()}${accounts()}  Ctrl-C stops it. Everything you save is in ${dataDir}.
`)
    await Promise.race(running.map((one) => one.failed ?? one.ended))
    if (!stop.asked()) say('Something ended by itself; stopping the rest')
    await stop()
  } catch (error) {
    for (const one of running.reverse()) await one.stop().catch(() => undefined)
    throw error
  }
})

/** Stops what was started, last first, once. */
function stopper(running) {
  let stopping
  const stop = () =>
    (stopping ??= (async () => {
      say('Stopping')
      for (const one of [...running].reverse()) await one.stop()
      process.exit(0)
    })())
  stop.asked = () => stopping !== undefined
  return stop
}

/** What was opened to the network, and how to. */
function devices() {
  return isForDevices
    ? `  Other devices     pages at private addresses, on port ${devicePort} of this machine: open one with “Open on another device”\n`
    : ''
}

/** The sample accounts, or how to make the first one of an installation without them. */
function accounts() {
  // With an address of its own the editor can be reached from elsewhere: the sample accounts are for this machine alone.
  if (env.GULLYLINE_EDITOR_ORIGIN && env.GULLYLINE_DEMO !== 'no') return ''
  const file = join(dataDir, 'demo-accounts.json')
  if (!existsSync(file))
    return '  Accounts are made with: npm run account -- add LOGIN --name NAME --role keeper\n'
  const lines = JSON.parse(readFileSync(file, 'utf8')).map(
    ({ login, role, password }) => `    ${login.padEnd(16)}${password}  (${role})`,
  )
  return `  Sign in as one of the sample people:\n${lines.join('\n')}\n`
}

function startVite() {
  const vite = spawn(
    process.execPath,
    [tool('vite/bin/vite.js'), 'web', '--port', String(devPort), '--strictPort'],
    {
      cwd: root,
      env: { ...env, GULLYLINE_EDITOR_PORT: String(editorPort) },
      stdio: 'inherit',
    },
  )
  const ended = new Promise((resolve) => vite.once('exit', resolve))
  return { ended, stop: async () => (vite.kill('SIGTERM'), ended) }
}
