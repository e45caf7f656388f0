/** A private MariaDB: its own data directory, its own port on loopback, started and stopped by us. */
import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isFree } from './ports.mjs'
import { runCommand } from './run-command.mjs'
import { say, Stop } from './say.mjs'

const HOST = '127.0.0.1'
const WAIT_MS = 30_000
const PAUSE_MS = 50
const USER = 'gullyline'

/**
 * Starts the server of a data directory, making the directory first when it is new. Gives the URL of the database
 * `gullyline`, one to make other databases with, the server's process and `stop`.
 */
export async function startMariadb(dataDir, port) {
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []
  mkdirSync(dataDir, { recursive: true })
  const password = keptPassword(dataDir)
  const files = join(dataDir, 'mysql')
  // Of its own: a MariaDB that starts deletes what it takes for leftovers there, and two would delete each other's.
  const temporary = join(dataDir, 'tmp')
  mkdirSync(temporary, { recursive: true })
  if (!existsSync(join(files, 'mysql'))) await initialise(files, temporary, asRoot)
  // The path of a socket may have 107 bytes at most (unix(7)), so it can't stand in a deep checkout.
  const socketDir = mkdtempSync(join(tmpdir(), 'gullyline-db-'))
  const socket = join(socketDir, 's')
  const log = join(dataDir, 'mariadb.log')
  const server = spawn(
    '/usr/sbin/mariadbd',
    [
      '--no-defaults',
      ...asRoot,
      `--datadir=${files}`,
      `--tmpdir=${temporary}`,
      `--socket=${socket}`,
      `--port=${port}`,
      `--bind-address=${HOST}`,
      `--log-error=${log}`,
      `--pid-file=${join(dataDir, 'mariadb.pid')}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--max-allowed-packet=64M',
      '--innodb-flush-log-at-trx-commit=1',
    ],
    // A process group of its own: Ctrl-C reaches us first, and the database stops after the server that uses it.
    { stdio: 'ignore', detached: true },
  )
  const ended = new Promise((resolve) => server.once('exit', resolve))
  try {
    await untilItAnswers(socket, ended, log, port)
    await createDatabase(socket, password)
  } catch (error) {
    server.kill('SIGKILL')
    throw error
  }
  const url = (database) => `mysql://${USER}:${password}@${HOST}:${port}/${database}`
  return {
    url: url('gullyline'),
    urlOf: url,
    pid: server.pid,
    ended,
    stop: async () => {
      server.kill('SIGTERM')
      await ended
      rmSync(socketDir, { recursive: true, force: true })
    },
  }
}

/** The server of a data directory that runs already, or undefined when none does. Stopping it is left to who started it. */
export async function runningMariadb(dataDir, port) {
  if (await isFree(port)) return undefined
  const url = `mysql://${USER}:${keptPassword(dataDir)}@${HOST}:${port}/gullyline`
  return { url, stop: async () => undefined }
}

async function initialise(files, temporary, asRoot) {
  say('Making a data directory for MariaDB')
  const { code, output } = await runCommand(
    '/usr/bin/mariadb-install-db',
    [
      '--no-defaults',
      ...asRoot,
      `--datadir=${files}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
    ],
    { env: { TMPDIR: temporary } },
  )
  if (code !== 0)
    throw new Stop(
      `MariaDB's data directory could not be made:\n${output.trim()}\nCheck that there is room on the disk and that you may write to ${files}.`,
    )
}

async function untilItAnswers(socket, ended, log, port) {
  let gone = false
  void ended.then(() => (gone = true))
  for (const until = Date.now() + WAIT_MS; Date.now() < until;) {
    if (gone) break
    const { code } = await runCommand('/usr/bin/mariadb-admin', [
      '--no-defaults',
      `--socket=${socket}`,
      '--user=root',
      'ping',
    ])
    if (code === 0) return
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
  }
  const lines = existsSync(log)
    ? readFileSync(log, 'utf8').trim().split('\n').slice(-6).join('\n')
    : 'it wrote no log'
  throw new Stop(
    `MariaDB did not come up on port ${port}:\n${lines}\nIf the port is taken, set GULLYLINE_DB_PORT to another; if another start is running, stop that one first.`,
  )
}

async function createDatabase(socket, password) {
  const account = `'${USER}'@'${HOST}'`
  const sql = [
    'CREATE DATABASE IF NOT EXISTS gullyline CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci',
    `CREATE USER IF NOT EXISTS ${account} IDENTIFIED BY '${password}'`,
    `ALTER USER ${account} IDENTIFIED BY '${password}'`,
    `GRANT ALL ON *.* TO ${account}`,
  ].join('; ')
  const { code, output } = await runCommand('/usr/bin/mariadb', [
    '--no-defaults',
    `--socket=${socket}`,
    '--user=root',
    '-e',
    sql,
  ])
  if (code !== 0) throw new Stop(`The database could not be made ready:\n${output.trim()}`)
}

/** The account's password: random, made once, readable by this user alone. */
function keptPassword(dataDir) {
  const file = join(dataDir, 'password')
  if (!existsSync(file)) {
    writeFileSync(file, randomBytes(18).toString('hex'))
    chmodSync(file, 0o600)
  }
  return readFileSync(file, 'utf8').trim()
}
