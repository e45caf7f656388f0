/** What was measured of live pages. */
import type { Gully } from '@gullyline/core'
import { PageSweepEntity } from '../db/shown-rows.ts'
import type { SiteData } from '../db/site-scope.ts'

/** One live page as it was measured last. */
export interface PageSweep {
  readonly pageId: string
  /** The key of what the page was made from. */
  readonly madeFrom: string
  readonly sweptAt: Date
  /** Undefined where it could not be measured. */
  readonly gullies: readonly Gully[] | undefined
}

export async function listSweeps({ manager, siteId }: SiteData): Promise<readonly PageSweep[]> {
  const rows = await manager.findBy(PageSweepEntity, { siteId })
  return rows.map(({ pageId, madeFrom, sweptAt, gullies }) => ({
    pageId,
    madeFrom,
    sweptAt,
    gullies: (gullies as readonly Gully[] | null) ?? undefined,
  }))
}

export async function keepSweep(
  { manager, siteId }: SiteData,
  { pageId, madeFrom, gullies }: Omit<PageSweep, 'sweptAt'>,
): Promise<void> {
  await manager.upsert(
    PageSweepEntity,
    { pageId, siteId, madeFrom, sweptAt: new Date(), gullies: gullies ? [...gullies] : null },
    ['pageId'],
  )
}

/** The key of no page. */
const FORGOTTEN = ''

/** Has all pages of the site measured again. */
export async function forgetSweeps({ manager, siteId }: SiteData): Promise<void> {
  await manager.update(PageSweepEntity, { siteId }, { madeFrom: FORGOTTEN })
}

/** How many pages are to be measured again though nothing of them changed. */
export function countForgotten({ manager, siteId }: SiteData): Promise<number> {
  return manager.countBy(PageSweepEntity, { siteId, madeFrom: FORGOTTEN })
}
