import { Hono } from 'hono'
import type { VersionInfo } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { findDocument } from './store.ts'
import { findVersion, listVersions, readDocument } from './versions.ts'

/** Versions of any document, such as the header. */
export function documentRoutes({ db }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/:id/versions', async (c) =>
      c.json(
        await transact(db, async (m): Promise<VersionInfo[]> => {
          const { id } = await findDocument(m, c.req.param('id'))
          return listVersions(m, id)
        }),
      ),
    )
    .get('/:id/versions/:number', async (c) => {
      const { id, number } = c.req.param()
      return c.json(await transact(db, async (m) => readDocument(await findVersion(m, id, Number(number)))))
    })
}
