import { Hono } from 'hono'
import { streamSSE } from 'hono/streaming'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import { documentsWithin } from '../people/site-people.ts'
import type { Services } from '../services.ts'

/** A connection that says nothing for long is closed by things on the way; and so often the session is looked at. */
const STILL_THERE_MS = 15_000

/**
 * Server-sent events (HTML standard, 9.2) for everybody who has pages open: one connection for a browser, whose tabs
 * share it, since browsers open six to a server and no more.
 */
export function presenceRoutes({ db, presence, sessions }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/:browser', (c) => {
      const { person, session } = c.var
      return streamSSE(c, async (stream) => {
        const connection = await presence.connect(c.req.param('browser'), {
          personId: person.id,
          name: person.name,
          session,
          tell: ({ event, data }) => void stream.writeSSE({ event, data: JSON.stringify(data) }),
          close: () => stream.abort(),
        })
        stream.onAbort(() => void connection.leave().catch(() => undefined))
        await stream.writeSSE({ event: 'connected', data: '' })
        while (!stream.aborted) {
          await pause(STILL_THERE_MS)
          if (stream.aborted || !(await sessions.isOpen(session)) || !(await connection.stillThere())) break
          await stream.writeSSE({ event: 'still-there', data: '' })
        }
        await connection.leave()
      })
    })
    .put('/:browser', async (c) => {
      const { tabs } = await readBody(c, 'presence')
      // Who is on a page of another site is nobody's business here.
      const ids = tabs.map(({ pageId }) => pageId)
      const known = await documentsWithin(db.manager, c.var.person.id, ids)
      const own = tabs.filter(({ pageId }) => known.has(pageId))
      if (!(await presence.setTabs(c.req.param('browser'), c.var.session, own)))
        throw new Refused('not-found', 'This browser does not listen. It was not told of its tabs.')
      return c.json({ done: true })
    })
}

/** Keeps no process alive by itself: a server that stops need not wait for it. */
function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms).unref())
}
