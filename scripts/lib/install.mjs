/** Installs what is missing: npm packages from the lock file, and programs from Debian. Needs Node alone. */
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { withAddresses } from './addressed-lock.mjs'
import { root } from './paths.mjs'
import { runCommand } from './run-command.mjs'
import { say, Stop } from './say.mjs'

/** Installs the npm packages when the lock file is not the one they were installed from. */
export async function ensurePackages() {
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8')
  const digest = createHash('sha256').update(lock).digest('hex')
  const stamp = join(root, 'node_modules/.gullyline-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return
  say('Installing npm packages from the lock file (about a minute)')
  let { code, output } = await installAddressed(JSON.parse(lock))
  // A registry that keeps its files elsewhere refuses with an HTTP status; then it is asked where they are.
  if (code !== 0 && /code E4\d\d/.test(output)) ({ code, output } = await npm(INSTALL))
  if (code !== 0) {
    throw new Stop(
      `npm could not install the packages:\n${tail(output)}\nCheck the connection to the npm registry, then start again.`,
    )
  }
  writeFileSync(stamp, digest)
}

/** No package of ours needs its install script; leaving them out keeps the installation to unpacking files. */
const INSTALL = ['ci', '--ignore-scripts']

/** Installs without asking the registry first where each package is. */
async function installAddressed(lock) {
  const { output } = await npm(['config', 'get', 'registry'])
  const registry = output.split('\n').find((line) => /^https?:/.test(line))
  if (registry === undefined) return npm(INSTALL)
  // npm takes this file before the lock file, by its documentation.
  const addressed = join(root, 'npm-shrinkwrap.json')
  try {
    writeFileSync(addressed, JSON.stringify(withAddresses(lock, registry)))
    return await npm(INSTALL)
  } finally {
    rmSync(addressed, { force: true })
  }
}

function npm(args) {
  return runCommand('npm', args, { cwd: root })
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
