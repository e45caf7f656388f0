import { Hono, type Context } from 'hono'
import { deleteCookie, getCookie, setCookie } from 'hono/cookie'
import type { Account, OpenSession, Person } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import { audit } from '../http/audit.ts'
import { addressOf } from '../http/client-address.ts'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { Services } from '../services.ts'
import { cookieName, type SignedIn } from './access.ts'
import { isPassword, LONGEST_PASSWORD } from './password.ts'
import { sitesOf } from './site-people.ts'
import { changePassword, findPersonRow, toPerson } from './store.ts'
import { Tries, type Try } from './tries.ts'

/** As logins are made; a longer one is nobody's, and is not even looked at. */
const LONGEST_LOGIN = 100

/** Signing in and out, who is signed in, where, and with which password. */
export function sessionRoutes(services: Services): Hono<SignedIn> {
  const { db, sessions, presence, log } = services
  const cookie = cookieName(services)
  const tries = new Tries(db)

  /** Counts a try, before the password is looked at. Throws when too much was tried. `act` names what was, for the log. */
  const beginTry = async (act: string, account: string, address: string): Promise<Try> => {
    const begun = await tries.begin(account, address)
    const minutes = begun.minutesToWait
    if (minutes === 0) return begun
    audit(log, 'sign-in locked', { act, account, address, minutes })
    throw new Refused(
      'too-many-tries',
      `There were too many wrong passwords. Try again in ${minutes === 1 ? 'a minute' : `${minutes} minutes`}.`,
    )
  }

  const accountOf = async (person: Person): Promise<Account> => ({
    ...person,
    sites: await sitesOf(db.manager, person.id),
  })

  return new Hono<SignedIn>()
    .post('/', async (c) => {
      const { login, password } = await readBody(c, 'signIn')
      const address = addressOf(c)
      if (login.length > LONGEST_LOGIN || password.length > LONGEST_PASSWORD) throw wrong()
      const row = await findPersonRow(db.manager, login)
      // By the account where there is one: no other spelling of its login gets tries of its own.
      const account = row?.id ?? login.trim().toLowerCase()
      const begun = await beginTry('sign-in', account, address)
      const isRight = await isPassword(password, row?.passwordHash)
      if (!row || !isRight) {
        audit(log, 'sign-in refused', { account, address })
        throw wrong()
      }
      if (
        Object.hasOwn(services.closedAccounts, row.login) &&
        services.closedAccounts[row.login] === password
      )
        throw new Refused(
          'not-allowed',
          'The sample accounts can be used on the machine itself only. Give this account another password with “npm run account”.',
        )
      await begun.forget()
      const token = await sessions.start(toPerson(row), getCookie(c, cookie), deviceOf(c))
      setCookie(c, cookie, token, {
        httpOnly: true,
        sameSite: 'Strict',
        path: '/',
        secure: services.isSecure,
      })
      audit(log, 'signed in', { account, address })
      return c.json(await accountOf(toPerson(row)), 201)
    })
    .get('/', async (c) => c.json(await accountOf(c.var.person)))
    .delete('/', async (c) => {
      const token = getCookie(c, cookie)
      if (token !== undefined) {
        await sessions.end(token)
        await presence.endSession(c.var.session)
        audit(log, 'signed out', { account: c.var.person.id })
      }
      deleteCookie(c, cookie, { path: '/', secure: services.isSecure })
      return c.json({ done: true })
    })
    .put('/password', async (c) => {
      const given = await readBody(c, 'changePassword')
      const { person, session } = c.var
      const address = addressOf(c)
      const begun = await beginTry('password', person.id, address)
      const row = await findPersonRow(db.manager, person.login)
      if (!(await isPassword(given.present.slice(0, LONGEST_PASSWORD + 1), row?.passwordHash))) {
        audit(log, 'password change refused', { account: person.id, address })
        throw new Refused('wrong-password', 'The present password is wrong. Nothing was changed.')
      }
      await begun.forget()
      const ended = await transact(db, (manager) =>
        changePassword(manager, person.login, given.password, session),
      )
      for (const one of ended) await presence.endSession(one)
      audit(log, 'password changed', { account: person.id, address })
      return c.json({ done: true })
    })
    .get('/all', async (c) => {
      const all: readonly OpenSession[] = await sessions.list(c.var.person.id, c.var.session)
      return c.json(all)
    })
    .delete('/all/:id', async (c) => {
      const ended = await sessions.endOf(c.var.person.id, c.req.param('id'))
      if (ended === undefined)
        throw new Refused('not-found', 'This device is not signed in any more. Nothing was changed.')
      await presence.endSession(ended)
      audit(log, 'session ended', { account: c.var.person.id })
      return c.json({ done: true })
    })
}

function wrong(): Refused {
  return new Refused('wrong-password', 'Wrong name or password. Try again.')
}

/** What the browser says it is, in a few words, for the person to know it by. */
function deviceOf(c: Context): string {
  const agent = c.req.header('user-agent') ?? ''
  const browser = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1]?.replace('Edg', 'Edge')
  const system = /(Windows|Mac OS X|Android|iPhone|iPad|Linux)/.exec(agent)?.[1]
  return [browser, system].filter(Boolean).join(' on ') || 'Unknown browser'
}
