import { Hono } from 'hono'
import { transact } from '../db/transact.ts'
import type { EntityManager } from 'typeorm'
import type {
  CopyPageRequest,
  NewPageRequest,
  PageSettingsRequest,
  PageSummary,
  PlacePageRequest,
  PublishRequest,
  SaveRequest,
  SaveResult,
  VersionInfo,
} from '@gullyline/core'
import type { Services } from '../services.ts'
import { readBody } from '../http/read-body.ts'
import { Refused } from '../http/errors.ts'
import { answerCached } from '../http/cached-answers.ts'
import { dropEntries } from '../journal/store.ts'
import type { SignedIn } from '../people/access.ts'
import { findSite } from '../sites/store.ts'
import type { Author } from '../documents/store.ts'
import { publishAgain, publishPage, unpublishPage } from '../publish/publish-page.ts'
import { binPage, restorePage } from './bin.ts'
import { addPage, changeSlug, copyPage, movePage } from './tree-acts.ts'
import { changeSettings, listPages, listPageVersions, openPage, openVersion } from './store.ts'
import { savePage } from './save.ts'

/** Pages: the tree, one page, its versions, saving and publishing. */
export function pageRoutes(services: Services): Hono<SignedIn> {
  const { db, presence } = services
  return new Hono<SignedIn>()
    .get('/', (c) =>
      answerCached(c, services, () => transact(db, async (m) => listPages(m, (await findSite(m)).id))),
    )
    .post('/', async (c) => {
      const body = await readBody<NewPageRequest>(c, {
        title: 'text',
        parentId: 'id-or-null',
        template: 'text-or-absent',
      })
      const given = { ...body, by: authorOf(c) }
      const opened = await transact(db, async (m) => openPage(m, await addPage(m, given)))
      return c.json(opened, 201)
    })
    .get('/:id', (c) => answerCached(c, services, () => transact(db, (m) => openPage(m, c.req.param('id')))))
    .patch('/:id', async (c) => {
      const settings = await readBody<PageSettingsRequest>(c, {
        title: 'words-or-absent',
        description: 'text-or-absent',
        inNavigation: 'flag-or-absent',
        slug: 'words-or-absent',
        more: 'object-or-absent',
        was: 'object-or-absent',
      })
      const { slug } = settings
      const pageId = c.req.param('id')
      let isNewVersion = false
      const change = async (m: EntityManager) => {
        // The address first: an act on the tree holds the tree before anything is read.
        if (slug !== undefined) await changeSlug(m, pageId, slug)
        isNewVersion = await changeSettings(m, pageId, settings, authorOf(c))
      }
      const summary = await (slug === undefined ? changed : changedTree)(services, pageId, change)
      if (isNewVersion) presence.saved(pageId, versionOf(summary), null)
      return c.json(summary)
    })
    .post('/:id/place', async (c) => {
      const to = await readBody<PlacePageRequest>(c, { parentId: 'id-or-null', position: 'whole-number' })
      return c.json(await changedTree(services, c.req.param('id'), (m) => movePage(m, c.req.param('id'), to)))
    })
    .post('/:id/copy', async (c) => {
      const body = await readBody<CopyPageRequest>(c, { withSubPages: 'flag' })
      const copy = await transact(db, async (m) =>
        openPage(m, await copyPage(m, c.req.param('id'), body, authorOf(c))),
      )
      return c.json(copy.summary, 201)
    })
    .delete('/:id', async (c) => {
      let binned: readonly string[] = []
      const summary = await changedTree(services, c.req.param('id'), async (m) => {
        binned = await binPage(m, c.req.param('id'))
      })
      for (const id of binned) presence.binned(id, 'deleted', c.var.person.name)
      return c.json(summary)
    })
    .post('/:id/restore', async (c) => {
      const summary = await changedTree(services, c.req.param('id'), (m) => restorePage(m, c.req.param('id')))
      presence.binned(c.req.param('id'), 'restored', c.var.person.name)
      return c.json(summary)
    })
    .put('/:id/document', async (c) => {
      const body = await readBody<SaveRequest>(c, {
        base: 'whole-number',
        document: 'anything-or-absent',
        shared: 'shared-saves-or-absent',
        journal: 'journal-mark',
        saveId: 'id-or-absent',
      })
      const [pageId, { person }] = [c.req.param('id'), c.var]
      const { base, journal } = body
      if (body.document === undefined && (body.shared ?? []).length === 0)
        throw new Refused('malformed', 'The save holds nothing. Nothing was changed.', {
          problems: [{ pointer: '/document', message: 'is missing' }],
        })
      const result = await transact(db, async (m): Promise<SaveResult> => {
        const { byId, byName } = await savePage(m, pageId, { ...body, by: authorOf(c) })
        // In the same transaction: a save that is kept has left the journal, and one that is not has not.
        if (journal) {
          const key = { documentId: pageId, personId: person.id, tab: journal.tab }
          await dropEntries(m, key, {
            until: journal.until,
            base: body.document ? base + 1 : base,
            shared: byName,
          })
        }
        return { ...(await openPage(m, pageId)).summary, shared: byId }
      })
      if (body.document) presence.saved(pageId, versionOf(result), journal?.tab ?? null)
      return c.json(result)
    })
    .get('/:id/versions', async (c) => {
      const before = c.req.query('before')
      if (before !== undefined && !/^[1-9]\d{0,9}$/.test(before))
        throw new Refused('malformed', 'Versions are listed before the number of one.')
      const until = before === undefined ? undefined : Number(before)
      return c.json(await transact(db, (m) => listPageVersions(m, c.req.param('id'), until)))
    })
    .get('/:id/versions/:number', async (c) => {
      const number = Number(c.req.param('number'))
      if (!Number.isSafeInteger(number)) throw new Refused('not-found', 'There is no such version.')
      return c.json(await transact(db, (m) => openVersion(m, c.req.param('id'), number)))
    })
    .post('/:id/unpublish', async (c) => {
      const pageId = c.req.param('id')
      await readBody<Record<string, never>>(c, {})
      return c.json(await unpublishPage(services, pageId, c.var.person.id))
    })
    .post('/:id/publish', async (c) => {
      const asked = await readBody<PublishRequest>(c, {
        version: 'whole-number',
        shared: 'versions-or-absent',
      })
      return c.json(await publishPage(services, c.req.param('id'), { ...asked, by: c.var.person.id }))
    })
}

function authorOf({ var: { person } }: { readonly var: SignedIn['Variables'] }): Author {
  return { name: person.name, personId: person.id }
}

function versionOf({ version, savedAt, savedBy }: PageSummary): VersionInfo {
  return { number: version, savedAt, savedBy }
}

type Act = (manager: EntityManager) => Promise<void>

/** Does an act on a page, and gives the page as it is then. */
function changed({ db }: Services, pageId: string, act: Act): Promise<PageSummary> {
  return transact(db, async (manager) => {
    await act(manager)
    return (await openPage(manager, pageId)).summary
  })
}

/** The same for an act that may change addresses: what visitors see follows at once, so that no link of theirs breaks. */
async function changedTree(services: Services, pageId: string, act: Act): Promise<PageSummary> {
  const summary = await changed(services, pageId, act)
  await publishAgain(services)
  return summary
}
