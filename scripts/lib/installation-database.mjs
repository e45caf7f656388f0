import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ensureDebian } from './install.mjs'
import { runningMariadb, startMariadb } from './mariadb.mjs'
import { MARIADB } from './paths.mjs'
import { Stop } from './say.mjs'

/** The database of an installation: an outside one, the one that runs, or one started for this command alone. */
export async function installationDatabase(dataDir, port) {
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
