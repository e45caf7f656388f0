/** Acts on the page tree: adding, moving, copying, changing an address. Each is one transaction, and costs what it changes. */
import { IsNull } from 'typeorm'
import {
  defaultRegistry,
  LONGEST_TITLE,
  pageOfTemplate,
  TEMPLATES,
  withSettings,
  type CopyPageRequest,
  type NewPageRequest,
  type Page,
  type PageSettings,
  type PlacePageRequest,
  type Template,
} from '@gullyline/core'
import { PageEntity, type PageRow, type SiteRow } from '../db/rows.ts'
import { lockSite } from '../documents/site-row.ts'
import { addDocument, type Author } from '../documents/store.ts'
import { findNewest, readDocument } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import {
  addressOf,
  assertAddress,
  forgetRedirects,
  freeSlugUnder,
  idsUnder,
  moveAddresses,
} from './addresses.ts'
import { checkedTitle, findPageRow, listed } from './store.ts'
import { slugOf } from './tree.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'

/** Adds a page as the last one under its parent, with an address made from its title. Gives its id. */
export async function addPage(
  at: SiteChange,
  given: NewPageRequest & { readonly by: Author },
): Promise<string> {
  const title = checkedTitle(given.title)
  const template = await findTemplate(at, given.template)
  const { navigationLimit } = await lockSite(at)
  const { parentId, by } = given
  const settings = { inNavigation: parentId === null && (await hasRoomInNavigation(at, navigationLimit)) }
  return insertPageFrom(at, { template, title, slug: slugOf(title), parentId, settings, by })
}

/** The navigation is on every page: with all pages in it, what is published would grow with the square of their number. */
async function hasRoomInNavigation({ manager, siteId }: SiteData, limit: number): Promise<boolean> {
  const where = { siteId, parentId: IsNull(), binnedAt: IsNull(), inNavigation: true }
  return (await manager.countBy(PageEntity, where)) < limit
}

interface PageFrom {
  readonly template: Pick<Template, 'build'>
  readonly title: string
  /** Its wanted part of the address. */
  readonly slug: string
  readonly parentId: string | null
  readonly settings: Partial<PageSettings>
  readonly by: Author
}

/** Adds a page made from a template as the last one under its parent, in a site whose tree is locked. Gives its id. */
export async function insertPageFrom(
  at: SiteChange,
  { template, title, slug: wanted, parentId, settings, by }: PageFrom,
): Promise<string> {
  const under = await addressUnder(at, parentId)
  if (under === undefined)
    throw new Refused(
      'not-found',
      'The parent page does not exist or was deleted. No page was added; choose another parent.',
    )
  const id = newId()
  const date = new Date().toISOString().slice(0, 10)
  const built = template.build(defaultRegistry, newId, { title, date })
  const document = withSettings(built, { ...settings, title })
  const slug = await freeSlugUnder(at, under, wanted)
  const position = await positionAtEnd(at, parentId)
  await insertPage(at, { id, parentId, position, slug, under }, document, by)
  return id
}

interface PagePlace extends Pick<PageRow, 'id' | 'parentId' | 'position' | 'slug'> {
  /** The address that its own begins with. */
  readonly under: string
}

/** Adds a page with its first version. */
export async function insertPage(
  at: SiteChange,
  { under, ...place }: PagePlace,
  document: Page,
  by: Author,
): Promise<void> {
  const page = { ...place, siteId: at.siteId, ...listed(document), address: addressOf(under, place.slug) }
  assertAddress(page.address, page.title)
  await addDocument(at, { id: place.id, type: 'page', document, by })
  await at.manager.insert(PageEntity, { ...page, binnedAt: null, binnedWith: null })
  at.changedPages.add(place.id)
}

