import type { MiddlewareHandler } from 'hono'
import { serveStatic } from '@hono/node-server/serve-static'

/** Named by what is in it: browsers need never ask again. */
const FOR_EVER = 'max-age=31536000, immutable'
/** A file of the library: its folder and its name. A page called "Files" is no such thing. */
const LIBRARY_FILE = /^\/files\/[^/]+\/[^/]+$/

interface StaticFiles {
  readonly precompressed?: boolean
  readonly index?: string
  /** Files that keep their name when they change, which browsers must ask about each time. */
  readonly areAskedFor?: boolean
  /** Files for those who are signed in, which nothing on the way may store. */
  readonly isPrivate?: boolean
}

/**
 * Files of a folder, with how long browsers may keep each. The headers are set on the answer: `onFound` of the
 * middleware is called once the answer is made, and what it sets then is lost.
 */
export function staticFiles(
  root: string,
  { areAskedFor = false, isPrivate = false, ...options }: StaticFiles = {},
): MiddlewareHandler {
  const serve = serveStatic({ root, ...options })
  return async (context, next) => {
    const answer = await serve(context, next)
    // Where there is no such file, it is whatever comes after this.
    if (!(answer instanceof Response)) return answer
    const isPage = answer.headers.get('content-type')?.startsWith('text/html') === true
    answer.headers.set(
      'Cache-Control',
      areAskedFor || isPage ? 'no-cache' : `${isPrivate ? 'private' : 'public'}, ${FOR_EVER}`,
    )
    // What people added to link to is handed over to be kept, and never shown as a page of this address.
    if (LIBRARY_FILE.test(context.req.path) && !isPage)
      answer.headers.set('Content-Disposition', 'attachment')
    return answer
  }
}
