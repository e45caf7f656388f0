/** Who may do what: the one table of routes and roles, and the gate that reads it. */
import type { MiddlewareHandler } from 'hono'
import { getCookie } from 'hono/cookie'
import { ROLES, type Person, type Role } from '@gullyline/core'
import { Refused } from '../http/errors.ts'
import { audit } from '../http/audit.ts'
import type { KnownRevisions } from '../db/revisions.ts'
import { SiteScope } from '../db/site-scope.ts'
import type { Services } from '../services.ts'
import { hashOf } from './sessions.ts'

/** What the gate leaves for routes behind it. */
export interface SignedIn {
  readonly Variables: {
    readonly person: Person
    /** The hash of the session's token. */
    readonly session: string
    /** What was known to have changed when the request was let through. */
    readonly revisions: KnownRevisions
    /** The site that the address names; only where it names one. */
    readonly site: SiteScope
  }
}

export const SESSION_COOKIE = 'gullyline_session'

/**
 * The name of the session's cookie. With https it has the prefix by which browsers keep it to this very host (RFC 6265bis,
 * 4.1.3.2, "The __Host- Prefix").
 */
export function cookieName({ isSecure }: Pick<Services, 'isSecure'>): string {
  return isSecure ? `__Host-${SESSION_COOKIE}` : SESSION_COOKIE
}

const EVERYBODY_SIGNED_IN = ROLES
const WHO_CHANGES_PAGES: readonly Role[] = ['editor', 'keeper']

/** Every route under /api, /media, /files and /fonts, and who may use it. What is not here is refused to everyone. */
export const ACCESS: Readonly<Record<string, 'everyone' | readonly Role[]>> = {
  'POST /api/session': 'everyone',
  'GET /api/session': EVERYBODY_SIGNED_IN,
  'DELETE /api/session': EVERYBODY_SIGNED_IN,
  'PUT /api/session/password': EVERYBODY_SIGNED_IN,
  'GET /api/session/all': EVERYBODY_SIGNED_IN,
  'DELETE /api/session/all/:id': EVERYBODY_SIGNED_IN,
  'POST /api/sites': ['keeper'],
  'GET /api/sites/:site': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/library': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/page-list': EVERYBODY_SIGNED_IN,
  'PUT /api/sites/:site/navigation': WHO_CHANGES_PAGES,
  'PUT /api/sites/:site/settings': ['keeper'],
  'PUT /api/sites/:site/host': ['keeper'],
  'GET /api/sites/:site/people': ['keeper'],
  'PUT /api/sites/:site/people/:id': ['keeper'],
  'DELETE /api/sites/:site/people/:id': ['keeper'],
  'GET /api/sites/:site/search': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/media': WHO_CHANGES_PAGES,
  'PATCH /api/sites/:site/media/:id': WHO_CHANGES_PAGES,
  'PUT /api/sites/:site/media/:id/file': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/media/:id/uses': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/files': WHO_CHANGES_PAGES,
  'PUT /api/sites/:site/files/:id/file': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/files/:id/uses': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/gullies': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/gullies': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/bin': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/pages': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/pages': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/pages/:id': EVERYBODY_SIGNED_IN,
  'PATCH /api/sites/:site/pages/:id': WHO_CHANGES_PAGES,
  'DELETE /api/sites/:site/pages/:id': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/pages/:id/place': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/pages/:id/copy': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/pages/:id/restore': WHO_CHANGES_PAGES,
  'PUT /api/sites/:site/pages/:id/document': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/pages/:id/versions': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/pages/:id/versions/:number': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/pages/:id/live': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/pages/:id/publish': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/pages/:id/unpublish': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/parts': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/parts': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/parts/uses': EVERYBODY_SIGNED_IN,
  'POST /api/sites/:site/parts/alike': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/parts/join': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/parts/:id/pages': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/parts/:id/versions/:number': EVERYBODY_SIGNED_IN,
  'PUT /api/sites/:site/parts/:id/document': ['keeper'],
  'PATCH /api/sites/:site/parts/:id': WHO_CHANGES_PAGES,
  'DELETE /api/sites/:site/parts/:id': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/parts/:id/replace': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/parts/:id/restore': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/export': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/imports': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/imports/:id': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/imports/:id': WHO_CHANGES_PAGES,
  'DELETE /api/sites/:site/imports/:id': WHO_CHANGES_PAGES,
  'GET /api/sites/:site/documents/:id/versions': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/documents/:id/versions/:number': EVERYBODY_SIGNED_IN,
  'GET /api/sites/:site/pages/:id/journal': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/pages/:id/journal/:tab': WHO_CHANGES_PAGES,
  'DELETE /api/sites/:site/pages/:id/journal/:tab': WHO_CHANGES_PAGES,
  'POST /api/sites/:site/pages/:id/private-address/:tab': EVERYBODY_SIGNED_IN,
  'DELETE /api/sites/:site/pages/:id/private-address/:tab': EVERYBODY_SIGNED_IN,
  'GET /api/presence/:browser': EVERYBODY_SIGNED_IN,
  'PUT /api/presence/:browser': EVERYBODY_SIGNED_IN,
  'GET /media/*': EVERYBODY_SIGNED_IN,
  'GET /files/*': EVERYBODY_SIGNED_IN,
  'GET /fonts/*': EVERYBODY_SIGNED_IN,
}

const RULES = Object.entries(ACCESS).map(([route, who]) => {
  const [method, path] = route.split(' ') as [string, string]
  // Ids and numbers exactly as they are made: the database would take an id with a space behind it for the same.
  const pattern = path
    .replace(/:site/, '(?<site>[a-z0-9]{1,24})')
    .replace(/:number/, '[0-9]{1,9}')
    .replace(/:\w+/g, '[a-z0-9]{1,24}')
    .replace('*', '.+')
  return { method, pattern: new RegExp(`^${pattern}/?$`), who }
})

/**
 * Lets through who the table names. Without a session everything but what is open to everyone answers
 * `not-signed-in`, so that nobody learns from outside what exists.
 */
export function gate(
  services: Pick<Services, 'db' | 'revisions' | 'sessions' | 'isSecure' | 'log'>,
): MiddlewareHandler<SignedIn> {
  const { db, sessions, log } = services
  const cookie = cookieName(services)
  return async (context, next) => {
    const method = context.req.method === 'HEAD' ? 'GET' : context.req.method
    const rule = RULES.find((one) => one.method === method && one.pattern.test(context.req.path))
    if (rule?.who === 'everyone') return next()
    const token = getCookie(context, cookie)
    const revisions = await services.revisions.now()
    const owner = token === undefined ? undefined : await sessions.find(token, revisions)
    if (!owner)
      throw new Refused(
        'not-signed-in',
        'You are not signed in. Nothing was changed; sign in, and try again.',
      )
    const { person, siteIds } = owner
    if (!rule) throw new Refused('not-found', 'The server knows no such address.')
    if (!rule.who.includes(person.role)) {
      audit(log, 'access refused', { account: person.id, role: person.role, method, path: context.req.path })
      throw new Refused('not-allowed', `Your role, ${person.role}, may not do this. Nothing was changed.`)
    }
    const siteId = rule.pattern.exec(context.req.path)?.groups?.site
    if (siteId !== undefined) {
      // Nobody learns of sites that others work on.
      if (!siteIds.has(siteId)) throw new Refused('not-found', 'There is no such site.')
      context.set('site', new SiteScope(db, siteId))
    }
    context.set('revisions', revisions)
    context.set('person', person)
    context.set('session', hashOf(token!))
    return next()
  }
}
