import { Hono } from 'hono'
import type { SignedIn } from '../people/access.ts'
import { findVersion, listVersions, readDocument } from './versions.ts'

/** Versions of any document, such as the header. */
export function documentRoutes(): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/:id/versions', async (c) =>
      c.json(await c.var.site.read((at) => listVersions(at, c.req.param('id')))),
    )
    .get('/:id/versions/:number', async (c) => {
      const { id, number } = c.req.param()
      return c.json(
        await c.var.site.read(async (at) => readDocument(await findVersion(at, id, Number(number)))),
      )
    })
}
