/**
 * Addresses of pages, stored beside them under a unique key. The address of a page under another one begins with that
 * one's, so all under a page are found by it, and an act writes no more addresses than it changes. Pages in the bin have
 * none.
 */
import { escapeLike } from '../db/escape-like.ts'
import { isLive } from '../documents/live.ts'
import { Refused } from '../http/errors.ts'
import { freeSlug } from './tree.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'

/** As the column that holds addresses. */
const LONGEST_ADDRESS = 700

/** The pattern, for LIKE, of a page's address and of those of all under it. */
function allUnder(address: string): string {
  return `${escapeLike(address)}%`
}

/** The address of a page with this slug; one without a slug is at the address that it stands under. */
export function addressOf(under: string, slug: string): string {
  return slug === '' ? under : `${under}${slug}/`
}

/** Returns the slug wanted, or the same with the first number behind it that makes the address one that no other page has. */
export async function freeSlugUnder(
  at: SiteData,
  under: string,
  wanted: string,
  ownId = '',
): Promise<string> {
  // Pages right here whose slugs begin like it, and none of those under them.
  const begin = allUnder(under + wanted)
  const taken = await at.manager.query<{ address: string }[]>(
    'SELECT address FROM pages WHERE site_id = ? AND address LIKE ? AND address NOT LIKE ? AND id <> ?',
    [at.siteId, begin, `${begin}/_%`, ownId],
  )
  return freeSlug(
    wanted,
    taken.map((one) => one.address.slice(under.length, -1)),
  )
}

/** Refuses an address that is longer than one can be. */
export function assertAddress(address: string, title: string): void {
  if (address.length <= LONGEST_ADDRESS) return
  throw new Refused(
    'not-valid',
    `The address of “${title}” would be longer than ${LONGEST_ADDRESS} characters. Nothing was changed.`,
  )
}

/**
 * Gives a page and all under it the addresses that follow from its new one. Those of them that visitors see go on being
 * found by their old addresses, and old addresses that are in use again lead nowhere else any more.
 */
export async function moveAddresses(at: SiteChange, from: string, to: string): Promise<void> {
  if (from === to) return
  const moved = [at.siteId, allUnder(from)]
  const [longest] = await at.manager.query<{ title: string; address: string }[]>(
    'SELECT title, address FROM pages WHERE site_id = ? AND address LIKE ? ORDER BY CHAR_LENGTH(address) DESC LIMIT 1',
    moved,
  )
  if (longest) assertAddress(to + longest.address.slice(from.length), longest.title)
  await at.manager.query(
    `INSERT INTO redirects (site_id, path, page_id)
     SELECT p.site_id, p.address, p.id FROM pages p WHERE p.site_id = ? AND p.address LIKE ? AND ${isLive('p.id')}
     ON DUPLICATE KEY UPDATE page_id = VALUES(page_id)`,
    moved,
  )
  await at.manager.query(
    'UPDATE pages SET address = CONCAT(?, SUBSTRING(address, ?)) WHERE site_id = ? AND address LIKE ?',
    [to, from.length + 1, ...moved],
  )
  await forgetRedirects(at, to)
  for (const id of await idsUnder(at, to)) at.changedPages.add(id)
}

/** Forgets old addresses that a page here, or one under it, has now. */
export async function forgetRedirects(at: SiteData, address: string): Promise<void> {
  await at.manager.query(
    `DELETE r FROM redirects r JOIN pages p ON p.site_id = r.site_id AND p.address = r.path
     WHERE p.site_id = ? AND p.address LIKE ?`,
    [at.siteId, allUnder(address)],
  )
}

/** Returns the ids of the page at an address and of all under it, parents before their sub-pages. */
export async function idsUnder(at: SiteData, address: string): Promise<string[]> {
  const rows = await at.manager.query<{ id: string }[]>(
    'SELECT id FROM pages WHERE site_id = ? AND address LIKE ? ORDER BY CHAR_LENGTH(address), position, id',
    [at.siteId, allUnder(address)],
  )
  return rows.map(({ id }) => id)
}
