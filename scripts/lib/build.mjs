/** Builds what is out of date: validators from schemas, the editor's files and the server's. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants } from 'node:zlib'
import { isBuiltin } from 'node:module'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { ensureMade, fingerprintOf, isMadeOf, setMadeOf } from './made.mjs'
import { root, tool } from './paths.mjs'
import { runCommand } from './run-command.mjs'
import { say, Stop } from './say.mjs'

const NEEDED_BY_WEB = [
  'core/package.json',
  'core/src',
  'measuring/src',
  'core/generated',
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'web/package.json',
  'package-lock.json',
]

const NEEDED_TO_GENERATE = [
  'core/behaviours',
  'core/src',
  'measuring/src',
  'server/device-pages',
  'scripts/generate.ts',
  'scripts/share-fields.ts',
  'package-lock.json',
]

const NEEDED_BY_CORE = ['core/src', 'core/generated', 'scripts/lib/build.mjs', 'package-lock.json']

const NEEDED_BY_SERVER = [
  'core/src',
  'core/generated',
  'demo/src',
  'measuring/src',
  'measuring/generated',
  'server/src',
  'server/generated',
  'scripts/lib/build.mjs',
  'package-lock.json',
]

/** `quiet` is for programs whose output is read by others. */
export async function ensureGenerated({ quiet = false } = {}) {
  const folder = join(root, 'core/generated')
  const inputs = fingerprintOf(paths(NEEDED_TO_GENERATE))
  if (isMadeOf(folder, inputs)) return
  if (!quiet) say('Generating validators from the block schemas')
  await must('the validators', [tool('tsx/dist/cli.mjs'), 'scripts/generate.ts'])
  setMadeOf(folder, inputs)
}

export async function ensureWeb() {
  await ensureGenerated()
  await ensureMade(join(root, 'web/dist'), paths(NEEDED_BY_WEB), async (folder) => {
    say('Building the editor')
    // Whatever the shell says: React for developers is a fifth larger and slower.
    const env = { NODE_ENV: 'production' }
    const args = ['build', 'web', '--outDir', folder, '--emptyOutDir', '--logLevel', 'warn']
    await must('the editor', [tool('vite/bin/vite.js'), ...args], env)
    compressAssets(join(folder, 'assets'))
  })
}

/** The core in one file, for the many processes of tests: each would take seconds to read its sources. See BUNDLED. */
export async function ensureCore() {
  await ensureGenerated()
  await ensureMade(join(root, 'core/dist'), paths(NEEDED_BY_CORE), (folder) =>
    bundle('the core', folder, { index: 'core/src/index.ts' }),
  )
}

/** What Node is told so that it takes the core from its file, as `core/package.json` has it. */
export const BUNDLED = '--conditions=bundled'

/** The server, its second process and the programs beside it. */
export async function ensureServer({ quiet = false } = {}) {
  await ensureGenerated({ quiet })
  await ensureMade(join(root, 'server/dist'), paths(NEEDED_BY_SERVER), async (folder) => {
    if (!quiet) say('Building the server')
    await bundle('the server', folder, {
      main: 'server/src/main.ts',
      'visitor-process': 'server/src/visitors/visitor-process.ts',
      'sweep-process': 'server/src/sweeps/sweep-process.ts',
      'account-command': 'server/src/people/account-command.ts',
      'package-command': 'server/src/exchange/package-command.ts',
    })
  })
}

/** The command line. */
export async function ensureCli() {
  await ensureGenerated({ quiet: true })
  await ensureMade(join(root, 'cli/dist'), paths([...NEEDED_BY_SERVER, 'cli/src']), (folder) =>
    bundle('the command line', folder, { gullyline: 'cli/src/bin.ts' }),
  )
}

/**
 * Each program in one file, with nearly all packages: Node starts it in half of the time that it takes to read the packages as
 * they are. `programs` are sources by the names of the files.
 */
async function bundle(what, outdir, programs) {
  const { build } = await import('esbuild')
  try {
    await build({
      entryPoints: Object.entries(programs).map(([out, source]) => ({ in: join(root, source), out })),
      outdir,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      // Packages that have modules need not come whole.
      mainFields: ['module', 'main'],
      // For the places in errors alone: what the sources say would be read at each start, and so would the spaces in them.
      sourcemap: true,
      sourcesContent: false,
      minifyWhitespace: true,
      minifySyntax: true,
      logLevel: 'silent',
      banner: { js: WITH_REQUIRE },
      plugins: [someStayOutside, staysBesideItsFiles],
    })
  } catch (error) {
    throw new Stop(`Building ${what} failed:\n${error.message}`)
  }
}

/** Packages that find code or files of theirs beside themselves, and stay where they are. */
const STAYS = /^(hash-wasm|jsdom|pino|playwright-core|sharp|tinypool)$/

/** What CommonJS packages ask for while they run: what Node brings, and databases that we do not use. */
const WITH_REQUIRE =
  "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);"

const someStayOutside = {
  name: 'some-stay-outside',
  setup: (build) =>
    build.onResolve({ filter: /^[^./]/ }, ({ path }) =>
      STAYS.test(path) || isBuiltin(path) ? { path, external: true } : undefined,
    ),
}

/** The demo finds its pictures, and threads find their code, beside their source, wherever the bundle is. */
const staysBesideItsFiles = {
  name: 'stays-beside-its-files',
  setup: (build) =>
    build.onLoad({ filter: /(demo[\\/]src|server[\\/]src[\\/]workers)[\\/].*\.ts$/ }, ({ path }) => ({
      loader: 'ts',
      contents: readFileSync(path, 'utf8').replaceAll(
        'import.meta.url',
        JSON.stringify(pathToFileURL(path).href),
      ),
    })),
}

/** The highest quality, 11, takes three times as long for files that are a sixtieth smaller. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } }

/** Brotli beside each script and stylesheet, made once and not at every visit. */
function compressAssets(folder) {
  for (const name of readdirSync(folder).filter((one) => /\.(js|css)$/.test(one)))
    writeFileSync(join(folder, `${name}.br`), brotliCompressSync(readFileSync(join(folder, name)), BROTLI))
}

async function must(what, args, env = {}) {
  const { code, output } = await runCommand(process.execPath, args, { cwd: root, env })
  if (code !== 0) throw new Stop(`Building ${what} failed:\n${output.trim()}`)
}

function paths(inputs) {
  return inputs.map((input) => join(root, input))
}
