import { Hono } from 'hono'
import { deleteCookie, getCookie, setCookie } from 'hono/cookie'
import type { SignInRequest } from '@gullyline/core'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { Services } from '../services.ts'
import { SESSION_COOKIE, type SignedIn } from './access.ts'
import { isPassword, LONGEST_PASSWORD } from './password.ts'
import { findPersonRow, toPerson } from './store.ts'
import { Tries } from './tries.ts'

/** Signing in and out, and who is signed in. */
export function sessionRoutes({ db, sessions, presence }: Services): Hono<SignedIn> {
  const tries = new Tries()
  return new Hono<SignedIn>()
    .post('/', async (c) => {
      const { login, password } = await readBody<SignInRequest>(c, { login: 'text', password: 'text' })
      const key = login.trim().toLowerCase()
      const minutes = tries.minutesToWait(key)
      if (minutes > 0) {
        throw new Refused(
          'too-many-tries',
          `There were too many wrong passwords for this name. Try again in ${minutes === 1 ? 'a minute' : `${minutes} minutes`}.`,
        )
      }
      // Counted before the password is looked at: of many tries at once, none gets past the limit.
      tries.addWrong(key)
      const row = await findPersonRow(db.manager, key)
      const isRight = await isPassword(password.slice(0, LONGEST_PASSWORD + 1), row?.passwordHash)
      if (!row || !isRight)
        throw new Refused('wrong-password', 'This name and this password do not belong together. Try again.')
      tries.forget(key)
      const token = await sessions.start(toPerson(row), getCookie(c, SESSION_COOKIE))
      setCookie(c, SESSION_COOKIE, token, { httpOnly: true, sameSite: 'Strict', path: '/' })
      return c.json(toPerson(row), 201)
    })
    .get('/', (c) => c.json(c.var.person))
    .delete('/', async (c) => {
      const token = getCookie(c, SESSION_COOKIE)
      if (token !== undefined) {
        await sessions.end(token)
        presence.endSession(c.var.session)
      }
      deleteCookie(c, SESSION_COOKIE, { path: '/' })
      return c.json({ done: true })
    })
}