/** A template that comes with Gullyline, or one that the site's keepers made. */
async function findTemplate(at: SiteData, id = 'blank'): Promise<Pick<Template, 'build'>> {
  const shipped = TEMPLATES.find((one) => one.id === id)
  if (shipped) return shipped
  const own = await at.manager.query<unknown[]>(
    `SELECT 1 FROM parts p JOIN documents d ON d.id = p.id
     WHERE p.id = ? AND p.site_id = ? AND p.binned_at IS NULL AND d.type = 'template'`,
    [id, at.siteId],
  )
  if (own.length === 0)
    throw new Refused('not-found', `There is no template “${id.slice(0, 50)}”. No page was added.`)
  const newest = await findNewest(at, id)
  const madeFrom = { template: id, version: newest.number }
  return {
    build: (registry, _newId, page) => pageOfTemplate(readDocument(newest), madeFrom, page, registry),
  }
}

/** Returns what the addresses of pages under a parent begin with; undefined where no such page stands in the tree. */
export async function addressUnder(at: SiteData, parentId: string | null): Promise<string | undefined> {
  if (parentId === null) return '/'
  const parent = await at.manager.findOneBy(PageEntity, { id: parentId, siteId: at.siteId })
  return parent?.address ?? undefined
}

/** The position after all pages under a parent, whose positions may leave some out. */
export async function positionAtEnd(at: SiteData, parentId: string | null): Promise<number> {
  const [row] = await at.manager.query<{ free: string }[]>(
    'SELECT COALESCE(MAX(position) + 1, 0) AS free FROM pages WHERE site_id = ? AND parent_id <=> ? AND binned_at IS NULL',
    [at.siteId, parentId],
  )
  return Number(row!.free)
}

/** The pages under a parent, in their order; those of one position by their ids, as in every list. */
export async function siblingsOf(at: SiteData, parentId: string | null): Promise<string[]> {
  const rows = await at.manager.query<{ id: string }[]>(
    'SELECT id FROM pages WHERE site_id = ? AND parent_id <=> ? AND binned_at IS NULL ORDER BY position, id',
    [at.siteId, parentId],
  )
  return rows.map(({ id }) => id)
}

/** Numbers pages under one parent in this order. Only those whose number changes are written. */
export async function renumber(at: SiteChange, ids: readonly string[]): Promise<void> {
  const wanted = `pages p JOIN JSON_TABLE(?, '$[*]' COLUMNS (place FOR ORDINALITY, id VARCHAR(24) PATH '$')) wanted
       ON p.id = wanted.id COLLATE utf8mb4_bin`
  const moved = 'p.site_id = ? AND p.position <> wanted.place - 1'
  const given = [JSON.stringify(ids), at.siteId]
  const rows = await at.manager.query<{ id: string }[]>(`SELECT p.id FROM ${wanted} WHERE ${moved}`, given)
  for (const { id } of rows) at.changedPages.add(id)
  if (rows.length > 0)
    await at.manager.query(`UPDATE ${wanted} SET p.position = wanted.place - 1 WHERE ${moved}`, given)
}

/**
 * Moves a page to a place. Refuses to put it under itself, and to move the home page or the 404 page.
 * Addresses of live pages that change with it go on leading to them.
 */
export async function movePage(at: SiteChange, pageId: string, to: PlacePageRequest): Promise<void> {
  const site = await lockSite(at)
  const page = await findStanding(at, pageId)
  refuseFixed(site, pageId, 'moved')
  const under = await addressUnder(at, to.parentId)
  if (under === undefined)
    throw new Refused('not-found', 'There is no such page to stand under. Nothing was changed.')
  if (under.startsWith(page.address))
    throw new Refused('not-valid', 'A page can’t stand under itself. Nothing was changed.')
  const siblings = (await siblingsOf(at, to.parentId)).filter((id) => id !== pageId)
  const position = Math.min(siblings.length, Math.max(0, to.position))
  const slug = await freeSlugUnder(at, under, page.slug, pageId)
  await at.manager.update(PageEntity, { id: pageId, siteId: at.siteId }, { parentId: to.parentId, slug })
  at.changedPages.add(pageId)
  await renumber(at, siblings.toSpliced(position, 0, pageId))
  if (page.parentId !== to.parentId) await renumber(at, await siblingsOf(at, page.parentId))
  await moveAddresses(at, page.address, addressOf(under, slug))
}

