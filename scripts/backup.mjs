/** `npm run backup -- FILE`: everything of an installation in one file, while it runs or not. See scripts/restore.mjs. */
import { createWriteStream, existsSync } from 'node:fs'
import {
  copyFile,
  lstat,
  mkdir,
  mkdtemp,
  readdir,
  readlink,
  rename,
  rm,
  symlink,
  writeFile,
} from 'node:fs/promises'
import { basename, dirname, join, resolve } from 'node:path'
import {
  cleanUpOnInterrupt,
  ABOUT,
  clientOf,
  filesIn,
  FORMAT,
  KEPT,
  runPiped,
  SQL,
  sumOf,
  SUMS,
  tar,
} from './lib/backup-files.mjs'
import { installationDatabase } from './lib/installation-database.mjs'
import { root } from './lib/paths.mjs'
import { run, say, Stop } from './lib/say.mjs'

const dataDir = resolve(process.env.GULLYLINE_DATA ?? join(root, '.data'))
const port = Number(process.env.GULLYLINE_DB_PORT ?? 4182)

await run(async () => {
  const [given] = process.argv.slice(2)
  if (!given) throw new Stop('usage: npm run backup -- FILE')
  const file = resolve(process.env.INIT_CWD ?? '.', given)
  if (existsSync(file)) throw new Stop(`${file} is there already. Nothing was written; name another file.`)
  if (!existsSync(dirname(file))) throw new Stop(`There is no folder ${dirname(file)}. Nothing was written.`)
  // Only this account may read what it holds: people's password hashes are among it.
  process.umask(0o077)
  const begun = await mkdtemp(join(dirname(file), '.gullyline-backup-'))
  const databases = cleanUpOnInterrupt(begun)
  try {
    await gather(begun, databases)
    const packed = join(begun, 'packed')
    say('Packing')
    await tar(
      ['--format=pax', '-czf', packed, '-C', join(begun, 'content'), '.'],
      'The backup could not be packed',
    )
    await rename(packed, file)
    say(`Everything is in ${file}; keep it where nobody else can read it`)
  } finally {
    await rm(begun, { recursive: true, force: true })
  }
})

/**
 * The database first, in one transaction, and then the files: a file is there before any row names it, and keeps its name
 * and its bytes for as long as it is there, so all that the rows name is among them.
 */
async function gather(begun, databases) {
  const content = join(begun, 'content')
  const starting = installationDatabase(dataDir, port)
  databases.push(starting)
  const database = await starting
  try {
    say('Reading the database')
    await mkdir(content)
    const { args, env, database: name } = clientOf(database.url)
    const how = [
      '--single-transaction',
      '--skip-lock-tables',
      '--no-tablespaces',
      '--hex-blob',
      '--order-by-primary',
      '--skip-add-locks',
    ]
    await runPiped('/usr/bin/mariadb-dump', [...args, ...how, '--skip-dump-date', name], {
      env,
      stdout: createWriteStream(join(content, SQL)),
      what: 'Reading the database',
    })
  } finally {
    await database.stop()
  }
  for (const folder of KEPT.filter((one) => existsSync(join(dataDir, one)))) {
    say(`Copying ${folder}`)
    await copyLive(join(dataDir, folder), join(content, folder))
  }
  const about = { format: FORMAT, madeAt: new Date().toISOString() }
  await writeFile(join(content, ABOUT), JSON.stringify(about))
  const lines = []
  for (const name of filesIn(content)) lines.push(`${await sumOf(join(content, name))}  ${name}`)
  await writeFile(join(content, SUMS), `${lines.join('\n')}\n`)
  say(`${lines.length} files`)
}

/**
 * Copies a file, a link or a folder of files that come and go. What is half written has a name that begins with a dot, and
 * is named by nothing; what goes while it is copied, such as an old release, was named by nothing any more.
 */
async function copyLive(from, to) {
  if (/\.(begun|next)-/.test(basename(from))) return
  try {
    const kind = await lstat(from)
    if (kind.isSymbolicLink()) await symlink(await readlink(from), to)
    else if (kind.isDirectory()) {
      await mkdir(to)
      for (const name of await readdir(from)) await copyLive(join(from, name), join(to, name))
    } else await copyFile(from, to)
  } catch (error) {
    if (error.code !== 'ENOENT') throw error
  }
}
