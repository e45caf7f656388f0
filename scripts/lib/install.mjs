/** Installs what is missing: npm packages from the lock file, and programs from Debian. Needs Node alone. */
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './paths.mjs'
import { runCommand } from './run-command.mjs'
import { say, Stop } from './say.mjs'

/** Installs the npm packages when the lock file is not the one they were installed from. */
export async function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules/.gullyline-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  say('Installing npm packages from the lock file (about a minute)')
  // No package of ours needs its install script; leaving them out keeps the installation to unpacking files.
  const { code, output } = await runCommand('npm', ['ci', '--ignore-scripts'], { cwd: root })
  if (code !== 0) {
    throw new Stop(
      `npm could not install the packages:\n${tail(output)}\nCheck the connection to the npm registry, then start again.`,
    )
  }
  writeFileSync(stamp, lock)
}

/** Installs Debian packages whose programs are missing. `programs` maps a program's path to the package that holds it. */
export async function ensureDebian(programs) {
  const missing = Object.entries(programs).filter(([path]) => !existsSync(path))
  if (missing.length === 0) return
  const packages = [...new Set(missing.map(([, name]) => name))]
  const byHand = `sudo apt-get update && sudo apt-get install -y --no-install-recommends ${packages.join(' ')}`
  if (!existsSync('/usr/bin/apt-get')) {
    throw new Stop(
      `${packages.join(' and ')} can't be installed: this is not Debian. Install it in your system's way so that ${missing[0][0]} exists.`,
    )
  }
  if (process.getuid?.() !== 0) {
    throw new Stop(
      `${packages.join(' and ')} must be installed first, and only root may do that. Run:\n  ${byHand}`,
    )
  }
  say(`Installing ${packages.join(' and ')} from Debian (about half a minute)`)
  const env = { DEBIAN_FRONTEND: 'noninteractive' }
  await runCommand('apt-get', ['update'], { env })
  const { code, output } = await runCommand(
    'apt-get',
    ['install', '-y', '--no-install-recommends', ...packages],
    { env },
  )
  if (code !== 0)
    throw new Stop(
      `Debian's ${packages.join(' and ')} could not be installed:\n${tail(output)}\nTry it by hand:\n  ${byHand}`,
    )
}

function tail(output) {
  return output.trim().split('\n').slice(-12).join('\n')
}