/** Gives a page another part of the address. Refuses one that a sibling has, and the home page and the 404 page, whose addresses are fixed. */
export async function changeSlug(at: SiteChange, pageId: string, wanted: string): Promise<void> {
  const site = await lockSite(at)
  const page = await findStanding(at, pageId)
  const slug = slugOf(wanted)
  if (slug === page.slug) return
  refuseFixed(site, pageId, 'given another address')
  const under = page.address.slice(0, -(page.slug.length + 1))
  const address = addressOf(under, slug)
  const taken = await at.manager.findOneBy(PageEntity, { siteId: at.siteId, address })
  if (taken) {
    throw new Refused(
      'address-taken',
      `“${taken.title}” already has the address “${slug}” here. Nothing was changed; choose another.`,
      { problems: [{ pointer: '/slug', message: 'is taken by a page beside this one' }] },
    )
  }
  await at.manager.update(PageEntity, { id: pageId, siteId: at.siteId }, { slug })
  await moveAddresses(at, page.address, address)
}

/** Copies a page, and with it those under it where that is asked for, right after itself. Copies were never published. Gives the copy's id. */
export async function copyPage(
  at: SiteChange,
  pageId: string,
  { withSubPages }: CopyPageRequest,
  by: Author,
): Promise<string> {
  await lockSite(at)
  const page = await findStanding(at, pageId)
  const { parentId } = page
  const above = (await addressUnder(at, parentId)) ?? '/'
  const wanted = page.slug === '' ? slugOf(page.title) : page.slug
  const slug = await freeSlugUnder(at, above, wanted)
  // Parents come before their sub-pages, so each finds where it belongs.
  const copies = new Map<string, { readonly id: string; readonly address: string }>()
  for (const id of withSubPages ? await idsUnder(at, page.address) : [pageId]) {
    const row = await findPageRow(at, id)
    const isTop = id === pageId
    const original = readDocument(await findNewest(at, id))
    const title = `${row.title} (copy)`.slice(0, LONGEST_TITLE)
    const document = isTop ? withSettings(original, { title, inNavigation: false }) : original
    const parent = copies.get(row.parentId ?? '')
    const place = {
      id: newId(),
      parentId: isTop ? parentId : parent!.id,
      position: row.position,
      slug: isTop ? slug : row.slug,
      under: isTop ? above : parent!.address,
    }
    copies.set(id, { id: place.id, address: addressOf(place.under, place.slug) })
    await insertPage(at, place, document, by)
  }
  const { id: copyId, address } = copies.get(pageId)!
  await forgetRedirects(at, address)
  const siblings = (await siblingsOf(at, parentId)).filter((id) => id !== copyId)
  await renumber(at, siblings.toSpliced(siblings.indexOf(pageId) + 1, 0, copyId))
  return copyId
}

/** A page that stands in the tree. */
type StandingRow = PageRow & { readonly address: string }

/** The row of a page that stands in the tree. */
export async function findStanding(at: SiteData, pageId: string): Promise<StandingRow> {
  const page = await findPageRow(at, pageId)
  const { address } = page
  if (page.binnedAt !== null || address === null)
    throw new Refused('not-found', 'This page is in the bin. Restore it first; nothing was changed.')
  return { ...page, address }
}

/** Refuses what would leave the site without its home page, or without a page for addresses that do not exist. */
export function refuseFixed({ homePageId, notFoundPageId }: SiteRow, pageId: string, what: string): void {
  if (pageId !== homePageId && pageId !== notFoundPageId) return
  const which = pageId === homePageId ? 'home page' : '404 page'
  throw new Refused('not-valid', `The ${which} of the site can’t be ${what}. Nothing was changed.`)
}
