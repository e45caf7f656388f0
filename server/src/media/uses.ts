/** Where something of the library is used. */
import type { Handler } from 'hono'
import { IsNull, type EntityManager } from 'typeorm'
import type { MediaUse } from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { findNewest } from '../documents/versions.ts'
import { transact } from '../db/transact.ts'
import { pagePaths } from '../pages/tree.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'

/** Answers with where something is used. `find` refuses what does not exist. */
export function answerUses(
  { db }: Services,
  find: (manager: EntityManager, id: string) => Promise<unknown>,
): Handler {
  return async (c) => {
    const id = c.req.param('id') ?? ''
    return c.json(
      await transact(db, async (manager) => {
        await find(manager, id)
        return mediaUses(manager, id)
      }),
    )
  }
}

/**
 * The pages whose newest version shows a picture or links to a file, or that are shared with it, and what stands on
 * every page.
 */
async function mediaUses(manager: EntityManager, id: string): Promise<MediaUse[]> {
  const site = await findSite(manager)
  const pages = await manager.find(PageEntity, { where: { siteId: site.id, binnedAt: IsNull() } })
  const paths = pagePaths(pages)
  const uses: MediaUse[] = []
  for (const onEveryPage of ['header', 'footer'] as const) {
    const shared = await findNewest(manager, site[`${onEveryPage}Id`])
    const count = countIn(shared.document, id)
    if (count > 0) uses.push({ onEveryPage, count })
  }
  for (const page of pages) {
    const { document } = await findNewest(manager, page.id)
    const count = countIn(document, id)
    if (count > 0) uses.push({ pageId: page.id, title: page.title, path: paths[page.id]!, count })
  }
  return uses
}

function countIn(value: unknown, id: string): number {
  return JSON.stringify(value).split(`"${id}"`).length - 1
}
