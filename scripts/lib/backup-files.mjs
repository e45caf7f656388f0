/**
 * A backup: one gzipped tar (POSIX.1-2001, "pax") with the database as SQL, the folders of the data folder that are no
 * database and no log, and a checksum of every file (the lines of sha256sum).
 */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream, existsSync, readdirSync, readFileSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { join, relative } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { runCommand } from './run-command.mjs'
import { Stop } from './say.mjs'

/** What a backup takes of the data folder. The database is dumped; logs and passwords of the machine stay. */
export const KEPT = ['media', 'originals', 'files', 'fonts', 'live', 'demo-accounts.json']
export const SQL = 'database.sql'
export const SUMS = 'checksums.txt'
export const ABOUT = 'backup.json'
export const FORMAT = 'gullyline-backup/1'

/** Parts of a `mysql://` URL, as the command-line client takes them. The password goes by the environment, which others can't read. */
export function clientOf(url) {
  const { hostname, port, username, password, pathname } = new URL(url)
  return {
    args: [
      '--no-defaults',
      `--host=${hostname}`,
      `--port=${port || 3306}`,
      `--user=${decodeURIComponent(username)}`,
    ],
    env: { MYSQL_PWD: decodeURIComponent(password) },
    database: pathname.slice(1),
  }
}

/** Runs a program from and to files or streams. Throws a Stop with what it said when it fails. */
export async function runPiped(program, args, { env = {}, stdin, stdout, what }) {
  const child = spawn(program, args, {
    env: { ...process.env, ...env },
    stdio: [stdin ? 'pipe' : 'ignore', stdout ? 'pipe' : 'ignore', 'pipe'],
  })
  let complaint = ''
  child.stderr.on('data', (part) => (complaint += part))
  const ended = new Promise((resolve, reject) => {
    child.once('error', reject)
    child.once('close', resolve)
  })
  const piping = [stdin && pipeline(stdin, child.stdin), stdout && pipeline(child.stdout, stdout)]
  // Whoever does not read its input says by its exit what was wrong.
  const [code] = await Promise.all([ended, ...piping.map((one) => one && one.catch(() => undefined))])
  if (code !== 0) throw new Stop(`${what} failed:\n${complaint.trim().slice(-1000)}`)
}

/** The files of a folder, by their paths in it, sorted. */
export function filesIn(folder) {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(folder, join(entry.parentPath, entry.name)))
    .sort()
}

/** SHA-256 of a file, in hex. */
export async function sumOf(file) {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return hash.digest('hex')
}

/** Throws a Stop unless every file that the backup names is there and whole, and no other. */
export async function assertWhole(folder) {
  if (!existsSync(join(folder, SUMS)) || !existsSync(join(folder, ABOUT)))
    throw new Stop('This file is no backup of Gullyline. Nothing was changed.')
  const { format } = JSON.parse(readFileSync(join(folder, ABOUT), 'utf8'))
  if (format !== FORMAT)
    throw new Stop(
      `This backup was made by another version of Gullyline (${format}). Nothing was changed; use that version.`,
    )
  const lines = readFileSync(join(folder, SUMS), 'utf8').split('\n').filter(Boolean)
  const expected = new Map(lines.map((line) => [line.slice(66), line.slice(0, 64)]))
  const there = filesIn(folder).filter((name) => name !== SUMS)
  const isSame = there.length === expected.size && there.every((name) => expected.has(name))
  if (!isSame) throw new Stop('Files of this backup are missing. Nothing was changed; use another backup.')
  for (const name of there)
    if ((await sumOf(join(folder, name))) !== expected.get(name))
      throw new Stop(`This backup is damaged, at ${name}. Nothing was changed; use another backup.`)
}

/**
 * Removes a half-made folder, and stops the databases that were started, when the command is interrupted. Returns the list
 * that the promise of each is to be put on: one that is just starting must not be left behind.
 */
export function cleanUpOnInterrupt(folder) {
  const databases = []
  const leave = async () => {
    for (const database of databases) await database.then((one) => one.stop()).catch(() => undefined)
    await rm(folder, { recursive: true, force: true })
    process.exit(130)
  }
  process.once('SIGINT', leave)
  process.once('SIGTERM', leave)
  return databases
}

/** Runs tar, and throws a Stop with what it said when it fails. */
export async function tar(args, what) {
  const { code, output } = await runCommand('tar', args)
  if (code !== 0) throw new Stop(`${what}:\n${output.trim().slice(-1000)}`)
}
