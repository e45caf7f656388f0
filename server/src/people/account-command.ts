/** `npm run account`: makes, lists and removes accounts. scripts/account.mjs starts this beside a running database. */
import { createInterface } from 'node:readline'
import { Writable } from 'node:stream'
import { text } from 'node:stream/consumers'
import { parseArgs } from 'node:util'
import { pino } from 'pino'
import type { EntityManager } from 'typeorm'
import { ROLES } from '@gullyline/core'
import { openDatabase } from '../db/data-source.ts'
import { audit, type AuditedEvent } from '../http/audit.ts'
import { Refused } from '../http/errors.ts'
import { logFile } from '../http/log-file.ts'
import { addPerson, changePassword, listPeople, removePerson } from './store.ts'

const USAGE = `npm run account -- add LOGIN --name NAME --role ${ROLES.join('|')} [--site ID …]
npm run account -- password LOGIN
npm run account -- remove LOGIN
npm run account -- list

The person works on the sites that are named, or on all of them.
A password is asked for, or read from standard input when that is not a terminal.
`

type Tell = (event: AuditedEvent, facts: Readonly<Record<string, string>>) => void
type Act = (
  manager: EntityManager,
  login: string,
  given: { name?: string; role?: string; site?: string[] },
  tell: Tell,
) => Promise<string>

const ACTS: Readonly<Record<string, Act>> = {
  add: async (manager, login, { name = login, role = 'keeper', site }, tell) => {
    const siteIds = site && (await knownSites(manager, site))
    const asked = { login, name, role, ...(siteIds ? { siteIds } : {}) }
    const person = await addPerson(manager, { ...asked, password: await askPassword() })
    tell('account added', { account: person.id, login: person.login, role: person.role })
    return `${person.name} may sign in as "${person.login}" now, with the role ${person.role}.`
  },
  password: async (manager, login, _given, tell) => {
    await changePassword(manager, login, await askPassword())
    tell('password changed', { login })
    return `"${login}" has another password now.`
  },
  remove: async (manager, login, _given, tell) => {
    await removePerson(manager, login)
    tell('account removed', { login })
    return `"${login}" has no account any more. What was saved under that name stays.`
  },
  list: async (manager) => {
    const people = await listPeople(manager)
    return (
      people.map((one) => `${one.login}\t${one.role}\t${one.name}`).join('\n') || 'There are no accounts yet.'
    )
  },
}

/** Refuses an id that no site has. */
async function knownSites(manager: EntityManager, ids: readonly string[]): Promise<readonly string[]> {
  const rows = await manager.query<{ id: string }[]>('SELECT id FROM sites ORDER BY id')
  const known = rows.map(({ id }) => id)
  const wrong = ids.find((id) => !known.includes(id))
  if (wrong === undefined) return ids
  throw new Refused(
    'not-found',
    `There is no site "${wrong}". There are: ${known.join(', ')}. Nothing was changed.`,
  )
}

async function main(): Promise<void> {
  const { positionals, values } = parseArgs({
    allowPositionals: true,
    options: { name: { type: 'string' }, role: { type: 'string' }, site: { type: 'string', multiple: true } },
  })
  const [verb = '', login = ''] = positionals
  const act = Object.hasOwn(ACTS, verb) ? ACTS[verb] : undefined
  if (!act || (login === '' && verb !== 'list')) throw new Refused('malformed', USAGE)
  const db = await openDatabase(process.env.GULLYLINE_DATABASE_URL ?? '')
  try {
    const events: Parameters<Tell>[] = []
    const words = await db.transaction((manager) =>
      act(manager, login, values, (...event) => void events.push(event)),
    )
    // Events are logged after the transaction has committed, into the file that the server logs to.
    const { GULLYLINE_DATA: dataDir } = process.env
    if (dataDir && events.length > 0) {
      const log = pino({ name: 'gullyline' }, await logFile(dataDir))
      for (const [event, facts] of events) audit(log, event, { ...facts, by: 'npm run account' })
    }
    process.stdout.write(`${words}\n`)
  } finally {
    await db.destroy()
  }
}

/** Reads a password without showing it. */
async function askPassword(): Promise<string> {
  if (!process.stdin.isTTY) return (await text(process.stdin)).replace(/\r?\n$/, '')
  process.stdout.write('Password (not shown): ')
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() })
  const reader = createInterface({ input: process.stdin, output: silent, terminal: true })
  const [line] = await new Promise<string[]>((resolve) => reader.once('line', (typed) => resolve([typed])))
  reader.close()
  process.stdout.write('\n')
  return line ?? ''
}

main().catch((error: unknown) => {
  const problems = error instanceof Refused ? error.problems : []
  const words = error instanceof Error ? error.message : String(error)
  process.stderr.write(`${[words, ...problems.map((one) => `  ${one.pointer} ${one.message}`)].join('\n')}\n`)
  process.exit(1)
})
