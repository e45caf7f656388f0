/** A data folder as a first start leaves it: made once, and copied by every test that needs one of its own. */
import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { startMariadb } from './mariadb.mjs'
import { freePort } from './ports.mjs'
import { runCommand } from './run-command.mjs'
import { startServer } from './server.mjs'

/** Names the folder to the tests. */
export const SAMPLE_HOME = 'GULLYLINE_TEST_SAMPLE'

/** The address that the sample site is published under. */
export const SAMPLE_ORIGIN = 'http://localhost:1'

/** Starts the MariaDB of a folder that is to be made. */
export async function startSampleDatabase(folder) {
  return startMariadb(join(folder, 'database'), await freePort())
}

/** Makes the folder: the sample site, published, in its database, which is stopped. */
export async function makeSampleHome(folder, database) {
  try {
    const server = startServer({
      GULLYLINE_DATABASE_URL: database.url,
      GULLYLINE_DATA: folder,
      GULLYLINE_PICTURE_EFFORT: '0',
      // What is published says where the site is: the same for every copy, wherever it is served.
      GULLYLINE_SITE_ORIGIN: SAMPLE_ORIGIN,
      GULLYLINE_EDITOR_PORT: String(await freePort()),
      GULLYLINE_SITE_PORT: String(await freePort()),
      GULLYLINE_DEVICE_PORT: String(await freePort()),
      GULLYLINE_SWEEP: 'no',
    })
    await server.ready
    await server.stop()
  } finally {
    await database.stop()
  }
}

/** Copies the folder, owners and all, to one that is there and empty. Does nothing where no folder was made. */
export async function copySampleHome(to) {
  const folder = process.env[SAMPLE_HOME]
  if (folder === undefined || !existsSync(folder)) return
  await copyAll([`${folder}/.`], to)
}

/** Copies the database of the sample site, for a MariaDB that many tests share. */
export async function copySampleDatabase(folder, to) {
  await copyAll([`${join(folder, 'database')}/.`], to)
}

/** Copies everything but the database, for a test whose database is one of many in a shared MariaDB. */
export async function copySampleFiles(to) {
  const folder = process.env[SAMPLE_HOME]
  if (folder === undefined) throw new Error(`${SAMPLE_HOME} is not set: run these tests with "npm test"`)
  const names = readdirSync(folder).filter((name) => name !== 'database')
  await copyAll(
    names.map((name) => join(folder, name)),
    to,
  )
}

async function copyAll(from, to) {
  const { code, output } = await runCommand('cp', ['-a', '--reflink=auto', '--sparse=always', ...from, to])
  if (code !== 0) throw new Error(`The sample site could not be copied to ${to}:\n${output}`)
}
