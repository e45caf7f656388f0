import { Hono } from 'hono'
import { transact } from '../db/transact.ts'
import { streamSSE } from 'hono/streaming'
import { findPageRow } from '../pages/store.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'

/** A connection that says nothing for long is closed by things on the way. */
const STILL_THERE_MS = 15_000

/** Server-sent events (HTML standard, 9.2) for everybody who has a page open: `people` and `saved`. */
export function presenceRoutes({ db, presence }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>().get('/:id/presence/:tab', async (c) => {
    const { id, tab } = c.req.param()
    await transact(db, (m) => findPageRow(m, id))
    return streamSSE(c, async (stream) => {
      const leave = presence.join(id, { tab, name: c.var.person.name }, ({ event, data }) => {
        void stream.writeSSE({ event, data: JSON.stringify(data) })
      })
      stream.onAbort(leave)
      while (!stream.aborted) {
        await stream.sleep(STILL_THERE_MS)
        await stream.writeSSE({ event: 'still-there', data: '' })
      }
      leave()
    })
  })
}
