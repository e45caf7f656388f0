import { Hono } from 'hono'
import { answerCached } from '../http/cached-answers.ts'
import { readBody } from '../http/read-body.ts'
import { describeLibrary } from '../media/store.ts'
import { listBin } from '../pages/bin.ts'
import { firstPages, pagesAfter, pagesSince } from '../pages/page-list.ts'
import { searchText } from '../pages/search.ts'
import { sitesOf } from '../people/site-people.ts'
import { addToSite, listSitePeople, takeFromSite } from '../sites/site-people.ts'
import { audit } from '../http/audit.ts'
import { Refused } from '../http/errors.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import { SiteScope, type SiteData } from '../db/site-scope.ts'
import type { Services } from '../services.ts'
import { changeSiteSettings } from '../sites/settings.ts'
import { addSite, changeHost } from '../sites/add-site.ts'
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
    .put('/host', async (c) => {
      const { host } = await readBody(c, 'changeHost')
      if (await changeHost(services, c.var.site, host)) await publishAgain(services, c.var.site)
      return c.json(await describe(c.var.site))
    })
    .get('/people', async (c) => c.json(await c.var.site.read(listSitePeople)))
    .put('/people/:id', async (c) => {
      await readBody(c, 'nothing')
      await c.var.site.read((at) => addToSite(at, c.req.param('id')))
      audit(services.log, 'added to site', {
        by: c.var.person.id,
        account: c.req.param('id'),
        site: c.var.site.siteId,
      })
      return c.json(await c.var.site.read(listSitePeople))
    })
    .delete('/people/:id', async (c) => {
      await c.var.site.read((at) => takeFromSite(at, c.req.param('id')))
      audit(services.log, 'taken from site', {
        by: c.var.person.id,
        account: c.req.param('id'),
        site: c.var.site.siteId,
      })
      return c.json(await c.var.site.read(listSitePeople))
    })
    .get('/search', async (c) =>
      c.json(await c.var.site.read((at) => searchText(at, c.req.query('q') ?? ''))),
    )
    .get('/bin', async (c) => c.json(await c.var.site.read(listBin)))
}

/** All sites of the installation. */
export function sitesRoutes(services: Services): Hono<SignedIn> {
  return new Hono<SignedIn>().post('/', async (c) => {
    const given = await readBody(c, 'addSite')
    const { person } = c.var
    const own = await sitesOf(services.db.manager, person.id)
    if (!own.some(({ id }) => id === given.like))
      throw new Refused('not-found', 'There is no such site to begin like. No site was added.')
    const site = await addSite(services, new SiteScope(services.db, given.like), given, person)
    audit(services.log, 'site added', { by: person.id, site: site.siteId })
    return c.json(await site.read((at) => describeSite(at, services.liveOrigin)), 201)
  })
}
