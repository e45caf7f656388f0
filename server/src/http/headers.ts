import type { MiddlewareHandler } from 'hono'
import type { Services } from '../services.ts'

const EVERYWHERE = {
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Origin-Agent-Cluster': '?1',
  'Permissions-Policy': 'camera=(), geolocation=(), microphone=()',
} as const

/** Content Security Policy Level 3. styled-components and the canvas write style elements; scripts come from our files alone. */
const EDITOR = {
  ...EVERYWHERE,
  'Content-Security-Policy':
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
  'Referrer-Policy': 'no-referrer',
} as const

/** What is published asks for nothing from elsewhere, and its few scripts are files of its own. Programs that judge a site read its robots.txt as a page would. */
const SITE = {
  ...EVERYWHERE,
  'Content-Security-Policy':
    "default-src 'none'; connect-src 'self'; img-src 'self'; style-src 'self'; script-src 'self'; font-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'Referrer-Policy': 'strict-origin-when-cross-origin',
} as const

/** A page at a private address may stand in the window of the simulated device, and nowhere else. Its address is for nobody who is linked to. */
const DEVICE = {
  ...SITE,
  'Content-Security-Policy': SITE['Content-Security-Policy'].replace(
    "frame-ancestors 'none'",
    "frame-ancestors 'self'; frame-src 'self'",
  ),
  'X-Frame-Options': 'SAMEORIGIN',
  'X-Robots-Tag': 'noindex, nofollow',
  'Referrer-Policy': 'no-referrer',
  'Cache-Control': 'no-store',
} as const

/**
 * Security headers on every answer, refusals included. Set before the answer is made: Hono's own middleware sets them
 * on the finished answer, which costs more than the rest of a read together (`npm run bench`, figure f).
 */
function headers(list: Readonly<Record<string, string>>): MiddlewareHandler {
  const entries = Object.entries(list)
  return (context, next) => {
    for (const [name, value] of entries) context.header(name, value)
    return next()
  }
}

/** RFC 6797, HTTP Strict Transport Security: a year. */
const SECURE = { 'Strict-Transport-Security': 'max-age=31536000' } as const

/** What the server answers under /api is for one person and one moment: nothing on the way may store it (RFC 9111, 5.2.2.5). */
const NEVER_STORED = { 'Cache-Control': 'no-store' } as const

export function editorHeaders({ isSecure }: Pick<Services, 'isSecure'>): MiddlewareHandler {
  return headers({ ...EDITOR, ...NEVER_STORED, ...(isSecure ? SECURE : {}) })
}

export function deviceHeaders(): MiddlewareHandler {
  return headers(DEVICE)
}

export function siteHeaders({ liveOrigin }: Pick<Services, 'liveOrigin'>): Readonly<Record<string, string>> {
  return { ...SITE, ...(liveOrigin.startsWith('https:') ? SECURE : {}) }
}
