import type { Context, MiddlewareHandler } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { MOST_BYTES, MOST_PACKAGE_BYTES } from './limits.ts'
import { BodyBudget } from './body-budget.ts'
import { Refused } from './errors.ts'

const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS'])
/** Fetch Metadata, "Sec-Fetch-Site": our own page, or the person by the address bar. */
const OWN_SITE = new Set(['same-origin', 'none'])
const LOOPBACK_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]'])

/** Largest request with a page in it: 20 times the largest page we know of. */
const MAX_BODY_BYTES = 8 * 1024 * 1024
/** What anybody may send who is not signed in: a name and a password. */
const MAX_UNSIGNED_BYTES = 16 * 1024

/**
 * Answers to the editor's one name and sends who comes by another name of this machine there, so that a foreign page
 * can't reach the server under a name of its own, and the session's cookie never reaches the published site; and takes
 * writes only from the editor's own pages (Fetch standard, "Origin header").
 */
export function onlyFromHere(editorOrigin: string | undefined): MiddlewareHandler {
  const own = editorOrigin === undefined ? undefined : new URL(editorOrigin)
  return async (context, next) => {
    const host = context.req.header('host') ?? new URL(context.req.url).host
    if (own && host !== own.host) {
      if (!LOOPBACK_HOSTS.has(host.replace(/:\d+$/, '')) || !SAFE_METHODS.has(context.req.method))
        throw new Refused('foreign-origin', `This server answers only as ${own.host}. Nothing was changed.`)
      const { pathname, search } = new URL(context.req.url)
      return context.redirect(`${editorOrigin}${pathname}${search}`, 308)
    }
    if (!own && !LOOPBACK_HOSTS.has(host.replace(/:\d+$/, ''))) {
      throw new Refused(
        'foreign-origin',
        'This server answers only on this machine, as 127.0.0.1 or localhost.',
      )
    }
    refuseForeignWrites(context, own?.origin ?? `http://${host}`)
    await next()
  }
}

function refuseForeignWrites(context: Context, ownOrigin: string): void {
  if (!SAFE_METHODS.has(context.req.method)) {
    const origin = context.req.header('origin')
    const from = context.req.header('sec-fetch-site') ?? 'same-origin'
    if ((origin !== undefined && origin !== ownOrigin) || !OWN_SITE.has(from)) {
      throw new Refused(
        'foreign-origin',
        'Changes are taken only from the editor itself. Nothing was changed.',
      )
    }
    const type = context.req.header('content-type') ?? ''
    const hasBody = context.req.method !== 'DELETE' || type !== ''
    if (isUpload(context.req.method, context.req.path)) {
      // A page elsewhere can send this type only after asking first, which is refused (Fetch standard, "CORS-safelisted request-header").
      if (type !== 'application/octet-stream')
        throw new Refused('malformed', 'Files are sent as application/octet-stream. Nothing was changed.')
    } else if (hasBody && !type.startsWith('application/json')) {
      throw new Refused('malformed', 'Changes are sent as JSON. Nothing was changed.')
    }
  }
}

function limitTo(maxSize: number): MiddlewareHandler {
  return bodyLimit({
    maxSize,
    onError: () => {
      throw new Refused('too-large', `What was sent is larger than ${size(maxSize)}. Nothing was changed.`)
    },
  })
}
function size(bytes: number): string {
  return bytes < 1024 * 1024 ? `${bytes / 1024} kB` : `${bytes / 1024 / 1024} MB`
}

/** In memory at a time: four of the largest files, and a few of the largest pages. */
const uploads = new BodyBudget(4 * MOST_BYTES, 60)
const pages = new BodyBudget(8 * MAX_BODY_BYTES, 500)

const ofPage: BodyLimit = { budget: pages, most: MAX_BODY_BYTES, read: limitTo(MAX_BODY_BYTES) }
const ofUpload: BodyLimit = { budget: uploads, most: MOST_BYTES, read: limitTo(MOST_BYTES) }
const ofUnsigned: BodyLimit = { most: MAX_UNSIGNED_BYTES, read: limitTo(MAX_UNSIGNED_BYTES) }

interface BodyLimit {
  /** Absent where so little may be sent that nothing has to wait. */
  readonly budget?: BodyBudget
  readonly most: number
  readonly read: MiddlewareHandler
}

/** Whether a request brings a file. */
function isUpload(method: string, path: string): boolean {
  return method === 'POST'
    ? /^\/api\/sites\/[^/]+\/(media|files|imports)$/.test(path)
    : method === 'PUT' && /^\/api\/sites\/[^/]+\/(media|files)\/[^/]+\/file$/.test(path)
}

/** Whether a request brings a package. */
function isPackage(method: string, path: string): boolean {
  return method === 'POST' && /^\/api\/sites\/[^/]+\/imports$/.test(path)
}

/**
 * Bounds what a request may send. Behind the gate: of somebody who is not signed in, no more is read than a sign-in takes.
 * Reads have no body; asking for theirs would cost as much as answering them.
 */
export const limitedBody: MiddlewareHandler = async (context, next) => {
  const { method, path } = context.req
  if (SAFE_METHODS.has(method)) return next()
  const isSignIn = method === 'POST' && /^\/api\/session\/?$/.test(path)
  if (isPackage(method, path)) {
    // It is written to a file as it comes; see `exchange/waiting-packages.ts`.
    if ((saidLength(context) ?? Infinity) > MOST_PACKAGE_BYTES)
      throw new Refused(
        'too-large',
        `A package has at most ${size(MOST_PACKAGE_BYTES)}. Nothing was changed.`,
      )
    return next()
  }
  const { budget, most, read } = isSignIn ? ofUnsigned : isUpload(method, path) ? ofUpload : ofPage
  const giveBack = await budget?.take(Math.min(most, saidLength(context) ?? most))
  try {
    return await read(context, next)
  } finally {
    giveBack?.()
  }
}

/** How many bytes a request says that it sends; undefined when it does not say. */
function saidLength(context: Context): number | undefined {
  const said = context.req.header('content-length')
  return said !== undefined && /^\d{1,12}$/.test(said) ? Number(said) : undefined
}
