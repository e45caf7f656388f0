/**
 * `npm test`: installs what is missing and runs everything. `--only NAME` runs one part; see PARTS. `npm run soak` runs
 * for hours what `npm test` runs in short: thousands of kills, of edits by two people, of generated pages.
 */
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BUNDLED, ensureCore, ensureGenerated, ensureServer, ensureWeb } from './lib/build.mjs'
import { ensureDebian, ensurePackages } from './lib/install.mjs'
import { startMariadb } from './lib/mariadb.mjs'
import { CHROMIUM, MARIADB, NGINX, root, tool, WEBKIT } from './lib/paths.mjs'
import { freePort } from './lib/ports.mjs'
import { runCommand } from './lib/run-command.mjs'
import { copySampleDatabase, makeSampleHome, SAMPLE_HOME, startSampleDatabase } from './lib/sample-home.mjs'
import { SOAK } from './lib/soak.mjs'
import { run, say } from './lib/say.mjs'

const JEST = [
  '--experimental-vm-modules',
  '--no-warnings',
  '--import',
  new URL('lib/jest/typescript.mjs', import.meta.url).href,
  tool('jest/bin/jest.js'),
  '--ci',
]
/** Requests that are meant to stop the server. */
const HOSTILE = 'hostile\\.test'
const PLAYWRIGHT = [tool('@playwright/test/cli.js'), 'test']

/**
 * Each part: what it is, the command for this Node, what it needs, how to count what it found, and its lane. Those with
 * `isOnSources` are tests of the sources of the core; the others take it from the file that it is bundled in. Two lanes run
 * at a time. The browser's tests take longest, and come first; what runs beside them fills the moments in which they wait.
 */
const PARTS = [
  {
    name: 'types',
    // Several checkers of one project look up the same types again, each for itself.
    args: [tool('typescript/bin/tsc'), '-b', '--checkers', '1'],
    count: countCheck,
    lane: 'first',
  },
  {
    name: 'browser',
    args: [...PLAYWRIGHT],
    count: countPlaywright,
    needs: ['database', 'server', 'sample', 'web', 'chromium'],
    lane: 'first',
  },
  // While what the others need is being made.
  {
    name: 'lint',
    args: [tool('oxlint/bin/oxlint'), '--type-aware', '--deny-warnings'],
    count: countCheck,
    lane: 'beside',
  },
  {
    name: 'format',
    args: [tool('oxfmt/bin/oxfmt'), '--check'],
    count: countCheck,
    lane: 'beside',
  },
  {
    name: 'unit',
    args: [...JEST, '--maxWorkers', '2', '--selectProjects', 'unit', 'web-dom'],
    count: countJest,
    isOnSources: true,
    // First, since it waits for nothing: it runs while what the others need is being made.
    lane: 'beside',
  },
  {
    name: 'hostile',
    args: [...JEST, '--selectProjects', 'server', '--testPathPatterns', HOSTILE],
    count: countJest,
    needs: ['database', 'server', 'sample'],
    // In a process of its own, and not beside the rest of the server's. What is waited for is limited by what the machine can do meanwhile.
    lane: 'beside',
  },
  {
    name: 'server',
    // Every file has a database of its own. Last, since it has many files: with three at a time both processors work to the end.
    args: [...JEST, '--maxWorkers', '3', '--selectProjects', 'server', '--testPathIgnorePatterns', HOSTILE],
    count: countJest,
    needs: ['database', 'server', 'sample', 'nginx'],
    lane: 'beside',
  },
  {
    name: 'screenshots',
    args: [...PLAYWRIGHT, '--config', 'playwright.screenshots.config.ts'],
    count: countPlaywright,
    needs: ['database', 'server', 'sample', 'web', 'chromium'],
    lane: 'first',
    onlyOnDemand: true,
  },
  {
    name: 'webkit',
    args: [...PLAYWRIGHT, '--config', 'playwright.webkit.config.ts'],
    count: countPlaywright,
    needs: ['database', 'server', 'sample', 'web', 'chromium', 'webkit'],
    lane: 'first',
    onlyOnDemand: true,
  },
]

const SOAK_PARTS = [
  {
    name: 'kills',
    args: [
      ...JEST,
      '--runInBand',
      '--selectProjects',
      'server',
      '--testPathPatterns',
      'kills|two-editors|incremental-publish',
    ],
    count: countJest,
    needs: ['database', 'server', 'sample'],
    lane: 'first',
  },
  {
    name: 'laws',
    args: [...JEST, '--runInBand', '--selectProjects', 'unit', '--testPathPatterns', 'laws/|turn-into'],
    count: countJest,
    isOnSources: true,
    lane: 'beside',
  },
]

