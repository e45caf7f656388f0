/** `npm run restore -- FILE`: an installation as it was when a backup was made. What is there now is moved aside, never deleted. */
import { createReadStream, existsSync, readFileSync } from 'node:fs'
import { mkdir, mkdtemp, readdir, rename, rm } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import {
  cleanUpOnInterrupt,
  ABOUT,
  assertWhole,
  clientOf,
  runPiped,
  SQL,
  SUMS,
  tar,
} from './lib/backup-files.mjs'
import { ensureDebian } from './lib/install.mjs'
import { startMariadb } from './lib/mariadb.mjs'
import { MARIADB, root } from './lib/paths.mjs'
import { freePort, isFree } from './lib/ports.mjs'
import { run, say, Stop } from './lib/say.mjs'

const dataDir = resolve(process.env.GULLYLINE_DATA ?? join(root, '.data'))
const ports = [
  Number(process.env.GULLYLINE_EDITOR_PORT ?? 4180),
  Number(process.env.GULLYLINE_DB_PORT ?? 4182),
]

await run(async () => {
  const [given] = process.argv.slice(2)
  if (!given) throw new Stop('usage: npm run restore -- FILE')
  const file = resolve(process.env.INIT_CWD ?? '.', given)
  if (!existsSync(file)) throw new Stop(`There is no file ${file}. Nothing was changed.`)
  if (process.env.GULLYLINE_DATABASE_URL)
    throw new Stop('A backup is restored into a database of its own. Unset GULLYLINE_DATABASE_URL first.')
  for (const port of ports)
    if (!(await isFree(port)))
      throw new Stop(
        `Gullyline is running (port ${port} is taken). Nothing was changed; stop it, and restore then.`,
      )
  await ensureDebian(MARIADB)
  process.umask(0o077)
  await mkdir(dirname(dataDir), { recursive: true })
  const begun = await mkdtemp(join(dirname(dataDir), '.gullyline-restore-'))
  const databases = cleanUpOnInterrupt(begun)
  try {
    say('Unpacking')
    await tar(['-xzf', file, '-C', begun, '--no-same-owner'], 'The backup can’t be read. Nothing was changed')
    say('Comparing every file with its checksum')
    await assertWhole(begun)
    await fillDatabase(begun, databases)
    for (const name of [SQL, SUMS, ABOUT]) await rm(join(begun, name))
    await takePlace(begun)
  } finally {
    // Gone when it has taken its place. A database that its user could not get to has its files elsewhere.
    const noted = join(begun, 'database/location')
    if (existsSync(noted)) await rm(readFileSync(noted, 'utf8').trim(), { recursive: true, force: true })
    await rm(begun, { recursive: true, force: true })
  }
})

async function fillDatabase(folder, databases) {
  say('Filling the database')
  const starting = startMariadb(join(folder, 'database'), await freePort())
  databases.push(starting)
  const database = await starting
  try {
    const { args, env, database: name } = clientOf(database.url)
    await runPiped('/usr/bin/mariadb', [...args, name], {
      env,
      stdin: createReadStream(join(folder, SQL)),
      what: 'Filling the database',
    })
  } finally {
    await database.stop()
  }
}

/** Puts the restored folder where the data is, and what was there beside it. */
async function takePlace(begun) {
  const isUsed = existsSync(dataDir) && (await readdir(dataDir)).length > 0
  const aside = `${dataDir}-before-${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}`
  if (isUsed) await rename(dataDir, aside)
  else await rm(dataDir, { recursive: true, force: true })
  try {
    await rename(begun, dataDir)
  } catch (error) {
    if (isUsed) await rename(aside, dataDir)
    throw error
  }
  if (isUsed) say(`What was there before is in ${aside}`)
  say(`Restored into ${dataDir}; start Gullyline with "npm start"`)
}
