import { Hono } from 'hono'
import { hasChromium } from '@gullyline/measuring/chromium'
import type { LiveGullies } from '@gullyline/core'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { listLiveGullies, liveRecords } from './live-pages.ts'
import { forgetSweeps } from './store.ts'

/** The gullies of all live pages of a site, as the server measures them in the background. */
export function sweepRoutes(services: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/', async (c) => {
      const { site } = c.var
      const records = await liveRecords(services, site.siteId)
      const known = await site.read((at) => listLiveGullies(at, records))
      const why = !services.isSweeping ? 'off' : hasChromium() ? 'on' : 'no-chromium'
      const answer: LiveGullies = { ...known, measuring: why }
      return c.json(answer)
    })
    .post('/', async (c) => {
      await readBody(c, 'nothing')
      await c.var.site.read(forgetSweeps)
      return c.json({ done: true })
    })
}