const isSoak = process.argv.includes('--soak')
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : undefined
const more = process.argv.includes('--') ? process.argv.slice(process.argv.indexOf('--') + 1) : []
const wanted = (isSoak ? SOAK_PARTS : PARTS).filter((part) =>
  only ? part.name === only : !part.onlyOnDemand,
)

await run(async () => {
  const needs = new Set(wanted.flatMap((part) => part.needs ?? []))
  const home = mkdtempSync(join(tmpdir(), 'gullyline-test-'))
  const sampleHome = join(home, 'sample')
  let programs
  let sampleDatabase
  let database
  const installPrograms = async () => {
    await ensureDebian({
      ...(needs.has('database') ? MARIADB : {}),
      ...(needs.has('chromium') ? CHROMIUM : {}),
      ...(needs.has('nginx') ? NGINX : {}),
      ...(needs.has('webkit') ? WEBKIT : {}),
    })
    if (needs.has('sample')) sampleDatabase = await startSampleDatabase(sampleHome)
  }
  // The programs in Go collect garbage as if memory were short, for an eighth of their work.
  const env = { FORCE_COLOR: '0', GOGC: '400', ...(isSoak ? { [SOAK]: '1' } : {}) }
  const bundledOptions = `${process.env.NODE_OPTIONS ?? ''} ${BUNDLED}`.trim()
  /** What some parts need: the others begin meanwhile. */
  const prepare = async () => {
    if (needs.has('web')) await ensureWeb()
    if (needs.has('server')) await ensureServer()
    if (needs.has('sample')) {
      say('Making the sample site that tests begin with')
      await makeSampleHome(sampleHome, sampleDatabase)
      env[SAMPLE_HOME] = sampleHome
    }
    if (needs.has('database')) {
      say('Starting a MariaDB for the tests')
      const folder = join(home, 'database')
      mkdirSync(folder, { mode: 0o700 })
      if (needs.has('sample')) await copySampleDatabase(sampleHome, folder)
      database = await startMariadb(folder, await freePort(), { forTests: true })
      env.GULLYLINE_TEST_DATABASE = database.url
    }
  }
  const total = { passed: 0, failed: 0 }
  try {
    // The database's own user passes through to its files.
    chmodSync(home, 0o711)
    // Programs wait for a network and then make a database; unpacking packages takes one processor.
    programs = installPrograms()
    await Promise.all([programs, ensurePackages()])
    await ensureGenerated()
    await ensureCore()
    const prepared = prepare()
    const runPart = async (part) => {
      if (part.needs) await prepared
      say(`Running ${part.name}`)
      // Hours of silence would say nothing of what is through by then.
      const onOutput = isSoak ? (text) => process.stdout.write(text) : undefined
      const { code, output } = await runCommand(process.execPath, [...part.args, ...more], {
        cwd: root,
        env: part.isOnSources ? env : { ...env, NODE_OPTIONS: bundledOptions },
        onOutput,
      })
      const found = part.count(output, code)
      total.passed += found.passed
      total.failed += found.failed
      if (!isSoak && (code !== 0 || found.failed > 0 || only)) console.log(output.trimEnd())
      say(`${part.name}: ${found.passed} passed, ${found.failed} failed`)
    }
    const lane = async (name) => {
      for (const part of wanted.filter((one) => one.lane === name)) await runPart(part)
    }
    await Promise.all([prepared, lane('first'), lane('beside')])
  } finally {
    // What could not be installed was told; what was started meanwhile is stopped.
    await programs?.catch(() => undefined)
    await sampleDatabase?.stop()
    await database?.stop()
    rmSync(home, { recursive: true, force: true })
  }
  if (total.failed > 0)
    console.log('\nTo run one part again: npm test -- --only NAME, with NAME one of the above.')
  console.log(`\n${total.passed} passed, ${total.failed} failed`)
  process.exit(total.failed > 0 ? 1 : 0)
})

/** A tool that only says yes or no counts as one test. */
function countCheck(_output, code) {
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 }
}

function countJest(output, code) {
  return atLeastOneFailure(code, {
    passed: number(/^Tests:.*?(\d+) passed/m, output),
    failed: number(/^Tests:.*?(\d+) failed/m, output),
  })
}

function countPlaywright(output, code) {
  return atLeastOneFailure(code, {
    passed: number(/(\d+) passed/, output),
    failed: number(/(\d+) failed/, output),
  })
}

/** A runner that ended badly, or ran nothing, must not look like one that passed. */
function atLeastOneFailure(code, found) {
  const nothing = found.passed + found.failed === 0
  return (code !== 0 || nothing) && found.failed === 0 ? { ...found, failed: 1 } : found
}

function number(pattern, output) {
  return Number(pattern.exec(output)?.[1] ?? 0)
}
