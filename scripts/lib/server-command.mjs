/** Runs a program of the server beside the database of an installation, whether the installation runs or not. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensureGenerated } from './build.mjs'
import { ensurePackages } from './install.mjs'
import { installationDatabase } from './installation-database.mjs'
import { root, tool } from './paths.mjs'
import { run } from './say.mjs'

const dataDir = process.env.GULLYLINE_DATA ?? join(root, '.data')
const port = Number(process.env.GULLYLINE_DB_PORT ?? 4182)

/** `file` is the program, from the root of the project; it is given the arguments of this process. */
export async function runServerCommand(file) {
  await run(async () => {
    await ensurePackages()
    await ensureGenerated({ quiet: true })
    const database = await installationDatabase(dataDir, port)
    const code = await new Promise((resolve) => {
      const command = ['--import', new URL(`file://${tool('tsx/dist/loader.mjs')}`).href]
      const child = spawn(process.execPath, [...command, join(root, file), ...process.argv.slice(2)], {
        cwd: root,
        env: { ...process.env, GULLYLINE_DATABASE_URL: database.url, GULLYLINE_DATA: dataDir },
        stdio: 'inherit',
      })
      child.once('exit', resolve)
    })
    await database.stop()
    process.exit(code ?? 1)
  })
}
