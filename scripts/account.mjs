/** `npm run account -- …`: accounts of an installation, whether it runs or not; see server/src/people/account-command.ts. */
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { ensureGenerated } from './lib/build.mjs'
import { ensurePackages } from './lib/install.mjs'
import { installationDatabase } from './lib/installation-database.mjs'
import { root, tool } from './lib/paths.mjs'
import { run } from './lib/say.mjs'

const dataDir = process.env.GULLYLINE_DATA ?? join(root, '.data')
const port = Number(process.env.GULLYLINE_DB_PORT ?? 4182)

await run(async () => {
  await ensurePackages()
  await ensureGenerated({ quiet: true })
  const database = await installationDatabase(dataDir, port)
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
