import { Hono } from 'hono'
import { answerCached } from '../http/cached-answers.ts'
import { readBody } from '../http/read-body.ts'
import { describeLibrary } from '../media/store.ts'
import { listBin } from '../pages/bin.ts'
import { firstPages, pagesAfter, pagesSince } from '../pages/page-list.ts'
import { searchText } from '../pages/search.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import type { SiteData, SiteScope } from '../db/site-scope.ts'
import type { Services } from '../services.ts'
import { changeSiteSettings } from '../sites/settings.ts'
import { describeSite, keepNavigation } from '../sites/store.ts'

/** A site: what is set for all its pages, its navigation, its bin, and the search. */
export function siteRoutes(services: Services): Hono<SignedIn> {
  const describe = (site: SiteScope) => site.read((at) => describeSite(at, services.liveOrigin))
  return new Hono<SignedIn>()
    .get('/', (c) => answerCached(c, services, [`${c.var.site.siteId}/site`], () => describe(c.var.site)))
    .get('/library', (c) =>
      answerCached(c, services, [`${c.var.site.siteId}/site`], () => c.var.site.read(describeLibrary)),
    )
    .get('/page-list', async (c) => {
      const { after, since } = c.req.query()
      const list = (at: SiteData) =>
        since !== undefined
          ? pagesSince(at, since)
          : after !== undefined
            ? pagesAfter(at, after)
            : firstPages(at)
      return c.json(await c.var.site.read(list))
    })
    .put('/navigation', async (c) => {
      const given = await readBody(c, 'changeNavigation')
      await c.var.site.change(['site'], (at) => keepNavigation(at, given))
      await publishAgain(services, c.var.site)
      return c.json(await describe(c.var.site))
    })
    .put('/settings', async (c) => {
      const given = await readBody(c, 'changeSite')
      const isShown = await c.var.site.change(['site'], (at) => changeSiteSettings(at, given))
      if (isShown) await publishAgain(services, c.var.site)
      return c.json(await describe(c.var.site))
    })
    .get('/search', async (c) =>
      c.json(await c.var.site.read((at) => searchText(at, c.req.query('q') ?? ''))),
    )
    .get('/bin', async (c) => c.json(await c.var.site.read(listBin)))
}
