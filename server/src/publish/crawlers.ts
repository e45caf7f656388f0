/** The files that search engines ask for. */

export interface ListedAddress {
  readonly id: string
  /** Starting and ending with a slash. */
  readonly path: string
  /** When what visitors see there was saved. */
  readonly savedAt: Date
}

/** Where the sitemap, or the list of its files, is. */
export const SITEMAP = '/sitemap.xml'

/** Everything may be read; pages that are not to be listed say so themselves (RFC 9309). */
export function robotsTxt(origin: string): string {
  return `User-agent: *\nAllow: /\n\nSitemap: ${origin}${SITEMAP}\n`
}

/** One file may list 50,000 addresses (sitemaps.org); from so many on, parts of it are made anew, and not all. */
const MOST_IN_ONE = 1_000

/** Some of the pages of a sitemap, which are listed in a file of their own. */
export interface SitemapPart {
  /** The address of the file. */
  readonly path: string
  readonly pages: readonly ListedAddress[]
}

/**
 * The files that list pages: one, in their order, or of a large site several, each with the pages whose ids end alike, by
 * their ids, so that a page that changes changes one small file.
 */
export function sitemapParts(pages: readonly ListedAddress[]): readonly SitemapPart[] {
  if (pages.length <= MOST_IN_ONE) return [{ path: SITEMAP, pages }]
  const parts = new Map<string, ListedAddress[]>()
  for (const page of pages) {
    const path = partOf(page)
    const part = parts.get(path)
    if (part) part.push(page)
    else parts.set(path, [page])
  }
  return [...parts].map(([path, part]) => ({ path, pages: part.sort(byId) })).sort(byPath)
}

/** What another list of pages is than the one that parts were made of. */
interface OtherPages {
  readonly parts: readonly SitemapPart[]
  /** The ids of all pages that are gone or other ones. */
  readonly touched: ReadonlySet<string>
  /** Those of them that are listed now. */
  readonly listed: readonly ListedAddress[]
}

/** The same as `sitemapParts`, by what changed; undefined for a site that one file lists, or listed. */
export function otherSitemapParts({
  parts,
  touched,
  listed,
}: OtherPages): readonly SitemapPart[] | undefined {
  const pages = new Map(parts.map((part) => [part.path, part.pages]))
  if (pages.has(SITEMAP)) return undefined
  for (const path of new Set([...touched].map((id) => partOf({ id })))) {
    const staying = (pages.get(path) ?? []).filter(({ id }) => !touched.has(id))
    const others = [...staying, ...listed.filter((page) => partOf(page) === path)].sort(byId)
    if (others.length > 0) pages.set(path, others)
    else pages.delete(path)
  }
  let count = 0
  for (const part of pages.values()) count += part.length
  return count > MOST_IN_ONE
    ? [...pages].map(([path, part]) => ({ path, pages: part })).sort(byPath)
    : undefined
}

function partOf({ id }: Pick<ListedAddress, 'id'>): string {
  return `/sitemap-${id.slice(-1)}.xml`
}

function byId(one: ListedAddress, other: ListedAddress): number {
  return one.id < other.id ? -1 : 1
}

function byPath(one: SitemapPart, other: SitemapPart): number {
  return one.path < other.path ? -1 : 1
}

/** A sitemap by the schema of sitemaps.org, version 0.9: addresses escaped, moments as W3C dates. */
export function sitemapXml(origin: string, { pages }: SitemapPart): string {
  return document(
    'urlset',
    pages.map(({ path, savedAt }) => entry('url', origin, path, savedAt)),
  )
}

/** The list of the files of a sitemap that has several. */
export function sitemapIndexXml(origin: string, parts: readonly SitemapPart[]): string {
  return document(
    'sitemapindex',
    parts.map(({ path, pages }) => entry('sitemap', origin, path, newest(pages))),
  )
}

/** Found once for a part: most parts are those of the release before. */
const newestIn = new WeakMap<readonly ListedAddress[], Date>()

function newest(pages: readonly ListedAddress[]): Date {
  const known = newestIn.get(pages)
  if (known) return known
  let latest = 0
  for (const { savedAt } of pages) latest = Math.max(latest, savedAt.getTime())
  const found = new Date(latest)
  newestIn.set(pages, found)
  return found
}

const PLAIN = /^[a-z0-9/-]*$/

function entry(tag: string, origin: string, path: string, changed: Date): string {
  // Most are all letters that stay as they are, which a parser of addresses takes long to find.
  const address = PLAIN.test(path) ? origin + path : escapeXml(new URL(path, origin).href)
  return `<${tag}><loc>${address}</loc><lastmod>${changed.toISOString()}</lastmod></${tag}>`
}

function document(tag: string, entries: readonly string[]): string {
  return (
    '<?xml version="1.0" encoding="UTF-8"?>\n' +
    `<${tag} xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${entries.join('\n')}\n</${tag}>\n`
  )
}

function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => ENTITIES[sign]!)
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;',
}
