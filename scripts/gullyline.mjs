/** `npm run -s gullyline -- COMMAND`: the command line. Prints nothing of its own, so that its output can be piped. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureCli } from './lib/build.mjs'
import { root } from './lib/paths.mjs'
import { run } from './lib/say.mjs'

await run(async () => {
  await ensureCli()
  const cli = ['--enable-source-maps', join(root, 'cli/dist/gullyline.js'), ...process.argv.slice(2)]
  // npm runs us in the checkout; file names are meant from where the person is.
  const { status } = spawnSync(process.execPath, cli, {
    stdio: 'inherit',
    env: { ...process.env, GULLYLINE_DATA: process.env.GULLYLINE_DATA ?? join(root, '.data') },
    cwd: process.env.INIT_CWD ?? process.cwd(),
  })
  process.exitCode = status ?? 1
})
