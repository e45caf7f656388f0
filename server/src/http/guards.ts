import type { MiddlewareHandler } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { MOST_BYTES } from '../media/limits.ts'
import { Refused } from './errors.ts'

export const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS'])
/** Fetch Metadata, "Sec-Fetch-Site": our own page, or the person by the address bar. */
const OWN_SITE = new Set(['same-origin', 'none'])
const LOOPBACK_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]'])

/** Largest request with a page in it: 20 times the largest page we know of. */
const MAX_BODY_BYTES = 8 * 1024 * 1024

/**
 * Answers only to names of this machine, so that a foreign page can't reach the server under a name of its own, and
 * takes writes only from the editor's own pages (Fetch standard, "Origin header").
 */
export const onlyFromHere: MiddlewareHandler = async (context, next) => {
  const host = context.req.header('host') ?? new URL(context.req.url).host
  if (!LOOPBACK_HOSTS.has(host.replace(/:\d+$/, ''))) {
    throw new Refused(
      'foreign-origin',
      'This server answers only on this machine, as 127.0.0.1 or localhost.',
    )
  }
  if (!SAFE_METHODS.has(context.req.method)) {
    const origin = context.req.header('origin')
    const from = context.req.header('sec-fetch-site') ?? 'same-origin'
    if ((origin !== undefined && origin !== `http://${host}`) || !OWN_SITE.has(from)) {
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
  await next()
}

function limitTo(maxSize: number): MiddlewareHandler {
  return bodyLimit({
    maxSize,
    onError: () => {
      throw new Refused(
        'too-large',
        `What was sent is larger than ${maxSize / 1024 / 1024} MB. Nothing was changed.`,
      )
    },
  })
}
const limit = limitTo(MAX_BODY_BYTES)
const uploadLimit = limitTo(MOST_BYTES)

/** Whether a request brings a file. */
function isUpload(method: string, path: string): boolean {
  return method === 'POST'
    ? path === '/api/media' || path === '/api/files'
    : method === 'PUT' && /^\/api\/(media|files)\/[^/]+\/file$/.test(path)
}

/** Reads have no body; asking for theirs would cost as much as answering them. */
export const limitedBody: MiddlewareHandler = (context, next) => {
  const { method, path } = context.req
  if (SAFE_METHODS.has(method)) return next()
  return isUpload(method, path) ? uploadLimit(context, next) : limit(context, next)
}
