/** Where something of the library is used. */
import type { Handler } from 'hono'
import { In, IsNull } from 'typeorm'
import type { MediaUse, PartType, UsedThing } from '@gullyline/core'
import { PartEntity, type DocumentRow } from '../db/document-rows.ts'
import { PageEntity } from '../db/rows.ts'
import { usesOf } from '../documents/uses.ts'
import type { SignedIn } from '../people/access.ts'
import type { SiteData } from '../db/site-scope.ts'

/** Answers with where something is used. `find` refuses what does not exist. */
export function answerUses(
  thing: UsedThing,
  find: (at: SiteData, id: string) => Promise<unknown>,
): Handler<SignedIn> {
  return async (c) => {
    const id = c.req.param('id') ?? ''
    return c.json(
      await c.var.site.read(async (at) => {
        await find(at, id)
        return mediaUses(at, thing, id)
      }),
    )
  }
}

/**
 * The pages whose newest version shows a picture or links to a file, or that are shared with it, and what stands on
 * every page.
 */
async function mediaUses(at: SiteData, thing: UsedThing, id: string): Promise<MediaUse[]> {
  const using = await usesOf(at, thing, id)
  const count = new Map(using.map((one) => [one.id, one.count]))
  const shared = using.flatMap(({ type, count: times }): MediaUse[] =>
    type === 'header' || type === 'footer' ? [{ onEveryPage: type, count: times }] : [],
  )
  const where = { siteId: at.siteId, id: In([...count.keys()]), binnedAt: IsNull() }
  const typeOf = new Map(using.map(({ id: partId, type }) => [partId, type as DocumentRow['type']]))
  const parts = await at.manager.find(PartEntity, { where, order: { name: 'ASC' } })
  const pages = await at.manager.find(PageEntity, { where, order: { address: 'ASC' } })
  return [
    ...shared,
    ...pages.map((page) => ({
      pageId: page.id,
      title: page.title,
      path: page.address!,
      count: count.get(page.id)!,
    })),
    ...parts.map(({ id: partId, name }) => ({
      part: name,
      type: typeOf.get(partId) as PartType,
      count: count.get(partId)!,
    })),
  ]
}
