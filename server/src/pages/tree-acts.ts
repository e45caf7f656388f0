/** Acts on the page tree: adding, moving, copying, changing an address. Each is one transaction, and costs what it changes. */
import type { EntityManager } from 'typeorm'
import {
  defaultRegistry,
  LONGEST_TITLE,
  TEMPLATES,
  withSettings,
  type CopyPageRequest,
  type NewPageRequest,
  type Page,
  type PageSettings,
  type PlacePageRequest,
  type Template,
} from '@gullyline/core'
import { PageEntity, SiteEntity, type PageRow, type SiteRow } from '../db/rows.ts'
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
  type Under,
} from './addresses.ts'
import { checkedTitle, findPageRow, listed } from './store.ts'
import { slugOf } from './tree.ts'

/**
 * Holds the tree of the site until the transaction ends, and gives the site. Every act on the tree begins with it, before
 * it reads anything: what is read afterwards is what the act before has left.
 */
export async function lockTree(manager: EntityManager): Promise<SiteRow> {
  const [site] = await manager.find(SiteEntity, { take: 1, lock: { mode: 'pessimistic_write' } })
  if (!site) throw new Refused('not-found', 'There is no site yet.')
  return site
}

/** Adds a page as the last one under its parent, with an address made from its title. Gives its id. */
export async function addPage(
  manager: EntityManager,
  given: NewPageRequest & { readonly by: Author },
): Promise<string> {
  const title = checkedTitle(given.title)
  const template = findTemplate(given.template)
  const site = await lockTree(manager)
  const { parentId, by } = given
  const settings = { inNavigation: parentId === null }
  return insertPageFrom(manager, site, { template, title, slug: slugOf(title), parentId, settings, by })
}

interface PageFrom {
  readonly template: Template
  readonly title: string
  /** Its wanted part of the address. */
  readonly slug: string
  readonly parentId: string | null
  readonly settings: Partial<PageSettings>
  readonly by: Author
}

/** Adds a page made from a template as the last one under its parent, in a site whose tree is locked. Gives its id. */
export async function insertPageFrom(
  manager: EntityManager,
  { id: siteId }: SiteRow,
  { template, title, slug: wanted, parentId, settings, by }: PageFrom,
): Promise<string> {
  const under = await placeUnder(manager, siteId, parentId)
  if (!under)
    throw new Refused(
      'not-found',
      'The parent page does not exist or was deleted. No page was added; choose another parent.',
    )
  const id = newId()
  const date = new Date().toISOString().slice(0, 10)
  const built = template.build(defaultRegistry, newId, { title, date })
  const document = withSettings(built, { ...settings, title })
  const slug = await freeSlugUnder(manager, under, wanted)
  const position = (await siblingsOf(manager, siteId, parentId)).length
  await insertPage(manager, { id, siteId, parentId, position, slug, under: under.address }, document, by)
  return id
}

interface PagePlace extends Pick<PageRow, 'id' | 'siteId' | 'parentId' | 'position' | 'slug'> {
  /** The address that its own begins with. */
  readonly under: string
}

/** Adds a page with its first version. */
export async function insertPage(
  manager: EntityManager,
  { under, ...place }: PagePlace,
  document: Page,
  by: Author,
): Promise<void> {
  const page = { ...place, ...listed(document), address: addressOf(under, place.slug) }
  assertAddress(page.address, page.title)
  await addDocument(manager, { id: place.id, siteId: place.siteId, type: 'page', document, by })
  await manager.insert(PageEntity, { ...page, binnedAt: null, binnedWith: null })
}

function findTemplate(id = 'blank'): Template {
  const template = TEMPLATES.find((one) => one.id === id)
  if (!template)
    throw new Refused('not-found', `There is no template “${id.slice(0, 50)}”. No page was added.`)
  return template
}

/** What the addresses of pages under a parent begin with; undefined where no such page stands in the tree. */
async function placeUnder(
  manager: EntityManager,
  siteId: string,
  parentId: string | null,
): Promise<Under | undefined> {
  if (parentId === null) return { siteId, address: '/' }
  const parent = await manager.findOneBy(PageEntity, { id: parentId, siteId })
  return parent?.address == null ? undefined : { siteId, address: parent.address }
}

/** The pages under a parent, in their order. */
export async function siblingsOf(
  manager: EntityManager,
  siteId: string,
  parentId: string | null,
): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    'SELECT id FROM pages WHERE site_id = ? AND parent_id <=> ? AND binned_at IS NULL ORDER BY position, id',
    [siteId, parentId],
  )
  return rows.map(({ id }) => id)
}

