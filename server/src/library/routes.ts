import { Hono } from 'hono'
import { pagesWithPart, partUses } from '../documents/linked-parts.ts'
import type { JoinedAlike, PartType, Person } from '@gullyline/core'
import { answerCached } from '../http/cached-answers.ts'
import { answerWithProgress } from '../http/progress.ts'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { findAlike, joinAlike } from './alike.ts'
import {
  addPart,
  binPart,
  changePart,
  findPart,
  listParts,
  partTypeOf,
  partVersion,
  replacePart,
  restorePart,
  saveTemplate,
} from './store.ts'

/** What pages of the site start from, its keepers say. */
function refuseOthers({ role }: Pick<Person, 'role'>, type: PartType | undefined): void {
  if (type === 'template' && role !== 'keeper')
    throw new Refused(
      'not-allowed',
      'Only administrators make and change page templates. Nothing was changed.',
    )
}

/** Parts that are used again on pages. */
export function partRoutes(services: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/', (c) => {
      const { siteId } = c.var.site
      // Where parts are shown, saves of pages decide as well.
      return answerCached(c, services, [`${siteId}/pages`, `${siteId}/parts`], () =>
        c.var.site.read(listParts),
      )
    })
    .post('/', async (c) => {
      const body = await readBody(c, 'addPart')
      const { person, site } = c.var
      refuseOthers(person, body.type)
      const by = { name: person.name, personId: person.id }
      const part = await site.change(['parts'], async (at) => findPart(at, await addPart(at, body, by)))
      return c.json(part, 201)
    })
    .get('/uses', (c) => {
      const { siteId } = c.var.site
      return answerCached(c, services, [`${siteId}/pages`, `${siteId}/parts`], () =>
        c.var.site.read(partUses),
      )
    })
    .post('/alike', async (c) => {
      await readBody(c, 'nothing')
      return answerWithProgress(c, services.log, (watch) => c.var.site.read((at) => findAlike(at, watch)))
    })
    .post('/join', async (c) => {
      const body = await readBody(c, 'joinAlike')
      const { person, site } = c.var
      const by = { name: person.name, personId: person.id }
      const joined = await site.change(['pages', 'parts', 'site'], async (at) => {
        const { partId, pages } = await joinAlike(at, body, by)
        return { part: await findPart(at, partId), pages }
      })
      return c.json(joined satisfies JoinedAlike, 201)
    })
    .get('/:id/pages', async (c) => {
      const id = c.req.param('id')
      return c.json(
        await c.var.site.read(async (at) => {
          await findPart(at, id)
          return pagesWithPart(at, id)
        }),
      )
    })
    .get('/:id/versions/:number', async (c) => {
      const number = Number(c.req.param('number'))
      if (!Number.isSafeInteger(number)) throw new Refused('not-found', 'There is no such version.')
      return c.json(await c.var.site.read((at) => partVersion(at, c.req.param('id'), number)))
    })
    .put('/:id/document', async (c) => {
      const body = await readBody(c, 'saveTemplate')
      const id = c.req.param('id')
      const { person, site } = c.var
      const by = { name: person.name, personId: person.id }
      await site.change(['parts'], (at) => saveTemplate(at, id, body, by))
      return c.json(await site.read((at) => findPart(at, id)))
    })
    .patch('/:id', async (c) => {
      const body = await readBody(c, 'changePart')
      const id = c.req.param('id')
      const change = async (at: Parameters<typeof findPart>[0]) => {
        refuseOthers(c.var.person, await partTypeOf(at, id))
        await changePart(at, id, body)
        return findPart(at, id)
      }
      return c.json(await c.var.site.change(['parts'], change))
    })
    .delete('/:id', async (c) => {
      const id = c.req.param('id')
      await c.var.site.change(['parts'], async (at) => {
        refuseOthers(c.var.person, await partTypeOf(at, id))
        await binPart(at, id)
      })
      return c.json(await c.var.site.read((at) => findPart(at, id)))
    })
    .post('/:id/replace', async (c) => {
      const body = await readBody(c, 'replacePart')
      const id = c.req.param('id')
      const { person, site } = c.var
      const by = { name: person.name, personId: person.id }
      await site.change(['pages', 'parts', 'site'], async (at) => {
        await replacePart(at, id, body, by)
        await binPart(at, id)
      })
      return c.json(await site.read((at) => findPart(at, id)))
    })
    .post('/:id/restore', async (c) => {
      await readBody(c, 'nothing')
      const id = c.req.param('id')
      await c.var.site.change(['parts'], async (at) => {
        refuseOthers(c.var.person, await partTypeOf(at, id))
        await restorePart(at, id)
      })
      return c.json(await c.var.site.read((at) => findPart(at, id)))
    })
}
