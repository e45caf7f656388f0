/** A private MariaDB: its own data directory, its own port on loopback, started and stopped by us. */
import { spawn } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import {
  chmodSync,
  chownSync,
  cpSync,
  existsSync,
  lchownSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { homedir, tmpdir, userInfo } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { isFree } from './ports.mjs'
import { runCommand } from './run-command.mjs'
import { say, Stop } from './say.mjs'

const HOST = '127.0.0.1'
const WAIT_MS = 30_000
const PAUSE_MS = 50
const USER = 'gullyline'

/** The account of Debian's package, which may nothing but run a database. */
const SYSTEM_USER = 'mysql'
/** What the application may do in its own database: use it, and bring its schema up to date. No files, no accounts. */
const RIGHTS = 'SELECT, INSERT, UPDATE, DELETE, CREATE, ALTER, DROP, INDEX, REFERENCES'

/**
 * Starts the server of a data directory, making the directory first when it is new. Started by root, it runs as the user
 * "mysql", never as root. Gives the URL of the database `gullyline`, the server's process and `stop`. With `forTests`,
 * the application's account may also make and use databases whose names begin with "test_".
 */
export async function startMariadb(wantedDir, port, { forTests = false } = {}) {
  mkdirSync(wantedDir, { recursive: true, mode: 0o700 })
  const password = keptPassword(wantedDir)
  const owner = process.getuid?.() === 0 ? systemUser() : undefined
  const dataDir = owner ? reachableDir(wantedDir, owner) : wantedDir
  const asOwner = owner ? [`--user=${SYSTEM_USER}`] : []
  const files = join(dataDir, 'mysql')
  // Of its own: a MariaDB that starts deletes what it takes for leftovers there, and two would delete each other's.
  const temporary = join(dataDir, 'tmp')
  const exports = join(dataDir, 'no-files')
  for (const folder of [temporary, exports]) mkdirSync(folder, { recursive: true, mode: 0o700 })
  if (owner) give(dataDir, owner)
  if (!existsSync(join(files, 'mysql'))) await initialise(files, temporary, asOwner)
  chmodSync(files, 0o700)
  // The path of a socket may have 107 bytes at most (unix(7)), so it can't stand in a deep checkout.
  const socketDir = mkdtempSync(join(tmpdir(), 'gullyline-db-'))
  if (owner) chownSync(socketDir, owner.uid, owner.gid)
  const socket = join(socketDir, 's')
  const log = join(dataDir, 'mariadb.log')
  const server = spawn(
    '/usr/sbin/mariadbd',
    [
      '--no-defaults',
      ...asOwner,
      `--datadir=${files}`,
      `--tmpdir=${temporary}`,
      `--socket=${socket}`,
      `--port=${port}`,
      `--bind-address=${HOST}`,
      `--log-error=${log}`,
      `--pid-file=${join(dataDir, 'mariadb.pid')}`,
      '--skip-name-resolve',
      // No statement reads or writes a file, from nobody.
      `--secure-file-priv=${exports}`,
      '--local-infile=0',
      '--skip-symbolic-links',
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
    await secure(socket, password, forTests)
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

async function initialise(files, temporary, asOwner) {
  say('Making a data directory for MariaDB')
  const { code, output } = await runCommand(
    '/usr/bin/mariadb-install-db',
    [
      '--no-defaults',
      ...asOwner,
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
    const { code, output } = await runCommand('/usr/bin/mariadb-admin', [
      '--no-defaults',
      `--socket=${socket}`,
      `--user=${userInfo().username}`,
      'ping',
    ])
    // Whoever it lets in: that it refuses somebody shows that it is there.
    if (code === 0 || output.includes('Access denied')) return
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
  }
  const lines = existsSync(log)
    ? readFileSync(log, 'utf8').trim().split('\n').slice(-6).join('\n')
    : 'it wrote no log'
  throw new Stop(
    `MariaDB did not come up on port ${port}:\n${lines}\nIf the port is taken, set GULLYLINE_DB_PORT to another; if another start is running, stop that one first.`,
  )
}

/**
 * Makes the database, and leaves no account that anybody else could use: the one for administration is open only to the
 * system user that runs this, over the socket; the application's has a password and its own database. Done at every
 * start, so that a data directory of before is as tight as a new one. The password goes by standard input, since
 * everybody on a machine can read the arguments of a process.
 */
async function secure(socket, password, forTests) {
  const admin = userInfo().username
  const account = `'${USER}'@'${HOST}'`
  const databases = ['`gullyline`', ...(forTests ? ['`test\\_%`'] : [])]
  const others = await query(
    socket,
    "SELECT CONCAT(QUOTE(User), '@', QUOTE(Host)) FROM mysql.global_priv " +
      `WHERE NOT (User = '${USER}' AND Host = '${HOST}') AND NOT (User = '${admin}' AND Host = 'localhost') ` +
      "AND User <> 'mariadb.sys' AND JSON_VALUE(Priv, '$.is_role') IS NULL",
  )
  const drop = others.split('\n').filter((one) => one !== '' && one !== "'PUBLIC'@''")
  await query(
    socket,
    [
      'CREATE DATABASE IF NOT EXISTS gullyline CHARACTER SET utf8mb4 COLLATE utf8mb4_bin',
      `CREATE USER IF NOT EXISTS '${admin}'@'localhost' IDENTIFIED VIA unix_socket`,
      `ALTER USER '${admin}'@'localhost' IDENTIFIED VIA unix_socket`,
      `GRANT ALL ON *.* TO '${admin}'@'localhost' WITH GRANT OPTION`,
      `CREATE USER IF NOT EXISTS ${account} IDENTIFIED BY '${password}'`,
      `ALTER USER ${account} IDENTIFIED BY '${password}'`,
      `REVOKE ALL PRIVILEGES, GRANT OPTION FROM ${account}`,
      ...databases.map((name) => `GRANT ${RIGHTS} ON ${name}.* TO ${account}`),
      ...drop.map((one) => `DROP USER ${one}`),
    ].join(';\n'),
  )
}

/** Runs statements as whoever administers the server, and gives what they print. */
async function query(socket, sql) {
  // In a directory of before, root still has no password; in a new one, the user of the system is asked for.
  for (const user of [userInfo().username, 'root']) {
    const args = ['--no-defaults', `--socket=${socket}`, `--user=${user}`, '--batch', '--skip-column-names']
    const { code, output } = await runCommand('/usr/bin/mariadb', args, { input: sql })
    if (code === 0) return output
    if (user === 'root') throw new Stop(`The database could not be made ready:\n${output.trim()}`)
  }
  return ''
}

/** The user and group that Debian's package makes. */
function systemUser() {
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((one) => one.startsWith(`${SYSTEM_USER}:`))
  if (!line)
    throw new Stop(
      `There is no system user "${SYSTEM_USER}", as which the database is to run. Install Debian's mariadb-server again.`,
    )
  const [, , uid, gid] = line.split(':')
  return { uid: Number(uid), gid: Number(gid) }
}

/**
 * The directory itself when the database's user can get to it; else one of its own under /var/lib, since a home folder of
 * root is closed to everybody and stays so. Which one it is stands in the directory, in "location".
 */
function reachableDir(dataDir, owner) {
  const noted = join(dataDir, 'location')
  if (existsSync(noted)) return readFileSync(noted, 'utf8').trim()
  for (let at = dirname(resolve(dataDir)); at !== dirname(at); at = dirname(at)) {
    if (mayEnter(statSync(at), owner)) continue
    if (isOurs(at, dataDir)) {
      // Its own folder of data: others may pass through, and list nothing.
      chmodSync(at, 0o711)
      continue
    }
    const name = createHash('sha256').update(resolve(dataDir)).digest('hex').slice(0, 12)
    const elsewhere = join('/var/lib/gullyline', name)
    mkdirSync(elsewhere, { recursive: true, mode: 0o711 })
    writeFileSync(noted, elsewhere)
    say(`The database's user can't enter ${at}: its files are in ${elsewhere}`)
    if (existsSync(join(dataDir, 'mysql'))) renameOver(join(dataDir, 'mysql'), join(elsewhere, 'mysql'))
    return elsewhere
  }
  return dataDir
}

/** Whether it is the folder of data right around the database's, or one that was made for a test. */
function isOurs(folder, dataDir) {
  return (
    folder === dirname(resolve(dataDir)) && statSync(folder).uid === process.getuid() && folder !== homedir()
  )
}

function mayEnter({ uid, gid, mode }, owner) {
  const bit = uid === owner.uid ? 0o100 : gid === owner.gid ? 0o010 : 0o001
  return (mode & bit) !== 0
}

function renameOver(from, to) {
  cpSync(from, to, { recursive: true })
  rmSync(from, { recursive: true })
}

/** Gives a folder and all in it to the database's user, but not the password, which is ours. */
function give(folder, { uid, gid }) {
  chownSync(folder, uid, gid)
  chmodSync(folder, 0o700)
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.name === 'password' || entry.name === 'location') continue
    if (entry.isDirectory()) give(path, { uid, gid })
    else lchownSync(path, uid, gid)
  }
}

/** The account's password: random, made once, readable by this user alone. */
function keptPassword(dataDir) {
  const file = join(dataDir, 'password')
  if (!existsSync(file)) writeFileSync(file, randomBytes(18).toString('hex'), { mode: 0o600 })
  return readFileSync(file, 'utf8').trim()
}
