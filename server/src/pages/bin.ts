/** The bin: pages that were deleted, until they are restored. */
import { In, Not, IsNull } from 'typeorm'
import type { BinnedPage } from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { lockSite } from '../documents/site-row.ts'
import { Refused } from '../http/errors.ts'
import { addressOf, assertAddress, forgetRedirects, freeSlugUnder, idsUnder } from './addresses.ts'
import { findPageRow } from './store.ts'
import { addressUnder, findStanding, refuseFixed, renumber, siblingsOf } from './tree-acts.ts'
import { pagePaths } from './tree.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'

/** Takes a page and all under it to the bin, and gives their ids. Nothing of them is lost; visitors no longer find them. */
export async function binPage(at: SiteChange, pageId: string): Promise<readonly string[]> {
  const site = await lockSite(at)
  const page = await findStanding(at, pageId)
  refuseFixed(site, pageId, 'deleted')
  const ids = await idsUnder(at, page.address)
  await at.manager.update(
    PageEntity,
    { id: In(ids), siteId: at.siteId },
    { binnedAt: new Date(), binnedWith: pageId, address: null },
  )
  for (const id of ids) at.changedPages.add(id)
  await renumber(at, await siblingsOf(at, page.parentId))
  return ids
}

/** Brings a page and all that went to the bin with it back to where they were; to the top where what they stood under is gone. */
export async function restorePage(at: SiteChange, pageId: string): Promise<void> {
  await lockSite(at)
  const page = await findPageRow(at, pageId)
  if (page.binnedWith !== pageId)
    throw new Refused('not-found', 'This page is not in the bin. Nothing was changed.')
  const above = await addressUnder(at, page.parentId)
  const [parentId, under] = above === undefined ? [null, '/'] : [page.parentId, above]
  const slug = await freeSlugUnder(at, under, page.slug)
  const siblings = await siblingsOf(at, parentId)
  const rows = await at.manager.find(PageEntity, { where: { siteId: at.siteId, binnedWith: pageId } })
  const placed = rows.map((row) => (row.id === pageId ? { ...row, parentId: null, slug } : row))
  const paths = pagePaths(placed)
  for (const { id, title } of rows) {
    // The paths begin with a slash of their own.
    const address = under.slice(0, -1) + paths[id]!
    assertAddress(address, title)
    at.changedPages.add(id)
    await at.manager.update(
      PageEntity,
      { id, siteId: at.siteId },
      { address, binnedAt: null, binnedWith: null },
    )
  }
  await at.manager.update(PageEntity, { id: pageId, siteId: at.siteId }, { parentId, slug })
  await renumber(at, siblings.toSpliced(page.position, 0, pageId))
  await forgetRedirects(at, addressOf(under, slug))
}

/** What is in the bin, the newest first: each page that was taken there, with those that went with it counted. */
export async function listBin(at: SiteData): Promise<BinnedPage[]> {
  const { siteId } = at
  const binned = await at.manager.find(PageEntity, { where: { siteId, binnedAt: Not(IsNull()) } })
  const all = binned.length === 0 ? [] : await at.manager.find(PageEntity, { where: { siteId } })
  const paths = pagePaths(all)
  return binned
    .filter((row) => row.binnedWith === row.id)
    .sort((a, b) => b.binnedAt!.getTime() - a.binnedAt!.getTime())
    .map((row) => ({
      id: row.id,
      title: row.title,
      path: paths[row.id]!,
      subPages: binned.filter((one) => one.binnedWith === row.id).length - 1,
      binnedAt: row.binnedAt!.toISOString(),
    }))
}
