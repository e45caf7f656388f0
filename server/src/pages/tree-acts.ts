/** Acts on the page tree: moving, copying, changing an address, the bin. Each is one transaction. */
import { In, IsNull, Not, type EntityManager } from 'typeorm'
import type { BinnedPage, CopyPageRequest, PlacePageRequest } from '@gullyline/core'
import { PageEntity, RedirectEntity, VersionEntity, type PageRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { findSite } from '../sites/store.ts'
import { findPageRow, findVersion } from './store.ts'
import { freeSlug, NEVER_LIVE, pagePaths, slugOf, subtreeOf } from './tree.ts'

/** All pages that stand in the tree, by position. */
export async function treeRows(manager: EntityManager, siteId: string): Promise<PageRow[]> {
  return manager.find(PageEntity, { where: { siteId, binnedAt: IsNull() }, order: { position: 'ASC' } })
}

/**
 * Moves a page to a place. Refuses to put it under itself, and to move the first page, which stands for the site.
 * Addresses of live pages that change with it go on leading to them.
 */
export async function movePage(manager: EntityManager, pageId: string, to: PlacePageRequest): Promise<void> {
  const page = await findStanding(manager, pageId)
  await refuseHome(manager, pageId, 'moved')
  const before = await treeRows(manager, page.siteId)
  if (to.parentId !== null && !before.some((row) => row.id === to.parentId))
    throw new Refused('not-found', 'There is no such page to stand under. Nothing was changed.')
  if (to.parentId !== null && subtreeOf(before, pageId).some((row) => row.id === to.parentId))
    throw new Refused('not-valid', 'A page can’t stand under itself. Nothing was changed.')
  const siblings = before.filter((row) => row.parentId === to.parentId && row.id !== pageId)
  const position = Math.min(siblings.length, Math.max(0, to.position))
  const slug = freeSlug(
    page.slug,
    siblings.map((row) => row.slug),
  )
  await manager.update(PageEntity, { id: pageId }, { parentId: to.parentId, slug })
  await renumber(manager, siblings.toSpliced(position, 0, page))
  if (page.parentId !== to.parentId) {
    const left = before.filter((row) => row.parentId === page.parentId && row.id !== pageId)
    await renumber(manager, left)
  }
  await keepOldAddresses(manager, page.siteId, before)
}

/** Gives a page another part of the address. Refuses one that a sibling has, and the first page, which has none. */
export async function changeSlug(manager: EntityManager, pageId: string, wanted: string): Promise<void> {
  const page = await findStanding(manager, pageId)
  const slug = slugOf(wanted)
  if (slug === page.slug) return
  await refuseHome(manager, pageId, 'given another address')
  const before = await treeRows(manager, page.siteId)
  const taken = before.find((row) => row.parentId === page.parentId && row.id !== pageId && row.slug === slug)
  if (taken) {
    throw new Refused(
      'address-taken',
      `“${taken.title}” already has the address “${slug}” here. Nothing was changed; choose another.`,
      { problems: [{ pointer: '/slug', message: 'is taken by a page beside this one' }] },
    )
  }
  await manager.update(PageEntity, { id: pageId }, { slug })
  await keepOldAddresses(manager, page.siteId, before)
}

/** Copies a page, and with it those under it where that is asked for, right after itself. Copies were never published. Gives the copy's id. */
export async function copyPage(
  manager: EntityManager,
  pageId: string,
  { withSubPages }: CopyPageRequest,
  savedBy: string,
): Promise<string> {
  const page = await findStanding(manager, pageId)
  const rows = await treeRows(manager, page.siteId)
  const copied = withSubPages ? subtreeOf(rows, pageId) : [page]
  const ids = new Map(copied.map((row) => [row.id, newId()]))
  const siblings = rows.filter((row) => row.parentId === page.parentId)
  const slug = freeSlug(
    page.slug === '' ? slugOf(page.title) : page.slug,
    siblings.map((row) => row.slug),
  )
  for (const row of copied) {
    const id = ids.get(row.id)!
    const isTop = row.id === pageId
    const { document } = await findVersion(manager, row.id, row.version)
    await manager.insert(PageEntity, {
      ...row,
      id,
      parentId: isTop ? row.parentId : ids.get(row.parentId!)!,
      ...(isTop ? { title: `${row.title} (copy)`.slice(0, 200), slug, inNavigation: false } : {}),
      version: 1,
      ...NEVER_LIVE,
    })
    const saved = { savedAt: new Date(), savedBy: savedBy.slice(0, 100) }
    await manager.insert(VersionEntity, { pageId: id, number: 1, document, ...saved })
  }
  const copy = { ...page, id: ids.get(pageId)! }
  await renumber(manager, siblings.toSpliced(siblings.findIndex((row) => row.id === pageId) + 1, 0, copy))
  return copy.id
}

/** Takes a page and all under it to the bin. Nothing of them is lost; visitors no longer find them. */
export async function binPage(manager: EntityManager, pageId: string): Promise<void> {
  const page = await findStanding(manager, pageId)
  await refuseHome(manager, pageId, 'removed')
  const rows = await treeRows(manager, page.siteId)
  const ids = subtreeOf(rows, pageId).map((row) => row.id)
  await manager.update(PageEntity, { id: In(ids) }, { binnedAt: new Date(), binnedWith: pageId })
  await renumber(
    manager,
    rows.filter((row) => row.parentId === page.parentId && row.id !== pageId),
  )
}

/** Brings a page and all that went to the bin with it back to where they were; to the top where what they stood under is gone. */
export async function restorePage(manager: EntityManager, pageId: string): Promise<void> {
  const page = await findPageRow(manager, pageId)
  if (page.binnedWith !== pageId)
    throw new Refused('not-found', 'This page is not in the bin. Nothing was changed.')
  const rows = await treeRows(manager, page.siteId)
  const parentId = rows.some((row) => row.id === page.parentId) ? page.parentId : null
  const siblings = rows.filter((row) => row.parentId === parentId)
  const slug = freeSlug(
    page.slug,
    siblings.map((row) => row.slug),
  )
  await manager.update(PageEntity, { binnedWith: pageId }, { binnedAt: null, binnedWith: null })
  await manager.update(PageEntity, { id: pageId }, { parentId, slug })
  await renumber(manager, siblings.toSpliced(page.position, 0, page))
}

/** What is in the bin, the newest first: each page that was taken there, with those that went with it counted. */
export async function listBin(manager: EntityManager, siteId: string): Promise<BinnedPage[]> {
  const all = await manager.find(PageEntity, { where: { siteId } })
  const paths = pagePaths(all)
  const binned = all.filter((row) => row.binnedAt !== null)
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

/** The row of a page that stands in the tree. */
async function findStanding(manager: EntityManager, pageId: string): Promise<PageRow> {
  const page = await findPageRow(manager, pageId)
  if (page.binnedAt !== null)
    throw new Refused('not-found', 'This page is in the bin. Bring it back first; nothing was changed.')
  return page
}

async function refuseHome(manager: EntityManager, pageId: string, what: string): Promise<void> {
  if ((await findSite(manager)).homePageId === pageId)
    throw new Refused('not-valid', `The first page of the site can’t be ${what}. Nothing was changed.`)
}

async function renumber(manager: EntityManager, rows: readonly PageRow[]): Promise<void> {
  for (const [position, row] of rows.entries()) await manager.update(PageEntity, { id: row.id }, { position })
}

/** Remembers, for every live page whose address is another than before, the one it had; forgets those that are in use again. */
async function keepOldAddresses(
  manager: EntityManager,
  siteId: string,
  before: readonly PageRow[],
): Promise<void> {
  const [old, now] = [pagePaths(before), pagePaths(await treeRows(manager, siteId))]
  for (const row of before) {
    const path = old[row.id]!
    if (row.liveVersion === null || path === now[row.id]) continue
    await manager.upsert(RedirectEntity, { siteId, path, pageId: row.id }, ['siteId', 'path'])
  }
  await manager.delete(RedirectEntity, { siteId, path: In(Object.values(now)) })
}

/** Where old addresses lead, for pages that visitors can see. */
export async function liveRedirects(
  manager: EntityManager,
  siteId: string,
  livePaths: Readonly<Record<string, string>>,
): Promise<Record<string, string>> {
  const rows = await manager.find(RedirectEntity, {
    where: { siteId, path: Not(In(Object.values(livePaths))) },
  })
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => (livePaths[pageId] === undefined ? [] : [[path, livePaths[pageId]]])),
  )
}
