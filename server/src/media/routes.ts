import { Hono, type Context } from 'hono'
import type { MediaRequest } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'
import { addPicture, describePicture, pictureUses, replacePicture, type Upload } from './library.ts'
import { listPictures } from './store.ts'

/** The media library. A file is sent as it is, as the body of the request, with its name in the address. */
export function mediaRoutes(services: Services): Hono<SignedIn> {
  const { db } = services
  const one = (id: string) =>
    transact(db, async (manager) => {
      const pictures = await listPictures(manager, (await findSite(manager)).id)
      const picture = Object.hasOwn(pictures, id) ? pictures[id] : undefined
      if (!picture) throw new Refused('not-found', 'There is no such picture in the library.')
      return picture
    })
  return new Hono<SignedIn>()
    .post('/', async (c) => c.json(await one(await addPicture(services, await readUpload(c))), 201))
    .put('/:id/file', async (c) => {
      await replacePicture(services, c.req.param('id'), await readUpload(c))
      await publishAgain(services)
      return c.json(await one(c.req.param('id')))
    })
    .patch('/:id', async (c) => {
      const given = await readBody<MediaRequest>(c, {
        name: 'words-or-absent',
        alt: 'text-or-absent',
        isDecoration: 'flag-or-absent',
      })
      await transact(db, (manager) => describePicture(manager, c.req.param('id'), given))
      return c.json(await one(c.req.param('id')))
    })
    .get('/:id/uses', async (c) => c.json(await transact(db, (m) => pictureUses(m, c.req.param('id')))))
}

async function readUpload(c: Context): Promise<Upload> {
  const name = c.req.query('name') ?? 'Picture'
  return { name, bytes: Buffer.from(await c.req.arrayBuffer()), signal: c.req.raw.signal }
}
