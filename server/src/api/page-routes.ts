import { Hono } from 'hono'
import type { PageSummary, SaveResult, VersionInfo } from '@gullyline/core'
import type { Services } from '../services.ts'
import { readBody } from '../http/read-body.ts'
import { Refused } from '../http/errors.ts'
import { answerCached } from '../http/cached-answers.ts'
import { answerWithProgress } from '../http/progress.ts'
import { dropEntries } from '../journal/store.ts'
import type { SignedIn } from '../people/access.ts'
import type { SeenIn, SiteChange, SiteScope } from '../db/site-scope.ts'
import type { Author } from '../documents/store.ts'
import { readPageAsLive } from '../publish/live-site.ts'
import { publishAgain, publishPage, unpublishPage } from '../publish/publish-page.ts'
import { binPage, restorePage } from '../pages/bin.ts'
import { addPage, changeSlug, copyPage, movePage } from '../pages/tree-acts.ts'
import {
  changeSettings,
  listPages,
  listPageVersions,
  openForEditing,
  openPage,
  openVersion,
} from '../pages/store.ts'
import { savePage } from '../pages/save.ts'

/** Pages: the tree, one page, its versions, saving and publishing. */
export function pageRoutes(services: Services): Hono<SignedIn> {
  const { presence } = services
  return new Hono<SignedIn>()
    .get('/', (c) =>
      answerCached(c, services, [`${c.var.site.siteId}/pages`], () => c.var.site.read(listPages)),
    )
    .post('/', async (c) => {
      const body = await readBody(c, 'addPage')
      const given = { ...body, by: authorOf(c) }
      const opened = await c.var.site.change(['pages'], async (at) => openPage(at, await addPage(at, given)))
      return c.json(opened, 201)
    })
    .get('/:id', (c) => {
      const { site } = c.var
      return answerCached(
        c,
        services,
        [`${site.siteId}/pages`, `${site.siteId}/parts`, `${site.siteId}/site`],
        () => site.read((at) => openForEditing(at, c.req.param('id'))),
      )
    })
    .patch('/:id', async (c) => {
      const settings = await readBody(c, 'changePage')
      const { slug } = settings
      const pageId = c.req.param('id')
      let isNewVersion = false
      const change = async (at: SiteChange) => {
        // The address first: an act on the tree holds the tree before anything is read.
        if (slug !== undefined) await changeSlug(at, pageId, slug)
        isNewVersion = await changeSettings(at, pageId, settings, authorOf(c))
      }
      const summary =
        slug === undefined
          ? await changed(c.var.site, pageId, change)
          : await changedTree(services, c.var.site, pageId, change)
      if (isNewVersion) await presence.saved(pageId, versionOf(summary), null)
      return c.json(summary)
    })
    .post('/:id/place', async (c) => {
      const to = await readBody(c, 'placePage')
      const act = (at: SiteChange) => movePage(at, c.req.param('id'), to)
      return c.json(await changedTree(services, c.var.site, c.req.param('id'), act))
    })
    .post('/:id/copy', async (c) => {
      const body = await readBody(c, 'copyPage')
      const copy = await c.var.site.change(['pages'], async (at) =>
        openPage(at, await copyPage(at, c.req.param('id'), body, authorOf(c))),
      )
      return c.json(copy.summary, 201)
    })
    .delete('/:id', async (c) => {
      let binned: readonly string[] = []
      const summary = await changedTree(services, c.var.site, c.req.param('id'), async (at) => {
        binned = await binPage(at, c.req.param('id'))
      })
      for (const id of binned) await presence.binned(id, 'deleted', c.var.person.name)
      return c.json(summary)
    })
    .post('/:id/restore', async (c) => {
      const act = (at: SiteChange) => restorePage(at, c.req.param('id'))
      const summary = await changedTree(services, c.var.site, c.req.param('id'), act)
      await presence.binned(c.req.param('id'), 'restored', c.var.person.name)
      return c.json(summary)
    })
    .put('/:id/document', async (c) => {
      const body = await readBody(c, 'savePage')
      const [pageId, { person }] = [c.req.param('id'), c.var]
      const { base, journal } = body
      if (body.document === undefined && (body.shared ?? []).length === 0)
        throw new Refused('malformed', 'The save holds nothing. Nothing was changed.', {
          problems: [{ pointer: '/document', message: 'is missing' }],
        })
      const seenIn: SeenIn[] = (body.shared ?? []).length > 0 ? ['pages', 'parts', 'site'] : ['pages']
      const result = await c.var.site.change(seenIn, async (at): Promise<SaveResult> => {
        const { byId, byName } = await savePage(at, pageId, { ...body, by: authorOf(c) })
        // In the same transaction: a save that is kept has left the journal, and one that is not has not.
        if (journal) {
          const key = { documentId: pageId, personId: person.id, tab: journal.tab }
          await dropEntries(at, key, {
            until: journal.until,
            base: body.document ? base + 1 : base,
            shared: byName,
          })
        }
        return { ...(await openPage(at, pageId)).summary, shared: byId }
      })
      if (body.document) await presence.saved(pageId, versionOf(result), journal?.tab ?? null)
      return c.json(result)
    })
    .get('/:id/versions', async (c) => {
      const before = c.req.query('before')
      if (before !== undefined && !/^[1-9]\d{0,9}$/.test(before))
        throw new Refused('malformed', 'Versions are listed before the number of one.')
      const until = before === undefined ? undefined : Number(before)
      return c.json(await c.var.site.read((at) => listPageVersions(at, c.req.param('id'), until)))
    })
    .get('/:id/versions/:number', async (c) => {
      const number = Number(c.req.param('number'))
      if (!Number.isSafeInteger(number)) throw new Refused('not-found', 'There is no such version.')
      return c.json(await c.var.site.read((at) => openVersion(at, c.req.param('id'), number)))
    })
    .get('/:id/live', async (c) =>
      c.json(await c.var.site.read((at) => readPageAsLive(at, c.req.param('id')))),
    )
    .post('/:id/unpublish', async (c) => {
      const pageId = c.req.param('id')
      await readBody(c, 'nothing')
      return c.json(await unpublishPage(services, c.var.site, pageId, c.var.person.id))
    })
    .post('/:id/publish', async (c) => {
      const asked = await readBody(c, 'publishPage')
      const { site, person } = c.var
      return answerWithProgress(c, services.log, (watch) =>
        publishPage(services, site, c.req.param('id'), { ...asked, by: person.id, watch }),
      )
    })
}

function authorOf({ var: { person } }: { readonly var: SignedIn['Variables'] }): Author {
  return { name: person.name, personId: person.id }
}

function versionOf({ version, savedAt, savedBy }: PageSummary): VersionInfo {
  return { number: version, savedAt, savedBy }
}

type Act = (at: SiteChange) => Promise<void>

/** Does an act on a page, and gives the page as it is then. */
function changed(site: SiteScope, pageId: string, act: Act): Promise<PageSummary> {
  return site.change(['pages'], async (at) => {
    await act(at)
    return (await openPage(at, pageId)).summary
  })
}

/** The same for an act that may change addresses: what visitors see follows at once, so that no link of theirs breaks. */
async function changedTree(
  services: Services,
  site: SiteScope,
  pageId: string,
  act: Act,
): Promise<PageSummary> {
  const summary = await changed(site, pageId, act)
  await publishAgain(services, site)
  return summary
}
