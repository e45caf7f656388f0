import type { EntityManager } from 'typeorm'
import { ROLES, type Person, type Role } from '@gullyline/core'
import { PersonEntity, type PersonRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { hashPassword, LONGEST_PASSWORD, SHORTEST_PASSWORD } from './password.ts'

/** Letters, digits and what mail addresses need: a login is typed, and compared without regard to case. */
const LOGIN = /^[a-z0-9][a-z0-9._@-]{0,99}$/

export interface NewPerson {
  readonly login: string
  readonly name: string
  readonly role: string
  readonly password: string
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
    ...passwordProblems(given.password),
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
  return toPerson(row)
}

/** Gives an account another password. Whoever is signed in with it stays so. */
export async function changePassword(manager: EntityManager, login: string, password: string): Promise<void> {
  const row = await getPersonRow(manager, login)
  const problems = passwordProblems(password)
  if (problems.length > 0)
    throw new Refused('not-valid', 'This can’t be a password. Nothing was changed.', { problems })
  await manager.update(PersonEntity, { id: row.id }, { passwordHash: await hashPassword(password) })
}

/** Removes an account, its sessions and its unsaved edits. What the person saved stays, under their name. */
export async function removePerson(manager: EntityManager, login: string): Promise<void> {
  await manager.delete(PersonEntity, { id: (await getPersonRow(manager, login)).id })
}

/** Everybody with an account, by login. */
export async function listPeople(manager: EntityManager): Promise<Person[]> {
  return (await manager.find(PersonEntity, { order: { login: 'ASC' } })).map(toPerson)
}

export async function findPersonRow(manager: EntityManager, login: string): Promise<PersonRow | undefined> {
  return (await manager.findOneBy(PersonEntity, { login: login.trim().toLowerCase() })) ?? undefined
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

function passwordProblems(password: string): { pointer: string; message: string }[] {
  return password.length >= SHORTEST_PASSWORD && password.length <= LONGEST_PASSWORD
    ? []
    : [
        {
          pointer: '/password',
          message: `must have ${SHORTEST_PASSWORD} to ${LONGEST_PASSWORD} characters`,
        },
      ]
}
