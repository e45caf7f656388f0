/** `npm run bench`: installs what is missing, builds, and measures; see bench/run.ts. */
import { ensureGenerated, ensureServer, ensureWeb } from './lib/build.mjs'
import { ensureDebian, ensurePackages } from './lib/install.mjs'
import { CHROMIUM, MARIADB, root, tool } from './lib/paths.mjs'
import { runCommand } from './lib/run-command.mjs'
import { run, say, silence } from './lib/say.mjs'

const asJson = process.argv.includes('--json')

await run(async () => {
  if (asJson) silence()
  await ensureDebian({ ...MARIADB, ...CHROMIUM })
  await ensurePackages()
  await ensureGenerated()
  await ensureWeb()
  await ensureServer()
  say('Measuring; leave the machine to itself for about a quarter of an hour')
  const { code } = await runCommand(
    process.execPath,
    [
      '--import',
      new URL(`file://${tool('tsx/dist/loader.mjs')}`).href,
      'bench/run.ts',
      ...process.argv.slice(2),
    ],
    { cwd: root, show: true, env: asJson ? { GULLYLINE_QUIET: 'yes' } : {} },
  )
  process.exit(code ?? 1)
})
