import { Hono, type Context } from 'hono'
import type { MediaRequest } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'
import { addFile, findFile, replaceFile } from './files.ts'
import { addPicture, describePicture, findPicture, replacePicture, type Upload } from './library.ts'
import { listFiles, listPictures } from './store.ts'
import { answerUses } from './uses.ts'

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
        was: 'object-or-absent',
      })
      await transact(db, (manager) => describePicture(manager, c.req.param('id'), given))
      return c.json(await one(c.req.param('id')))
    })
    .get('/:id/uses', answerUses(services, findPicture))
}

/** Files that pages link to; sent like pictures, and kept as they came. */
export function fileRoutes(services: Services): Hono<SignedIn> {
  const { db } = services
  const one = (id: string) =>
    transact(db, async (manager) => {
      const { siteId } = await findFile(manager, id)
      return (await listFiles(manager, siteId))[id]!
    })
  return new Hono<SignedIn>()
    .post('/', async (c) => c.json(await one(await addFile(services, await readUpload(c))), 201))
    .put('/:id/file', async (c) => {
      await replaceFile(services, c.req.param('id'), await readUpload(c))
      await publishAgain(services)
      return c.json(await one(c.req.param('id')))
    })
    .get('/:id/uses', answerUses(services, findFile))
}

async function readUpload(c: Context): Promise<Upload> {
  const name = c.req.query('name') ?? ''
  return { name, bytes: Buffer.from(await c.req.arrayBuffer()), signal: c.req.raw.signal }
}
