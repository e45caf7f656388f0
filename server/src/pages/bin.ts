/** The bin: pages that were deleted, until they are restored. */
import { In, Not, IsNull, type EntityManager } from 'typeorm'
import type { BinnedPage } from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { addressOf, assertAddress, forgetRedirects, freeSlugUnder, idsUnder } from './addresses.ts'
import { findPageRow } from './store.ts'
import { findStanding, lockTree, refuseFixed, renumber, siblingsOf } from './tree-acts.ts'
import { pagePaths } from './tree.ts'

/** Takes a page and all under it to the bin, and gives their ids. Nothing of them is lost; visitors no longer find them. */
export async function binPage(manager: EntityManager, pageId: string): Promise<readonly string[]> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  refuseFixed(site, pageId, 'deleted')
  const ids = await idsUnder(manager, page)
  await manager.update(
    PageEntity,
    { id: In(ids) },
    { binnedAt: new Date(), binnedWith: pageId, address: null },
  )
  await renumber(manager, await siblingsOf(manager, page.siteId, page.parentId))
  return ids
}

/** Brings a page and all that went to the bin with it back to where they were; to the top where what they stood under is gone. */
export async function restorePage(manager: EntityManager, pageId: string): Promise<void> {
  await lockTree(manager)
  const page = await findPageRow(manager, pageId)
  if (page.binnedWith !== pageId)
    throw new Refused('not-found', 'This page is not in the bin. Nothing was changed.')
  const { siteId } = page
  const parent =
    page.parentId === null ? null : await manager.findOneBy(PageEntity, { id: page.parentId, siteId })
  const under = parent?.address == null ? { siteId, address: '/' } : { siteId, address: parent.address }
  const parentId = parent?.address == null ? null : parent.id
  const slug = await freeSlugUnder(manager, under, page.slug)
  const siblings = await siblingsOf(manager, siteId, parentId)
  const rows = await manager.find(PageEntity, { where: { binnedWith: pageId } })
  const placed = rows.map((row) => (row.id === pageId ? { ...row, parentId: null, slug } : row))
  const paths = pagePaths(placed)
  for (const { id, title } of rows) {
    // The paths begin with a slash of their own.
    const address = under.address.slice(0, -1) + paths[id]!
    assertAddress(address, title)
    await manager.update(PageEntity, { id }, { address, binnedAt: null, binnedWith: null })
  }
  await manager.update(PageEntity, { id: pageId }, { parentId, slug })
  await renumber(manager, siblings.toSpliced(page.position, 0, pageId))
  await forgetRedirects(manager, { siteId, address: addressOf(under.address, slug) })
}

/** What is in the bin, the newest first: each page that was taken there, with those that went with it counted. */
export async function listBin(manager: EntityManager, siteId: string): Promise<BinnedPage[]> {
  const binned = await manager.find(PageEntity, { where: { siteId, binnedAt: Not(IsNull()) } })
  const all = binned.length === 0 ? [] : await manager.find(PageEntity, { where: { siteId } })
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
