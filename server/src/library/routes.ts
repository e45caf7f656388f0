import { Hono } from 'hono'
import { answerCached } from '../http/cached-answers.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { addPattern, binPart, changePart, findPart, listParts, restorePart } from './store.ts'

/** Parts that are used again on pages. */
export function partRoutes(services: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/', (c) =>
      answerCached(c, services, [`${c.var.site.siteId}/parts`], () => c.var.site.read(listParts)),
    )
    .post('/', async (c) => {
      const body = await readBody(c, 'addPart')
      const { person, site } = c.var
      const by = { name: person.name, personId: person.id }
      const part = await site.change(['parts'], async (at) => findPart(at, await addPattern(at, body, by)))
      return c.json(part, 201)
    })
    .patch('/:id', async (c) => {
      const body = await readBody(c, 'changePart')
      const id = c.req.param('id')
      const change = async (at: Parameters<typeof findPart>[0]) => {
        await changePart(at, id, body)
        return findPart(at, id)
      }
      return c.json(await c.var.site.change(['parts'], change))
    })
    .delete('/:id', async (c) => {
      const id = c.req.param('id')
      await c.var.site.change(['parts'], (at) => binPart(at, id))
      return c.json(await c.var.site.read((at) => findPart(at, id)))
    })
    .post('/:id/restore', async (c) => {
      await readBody(c, 'nothing')
      const id = c.req.param('id')
      await c.var.site.change(['parts'], (at) => restorePart(at, id))
      return c.json(await c.var.site.read((at) => findPart(at, id)))
    })
}
