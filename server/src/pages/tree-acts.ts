/** Acts on the page tree: moving, copying, changing an address, the bin. Each is one transaction. */
import { In, IsNull, type EntityManager } from 'typeorm'
import {
  defaultRegistry,
  LONGEST_TITLE,
  TEMPLATES,
  withSettings,
  type BinnedPage,
  type CopyPageRequest,
  type NewPageRequest,
  type PageSettings,
  type PlacePageRequest,
  type Template,
} from '@gullyline/core'
import {
  PageEntity,
  RedirectEntity,
  SiteEntity,
  VersionEntity,
  type PageRow,
  type SiteRow,
} from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { checkedTitle, findPageRow, findVersion, insertVersion, listed, readDocument } from './store.ts'
import { asTree, freeSlug, NEVER_LIVE, pagePaths, slugOf, subtreeOf } from './tree.ts'

/** All pages that stand in the tree, by position. */
async function treeRows(manager: EntityManager, siteId: string): Promise<PageRow[]> {
  const where = { siteId, binnedAt: IsNull() }
  return asTree(await manager.find(PageEntity, { where, order: { position: 'ASC' } }))
}

/** What publishing needs to know of a page that stands in the tree. */
export type StandingPage = Pick<PageRow, 'id' | 'parentId' | 'title' | 'slug' | 'address' | 'liveVersion'>

/** The same pages with little of each, which is read in a fraction of the time. */
export async function standingPages(manager: EntityManager, siteId: string): Promise<StandingPage[]> {
  const rows = await manager
    .createQueryBuilder(PageEntity, 'p')
    .select('p.id', 'id')
    .addSelect('p.parent_id', 'parentId')
    .addSelect('p.title', 'title')
    .addSelect('p.slug', 'slug')
    .addSelect('p.address', 'address')
    .addSelect('p.live_version', 'liveVersion')
    .where('p.site_id = :siteId AND p.binned_at IS NULL', { siteId })
    .orderBy('p.position', 'ASC')
    .getRawMany<StandingPage>()
  return asTree(rows)
}

/**
 * Holds the tree of the site until the transaction ends, and gives the site. Every act on the tree begins with it, before
 * it reads anything: what is read afterwards is what the act before has left.
 */
async function lockTree(manager: EntityManager): Promise<SiteRow> {
  const [site] = await manager.find(SiteEntity, { take: 1, lock: { mode: 'pessimistic_write' } })
  if (!site) throw new Refused('not-found', 'There is no site yet.')
  return site
}

/** As the column that holds addresses. */
const LONGEST_ADDRESS = 700

/**
 * Writes the address of every page beside it, where a unique key keeps two pages from having one. Pages in the bin have
 * none. To be called at the end of every act on the tree.
 */
export async function storeAddresses(manager: EntityManager, siteId: string): Promise<void> {
  const rows = await manager.find(PageEntity, { where: { siteId } })
  const standing = asTree(rows.filter((row) => row.binnedAt === null))
  const paths = pagePaths(standing)
  const changed = rows.filter((row) => row.address !== (row.binnedAt === null ? paths[row.id]! : null))
  const long = changed.find((row) => (paths[row.id]?.length ?? 0) > LONGEST_ADDRESS)
  if (long)
    throw new Refused(
      'not-valid',
      `The address of “${long.title}” would be longer than ${LONGEST_ADDRESS} characters. Nothing was changed.`,
    )
  if (changed.length === 0) return
  // All are given up first: two pages may change places.
  await manager.update(PageEntity, { id: In(changed.map(({ id }) => id)) }, { address: null })
  for (const row of changed)
    if (row.binnedAt === null) await manager.update(PageEntity, { id: row.id }, { address: paths[row.id]! })
}

/** Adds a page as the last one under its parent, with an address made from its title. Gives its id. */
export async function addPage(
  manager: EntityManager,
  given: NewPageRequest & { readonly savedBy: string },
): Promise<string> {
  const title = checkedTitle(given.title)
  const template = findTemplate(given.template)
  const site = await lockTree(manager)
  const { parentId, savedBy } = given
  const settings = { inNavigation: parentId === null }
  return insertPageFrom(manager, site, { template, title, slug: slugOf(title), parentId, settings, savedBy })
}

interface PageFrom {
  readonly template: Template
  readonly title: string
  /** Its wanted part of the address. */
  readonly slug: string
  readonly parentId: string | null
  readonly settings: Partial<PageSettings>
  readonly savedBy: string
}

