import { Not, type EntityManager } from 'typeorm'
import { ROLES, type Person, type Role } from '@gullyline/core'
import { PersonEntity, SessionEntity, type PersonRow } from '../db/rows.ts'
import { renew } from '../db/revisions.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { addToSites } from './site-people.ts'
import { hashPassword, passwordProblems } from './password.ts'

/** Letters, digits and what mail addresses need: a login is typed, and compared without regard to case. */
const LOGIN = /^[a-z0-9][a-z0-9._@-]{0,99}$/

export interface NewPerson {
  readonly login: string
  readonly name: string
  readonly role: string
  readonly password: string
  /** The sites that the person works on; all where it is left out. */
  readonly siteIds?: readonly string[]
}

/** Makes an account. Refuses, with all reasons, what can't be one. */
export async function addPerson(manager: EntityManager, given: NewPerson): Promise<Person> {
  const login = given.login.trim().toLowerCase()
  const name = given.name.trim()
  const problems = [
    ...(LOGIN.test(login)
      ? []
      : [
          {
            pointer: '/login',
            message: 'must start with a letter or digit and hold only letters, digits and . _ @ -',
          },
        ]),
    ...(name !== '' && name.length <= 100
      ? []
      : [{ pointer: '/name', message: 'must have 1 to 100 characters' }]),
    ...(isRole(given.role) ? [] : [{ pointer: '/role', message: `must be one of ${ROLES.join(', ')}` }]),
    ...passwordProblems(given.password, { login, name }),
  ]
  if (problems.length > 0)
    throw new Refused('not-valid', 'The account can’t be made like this. Nothing was changed.', {
      problems,
    })
  if (await findPersonRow(manager, login)) {
    throw new Refused('not-valid', `There is an account "${login}" already. Nothing was changed.`, {
      problems: [{ pointer: '/login', message: 'is taken' }],
    })
  }
  const row: PersonRow = {
    id: newId(),
    login,
    name,
    role: given.role as Role,
    passwordHash: await hashPassword(given.password),
    createdAt: new Date(),
  }
  await manager.insert(PersonEntity, row)
  await addToSites(manager, row.id, given.siteIds)
  return toPerson(row)
}

/** Gives an account another password, and ends all its sessions but one that is given. Returns the hashes of those. */
export async function changePassword(
  manager: EntityManager,
  login: string,
  password: string,
  exceptSession?: string,
): Promise<readonly string[]> {
  const row = await getPersonRow(manager, login)
  const problems = passwordProblems(password, row)
  if (problems.length > 0)
    throw new Refused('not-valid', `This password ${problems[0]!.message}. Nothing was changed.`, {
      problems,
    })
  await manager.update(PersonEntity, { id: row.id }, { passwordHash: await hashPassword(password) })
  const others = {
    personId: row.id,
    ...(exceptSession === undefined ? {} : { tokenHash: Not(exceptSession) }),
  }
  const ended = await manager.find(SessionEntity, { where: others })
  await manager.delete(SessionEntity, others)
  await renew(manager, ['people'])
  return ended.map(({ tokenHash }) => tokenHash)
}

/** Removes an account, its sessions and its unsaved edits. What the person saved stays, under their name. */
export async function removePerson(manager: EntityManager, login: string): Promise<void> {
  await manager.delete(PersonEntity, { id: (await getPersonRow(manager, login)).id })
  await renew(manager, ['people'])
}

/** Everybody with an account, by login. */
export async function listPeople(manager: EntityManager): Promise<Person[]> {
  return (await manager.find(PersonEntity, { order: { login: 'ASC' } })).map(toPerson)
}

/** The account with this login; undefined when there is none, or when it can't be a login at all. */
export async function findPersonRow(manager: EntityManager, login: string): Promise<PersonRow | undefined> {
  const plain = login.trim().toLowerCase()
  // Exactly as logins are made: nothing that only looks like one, or that the database would take for one.
  if (!LOGIN.test(plain)) return undefined
  return (await manager.findOneBy(PersonEntity, { login: plain })) ?? undefined
}

export function toPerson({ id, login, name, role }: PersonRow): Person {
  return { id, login, name, role }
}

async function getPersonRow(manager: EntityManager, login: string): Promise<PersonRow> {
  const row = await findPersonRow(manager, login)
  if (!row) throw new Refused('not-found', `There is no account "${login}". Nothing was changed.`)
  return row
}

function isRole(role: string): role is Role {
  return (ROLES as readonly string[]).includes(role)
}
