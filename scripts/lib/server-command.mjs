/** Runs a program of the server beside the database of an installation, whether the installation runs or not. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensureServer } from './build.mjs'
import { ensurePackages } from './install.mjs'
import { installationDatabase } from './installation-database.mjs'
import { root } from './paths.mjs'
import { run } from './say.mjs'

const dataDir = process.env.GULLYLINE_DATA ?? join(root, '.data')
const port = Number(process.env.GULLYLINE_DB_PORT ?? 4182)

/** `name` is the program's, as the server is built; it is given the arguments of this process. */
export async function runServerCommand(name) {
  await run(async () => {
    await ensurePackages()
    await ensureServer({ quiet: true })
    const database = await installationDatabase(dataDir, port)
    const code = await new Promise((resolve) => {
      const program = join(root, 'server/dist', `${name}.js`)
      const child = spawn(process.execPath, ['--enable-source-maps', program, ...process.argv.slice(2)], {
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
