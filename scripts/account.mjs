/** `npm run account -- …`: accounts of an installation, whether it runs or not; see server/src/people/account-command.ts. */
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ensureGenerated } from './lib/build.mjs'
import { ensureDebian, ensurePackages } from './lib/install.mjs'
import { runningMariadb, startMariadb } from './lib/mariadb.mjs'
import { MARIADB, root, tool } from './lib/paths.mjs'
import { run, Stop } from './lib/say.mjs'

const dataDir = process.env.GULLYLINE_DATA ?? join(root, '.data')
const port = Number(process.env.GULLYLINE_DB_PORT ?? 4182)

await run(async () => {
  await ensurePackages()
  await ensureGenerated({ quiet: true })
  const database = await openDatabase()
  const code = await new Promise((resolve) => {
    const command = ['--import', new URL(`file://${tool('tsx/dist/loader.mjs')}`).href]
    const child = spawn(
      process.execPath,
      [...command, join(root, 'server/src/people/account-command.ts'), ...process.argv.slice(2)],
      {
        cwd: root,
        env: { ...process.env, GULLYLINE_DATABASE_URL: database.url, GULLYLINE_DATA: dataDir },
        stdio: 'inherit',
      },
    )
    child.once('exit', resolve)
  })
  await database.stop()
  process.exit(code ?? 1)
})

/** The database of the installation: an outside one, the one that runs, or one started for this command alone. */
async function openDatabase() {
  const url = process.env.GULLYLINE_DATABASE_URL
  if (url) return { url, stop: async () => undefined }
  const home = join(dataDir, 'database')
  if (!existsSync(home))
    throw new Stop('There is no database yet. Start Gullyline once with "npm start", then run this again.')
  const running = await runningMariadb(home, port)
  if (running) return running
  await ensureDebian(MARIADB)
  return startMariadb(home, port)
}