/** Adds a page made from a template as the last one under its parent, in a site whose tree is locked. Gives its id. */
export async function insertPageFrom(
  manager: EntityManager,
  { id: siteId }: SiteRow,
  { template, title, slug, parentId, settings, savedBy }: PageFrom,
): Promise<string> {
  const pages = await treeRows(manager, siteId)
  if (parentId !== null && !pages.some((page) => page.id === parentId))
    throw new Refused(
      'not-found',
      'The parent page does not exist or was deleted. No page was added; choose another parent.',
    )
  const siblings = pages.filter((page) => page.parentId === parentId)
  const id = newId()
  const date = new Date().toISOString().slice(0, 10)
  const built = template.build(defaultRegistry, newId, { title, date })
  const document = withSettings(built, { ...settings, title })
  await manager.insert(PageEntity, {
    id,
    siteId,
    parentId,
    position: Math.max(-1, ...siblings.map((page) => page.position)) + 1,
    slug: freeSlug(
      slug,
      siblings.map((page) => page.slug),
    ),
    ...listed(document),
    address: null,
    version: 0,
    binnedAt: null,
    binnedWith: null,
    ...NEVER_LIVE,
  })
  await insertVersion(manager, id, { base: 0, document, savedBy })
  await storeAddresses(manager, siteId)
  return id
}

function findTemplate(id = 'blank'): Template {
  const template = TEMPLATES.find((one) => one.id === id)
  if (!template)
    throw new Refused('not-found', `There is no template “${id.slice(0, 50)}”. No page was added.`)
  return template
}

/**
 * Moves a page to a place. Refuses to put it under itself, and to move the home page or the 404 page.
 * Addresses of live pages that change with it go on leading to them.
 */
export async function movePage(manager: EntityManager, pageId: string, to: PlacePageRequest): Promise<void> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  refuseFixed(site, pageId, 'moved')
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

/** Gives a page another part of the address. Refuses one that a sibling has, and the home page and the 404 page, whose addresses are fixed. */
export async function changeSlug(manager: EntityManager, pageId: string, wanted: string): Promise<void> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  const slug = slugOf(wanted)
  if (slug === page.slug) return
  refuseFixed(site, pageId, 'given another address')
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
  await lockTree(manager)
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
    const original = readDocument(await findVersion(manager, row.id, row.version))
    const title = `${row.title} (copy)`.slice(0, LONGEST_TITLE)
    const document = isTop ? withSettings(original, { title, inNavigation: false }) : original
    await manager.insert(PageEntity, {
      ...row,
      ...listed(document),
      id,
      parentId: isTop ? row.parentId : ids.get(row.parentId!)!,
      ...(isTop ? { slug } : {}),
      address: null,
      version: 1,
      ...NEVER_LIVE,
    })
    const saved = { savedAt: new Date(), savedBy: savedBy.slice(0, 100), saveId: null }
    await manager.insert(VersionEntity, { pageId: id, number: 1, document, ...saved })
  }
  const copy = { ...page, id: ids.get(pageId)! }
  await renumber(manager, siblings.toSpliced(siblings.findIndex((row) => row.id === pageId) + 1, 0, copy))
  await storeAddresses(manager, page.siteId)
  return copy.id
}

/** Takes a page and all under it to the bin, and gives their ids. Nothing of them is lost; visitors no longer find them. */
export async function binPage(manager: EntityManager, pageId: string): Promise<readonly string[]> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  refuseFixed(site, pageId, 'deleted')
  const rows = await treeRows(manager, page.siteId)
  const ids = subtreeOf(rows, pageId).map((row) => row.id)
  await manager.update(PageEntity, { id: In(ids) }, { binnedAt: new Date(), binnedWith: pageId })
  await renumber(
    manager,
    rows.filter((row) => row.parentId === page.parentId && row.id !== pageId),
  )
  await storeAddresses(manager, page.siteId)
  return ids
}

/** Brings a page and all that went to the bin with it back to where they were; to the top where what they stood under is gone. */
export async function restorePage(manager: EntityManager, pageId: string): Promise<void> {
  await lockTree(manager)
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
  await storeAddresses(manager, page.siteId)
}

/** Takes a page from visitors; what was saved of it stays. Gives whether they saw it before. */
export async function unpublishPage(manager: EntityManager, pageId: string): Promise<boolean> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  refuseFixed(site, pageId, 'unpublished')
  await manager.update(PageEntity, { id: pageId }, NEVER_LIVE)
  return page.liveVersion !== null
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
    throw new Refused('not-found', 'This page is in the bin. Restore it first; nothing was changed.')
  return page
}

/** Refuses what would leave the site without its home page, or without a page for addresses that do not exist. */
function refuseFixed({ homePageId, notFoundPageId }: SiteRow, pageId: string, what: string): void {
  if (pageId !== homePageId && pageId !== notFoundPageId) return
  const which = pageId === homePageId ? 'home page' : '404 page'
  throw new Refused('not-valid', `The ${which} of the site can’t be ${what}. Nothing was changed.`)
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
  await storeAddresses(manager, siteId)
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
  const rows = await manager.find(RedirectEntity, { where: { siteId } })
  const inUse = new Set(Object.values(livePaths))
  return Object.fromEntries(
    rows.flatMap(({ path, pageId }) => {
      const to = livePaths[pageId]
      return to === undefined || inUse.has(path) ? [] : [[path, to]]
    }),
  )
}
