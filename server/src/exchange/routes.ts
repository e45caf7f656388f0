import { Readable } from 'node:stream'
import type { ReadableStream } from 'node:stream/web'
import { Hono } from 'hono'
import { importKey, type WaitingImport } from '@gullyline/core'
import { audit } from '../http/audit.ts'
import { Refused } from '../http/errors.ts'
import { answerWithProgress } from '../http/progress.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import { publishAgain } from '../publish/publish-page.ts'
import type { Services } from '../services.ts'
import { checkExport, exportPackage, type Wanted } from './export-package.ts'
import { importPackage, lookAtPackage } from './import-package.ts'
import { receivePackage, removePackage, waitingPackage } from './waiting-packages.ts'

/** Packages that are written of a site: what the query names, or the whole site. */
export function exportRoutes(services: Services): Hono<SignedIn> {
  return new Hono<SignedIn>().get('/', async (c) => {
    const { site, person } = c.var
    const wanted = wantedOf(c.req.queries())
    // Asked first by a browser that only then begins to save: what can't be exported is told in words.
    if (c.req.query('check') !== undefined) return c.json(await checkExport(services, site, wanted))
    const out = await exportPackage(services, site, wanted)
    audit(services.log, 'exported', { account: person.id, site: site.siteId })
    return c.body(Readable.toWeb(out) as globalThis.ReadableStream, 200, {
      'Content-Type': 'application/zip',
      'Content-Disposition': 'attachment',
      'Cache-Control': 'no-store',
    })
  })
}

function wantedOf({ part = [], page = [], under, all }: Readonly<Record<string, string[]>>): Wanted {
  if (all !== undefined) return { all: true }
  if (part.length + page.length === 0) throw new Refused('malformed', 'Nothing was named to be exported.')
  return { parts: part, pages: page, withSubPages: under !== undefined }
}

/** Packages that come to a site: sent, looked at, and imported or dropped. */
export function importRoutes(services: Services): Hono<SignedIn> {
  const { dataDir, log } = services
  return new Hono<SignedIn>()
    .post('/', async (c) => {
      const { site } = c.var
      const { body } = c.req.raw
      if (!body) throw new Refused('malformed', 'There is no package in the request. Nothing was changed.')
      const id = await receivePackage(dataDir, site.siteId, body as ReadableStream<Uint8Array>)
      try {
        const plan = await lookAtPackage(services, site, await waitingPackage(dataDir, site.siteId, id))
        return c.json({ id, plan } satisfies WaitingImport, 201)
      } catch (error) {
        await removePackage(dataDir, site.siteId, id)
        throw error
      }
    })
    .get('/:id', async (c) => {
      const id = c.req.param('id')
      const { site } = c.var
      const path = await waitingPackage(dataDir, site.siteId, id)
      return c.json({ id, plan: await lookAtPackage(services, site, path) } satisfies WaitingImport)
    })
    .post('/:id', async (c) => {
      const given = await readBody(c, 'importPackage')
      const { site, person } = c.var
      if (person.role !== 'keeper' && given.choices[importKey('settings', 'site')] === 'theirs')
        throw new Refused(
          'not-allowed',
          'Only administrators can replace the settings of a site. Nothing was changed.',
        )
      const id = c.req.param('id')
      const path = await waitingPackage(dataDir, site.siteId, id)
      return answerWithProgress(c, log, async (watch) => {
        const by = { name: person.name, personId: person.id }
        const done = await importPackage(services, site, path, { ...given, by, watch })
        await removePackage(dataDir, site.siteId, id)
        audit(log, 'imported', { account: person.id, site: site.siteId, ...done })
        await publishAgain(services, site)
        return done
      })
    })
    .delete('/:id', async (c) => {
      const { siteId } = c.var.site
      await waitingPackage(dataDir, siteId, c.req.param('id'))
      await removePackage(dataDir, siteId, c.req.param('id'))
      return c.json({ done: true })
    })
}
