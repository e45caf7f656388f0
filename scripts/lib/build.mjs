/** Builds what is out of date: validators from schemas, the editor's files and the server's. */
import { existsSync, readdirSync, readFileSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { brotliCompressSync } from 'node:zlib'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
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

/** `quiet` is for programs whose output is read by others. */
export async function ensureGenerated({ quiet = false } = {}) {
  const output = join(root, 'core/generated/node-validators.js')
  if (
    isNewer(output, [
      'core/src/blocks',
      'core/src/kit',
      'core/src/look',
      'core/src/page',
      'core/src/site',
      'core/src/sizes',
      'core/src/edits/edit-schema.ts',
      'core/behaviours',
      'measuring/src',
      'core/src/measure',
      'core/src/exchange',
      'scripts/generate.ts',
      'scripts/share-fields.ts',
      'scripts/help-text.ts',
      'web/src/help/topics.ts',
      'web/src/editor/commands/command-list.ts',
    ])
  )
    return
  if (!quiet) say('Generating validators from the block schemas')
  await must('the validators', [tool('tsx/dist/cli.mjs'), 'scripts/generate.ts'])
  utimesSync(output, new Date(), new Date())
}

export async function ensureWeb() {
  await ensureGenerated()
  if (isNewer(join(root, 'web/dist/index.html'), NEEDED_BY_WEB)) return
  say('Building the editor')
  await must('the editor', [tool('vite/bin/vite.js'), 'build', 'web', '--logLevel', 'warn'])
  compressAssets(join(root, 'web/dist/assets'))
}

const NEEDED_BY_SERVER = ['core/src', 'core/generated', 'demo/src', 'server/src', 'package-lock.json']

/** The server, its second process and the programs beside it. */
export async function ensureServer({ quiet = false } = {}) {
  await ensureGenerated({ quiet })
  if (isNewer(join(root, 'server/dist/main.js'), NEEDED_BY_SERVER)) return
  if (!quiet) say('Building the server')
  await bundle('the server', 'server/dist', {
    main: 'server/src/main.ts',
    'visitor-process': 'server/src/visitors/visitor-process.ts',
    'account-command': 'server/src/people/account-command.ts',
    'package-command': 'server/src/exchange/package-command.ts',
  })
}

/** The command line. */
export async function ensureCli() {
  await ensureGenerated({ quiet: true })
  if (isNewer(join(root, 'cli/dist/gullyline.js'), [...NEEDED_BY_SERVER, 'cli/src', 'measuring/src'])) return
  await bundle('the command line', 'cli/dist', { gullyline: 'cli/src/bin.ts' })
}

/** Each program in one file: Node starts it in a third of the time that it takes to read each source on its own. `programs` are sources by the names of the files. */
async function bundle(what, folder, programs) {
  const { build } = await import('esbuild')
  try {
    await build({
      entryPoints: Object.entries(programs).map(([out, source]) => ({ in: join(root, source), out })),
      outdir: join(root, folder),
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      sourcemap: true,
      logLevel: 'silent',
      plugins: [ownPackagesOnly, staysBesideItsFiles],
    })
  } catch (error) {
    throw new Stop(`Building ${what} failed:\n${error.message}`)
  }
}

/** Packages from the registry stay where they are; ours are TypeScript, which Node can't read. */
const ownPackagesOnly = {
  name: 'own-packages-only',
  setup: (build) =>
    build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@gullyline/') ? undefined : { path, external: true },
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

/** Brotli beside each script and stylesheet, made once and not at every visit. */
function compressAssets(folder) {
  for (const name of readdirSync(folder).filter((one) => /\.(js|css)$/.test(one)))
    writeFileSync(join(folder, `${name}.br`), brotliCompressSync(readFileSync(join(folder, name))))
}

async function must(what, args) {
  const { code, output } = await runCommand(process.execPath, args, { cwd: root })
  if (code !== 0) throw new Stop(`Building ${what} failed:\n${output.trim()}`)
}

/** True when `output` exists and nothing under `inputs` is newer. */
function isNewer(output, inputs) {
  if (!existsSync(output)) return false
  const made = statSync(output).mtimeMs
  return inputs.every((input) => newestUnder(join(root, input)) <= made)
}

function newestUnder(path) {
  if (!existsSync(path)) return 0
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newestUnder(join(path, name))))
}
