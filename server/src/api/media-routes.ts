import { Hono, type Context } from 'hono'
import type { SiteScope } from '../db/site-scope.ts'
import { Refused } from '../http/errors.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import type { Services } from '../services.ts'
import { addFile, findFile, replaceFile } from '../media/files.ts'
import { addPicture, describePicture, findPicture, replacePicture, type Upload } from '../media/library.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { answerUses } from '../media/uses.ts'

/** The media library. A file is sent as it is, as the body of the request, with its name in the address. */
export function mediaRoutes(services: Services): Hono<SignedIn> {
  const one = (site: SiteScope, id: string) =>
    site.read(async (at) => {
      const pictures = await listPictures(at)
      const picture = Object.hasOwn(pictures, id) ? pictures[id] : undefined
      if (!picture) throw new Refused('not-found', 'There is no such picture in the library.')
      return picture
    })
  return new Hono<SignedIn>()
    .post('/', async (c) =>
      c.json(await one(c.var.site, await addPicture(services, c.var.site, await readUpload(c))), 201),
    )
    .put('/:id/file', async (c) => {
      await replacePicture(services, c.var.site, c.req.param('id'), await readUpload(c))
      await publishAgain(services, c.var.site)
      return c.json(await one(c.var.site, c.req.param('id')))
    })
    .patch('/:id', async (c) => {
      const given = await readBody(c, 'changePicture')
      await c.var.site.change(['site'], (at) => describePicture(at, c.req.param('id'), given))
      return c.json(await one(c.var.site, c.req.param('id')))
    })
    .get('/:id/uses', answerUses('picture', findPicture))
}

/** Files that pages link to; sent like pictures, and kept as they came. */
export function fileRoutes(services: Services): Hono<SignedIn> {
  const one = (site: SiteScope, id: string) =>
    site.read(async (at) => {
      await findFile(at, id)
      return (await listFiles(at))[id]!
    })
  return new Hono<SignedIn>()
    .post('/', async (c) =>
      c.json(await one(c.var.site, await addFile(services, c.var.site, await readUpload(c))), 201),
    )
    .put('/:id/file', async (c) => {
      await replaceFile(services, c.var.site, c.req.param('id'), await readUpload(c))
      await publishAgain(services, c.var.site)
      return c.json(await one(c.var.site, c.req.param('id')))
    })
    .get('/:id/uses', answerUses('file', findFile))
}

async function readUpload(c: Context): Promise<Upload> {
  const name = c.req.query('name') ?? ''
  return { name, bytes: Buffer.from(await c.req.arrayBuffer()), signal: c.req.raw.signal }
}