/** Numbers pages under one parent in this order. Only those whose number changes are written. */
export async function renumber(manager: EntityManager, ids: readonly string[]): Promise<void> {
  await manager.query(
    `UPDATE pages p JOIN JSON_TABLE(?, '$[*]' COLUMNS (place FOR ORDINALITY, id VARCHAR(24) PATH '$')) wanted
       ON p.id = wanted.id COLLATE utf8mb4_bin
     SET p.position = wanted.place - 1 WHERE p.position <> wanted.place - 1`,
    [JSON.stringify(ids)],
  )
}

/**
 * Moves a page to a place. Refuses to put it under itself, and to move the home page or the 404 page.
 * Addresses of live pages that change with it go on leading to them.
 */
export async function movePage(manager: EntityManager, pageId: string, to: PlacePageRequest): Promise<void> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  refuseFixed(site, pageId, 'moved')
  const { siteId } = page
  const under = await placeUnder(manager, siteId, to.parentId)
  if (!under) throw new Refused('not-found', 'There is no such page to stand under. Nothing was changed.')
  if (under.address.startsWith(page.address))
    throw new Refused('not-valid', 'A page can’t stand under itself. Nothing was changed.')
  const siblings = (await siblingsOf(manager, siteId, to.parentId)).filter((id) => id !== pageId)
  const position = Math.min(siblings.length, Math.max(0, to.position))
  const slug = await freeSlugUnder(manager, under, page.slug, pageId)
  await manager.update(PageEntity, { id: pageId }, { parentId: to.parentId, slug })
  await renumber(manager, siblings.toSpliced(position, 0, pageId))
  if (page.parentId !== to.parentId) await renumber(manager, await siblingsOf(manager, siteId, page.parentId))
  await moveAddresses(manager, page, addressOf(under.address, slug))
}

/** Gives a page another part of the address. Refuses one that a sibling has, and the home page and the 404 page, whose addresses are fixed. */
export async function changeSlug(manager: EntityManager, pageId: string, wanted: string): Promise<void> {
  const site = await lockTree(manager)
  const page = await findStanding(manager, pageId)
  const slug = slugOf(wanted)
  if (slug === page.slug) return
  refuseFixed(site, pageId, 'given another address')
  const { siteId } = page
  const under = page.address.slice(0, -(page.slug.length + 1))
  const address = addressOf(under, slug)
  const taken = await manager.findOneBy(PageEntity, { siteId, address })
  if (taken) {
    throw new Refused(
      'address-taken',
      `“${taken.title}” already has the address “${slug}” here. Nothing was changed; choose another.`,
      { problems: [{ pointer: '/slug', message: 'is taken by a page beside this one' }] },
    )
  }
  await manager.update(PageEntity, { id: pageId }, { slug })
  await moveAddresses(manager, page, address)
}

/** Copies a page, and with it those under it where that is asked for, right after itself. Copies were never published. Gives the copy's id. */
export async function copyPage(
  manager: EntityManager,
  pageId: string,
  { withSubPages }: CopyPageRequest,
  by: Author,
): Promise<string> {
  await lockTree(manager)
  const page = await findStanding(manager, pageId)
  const { siteId, parentId } = page
  const under = await placeUnder(manager, siteId, parentId)
  const above = under ?? { siteId, address: '/' }
  const wanted = page.slug === '' ? slugOf(page.title) : page.slug
  const slug = await freeSlugUnder(manager, above, wanted)
  // Parents come before their sub-pages, so each finds where it belongs.
  const copies = new Map<string, { readonly id: string; readonly address: string }>()
  for (const id of withSubPages ? await idsUnder(manager, page) : [pageId]) {
    const row = await findPageRow(manager, id)
    const isTop = id === pageId
    const original = readDocument(await findNewest(manager, id))
    const title = `${row.title} (copy)`.slice(0, LONGEST_TITLE)
    const document = isTop ? withSettings(original, { title, inNavigation: false }) : original
    const parent = copies.get(row.parentId ?? '')
    const place = {
      id: newId(),
      siteId,
      parentId: isTop ? parentId : parent!.id,
      position: row.position,
      slug: isTop ? slug : row.slug,
      under: isTop ? above.address : parent!.address,
    }
    copies.set(id, { id: place.id, address: addressOf(place.under, place.slug) })
    await insertPage(manager, place, document, by)
  }
  const { id: copyId, address } = copies.get(pageId)!
  await forgetRedirects(manager, { siteId, address })
  const siblings = (await siblingsOf(manager, siteId, parentId)).filter((id) => id !== copyId)
  await renumber(manager, siblings.toSpliced(siblings.indexOf(pageId) + 1, 0, copyId))
  return copyId
}

/** A page that stands in the tree. */
type StandingRow = PageRow & { readonly address: string }

/** The row of a page that stands in the tree. */
export async function findStanding(manager: EntityManager, pageId: string): Promise<StandingRow> {
  const page = await findPageRow(manager, pageId)
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
