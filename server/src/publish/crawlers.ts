/** The files that search engines ask for. */

export interface ListedAddress {
  readonly id: string
  /** Starting and ending with a slash. */
  readonly path: string
  /** When what visitors see there was saved. */
  readonly savedAt: Date
}

/** Everything may be read; pages that are not to be listed say so themselves (RFC 9309). */
export function robotsTxt(origin: string): string {
  return `User-agent: *\nAllow: /\n\nSitemap: ${origin}/sitemap.xml\n`
}

/** One file may list 50,000 addresses (sitemaps.org); from so many on, parts of it are made anew, and not all. */
const MOST_IN_ONE = 1_000

/**
 * The sitemap by the schema of sitemaps.org, version 0.9, by the addresses of its files: addresses escaped, moments as W3C
 * dates. Of a large site it is an index of parts, each with the pages whose ids end alike, so that a page that changes
 * changes one small part.
 */
export function sitemapFiles(origin: string, pages: readonly ListedAddress[]): Record<string, string> {
  if (pages.length <= MOST_IN_ONE) return { '/sitemap.xml': urlSet(origin, pages) }
  const parts = new Map<string, ListedAddress[]>()
  for (const page of pages) {
    const sign = page.id.slice(-1)
    parts.set(sign, [...(parts.get(sign) ?? []), page])
  }
  const named = [...parts].sort().map(([sign, part]) => [`/sitemap-${sign}.xml`, part] as const)
  const index = named.map(([path, part]) => entry('sitemap', origin, path, newest(part)))
  return {
    '/sitemap.xml': document('sitemapindex', index),
    ...Object.fromEntries(named.map(([path, part]) => [path, urlSet(origin, part)])),
  }
}

function urlSet(origin: string, pages: readonly ListedAddress[]): string {
  return document(
    'urlset',
    pages.map(({ path, savedAt }) => entry('url', origin, path, savedAt)),
  )
}

function newest(pages: readonly ListedAddress[]): Date {
  return new Date(Math.max(...pages.map(({ savedAt }) => savedAt.getTime())))
}

function entry(tag: string, origin: string, path: string, changed: Date): string {
  const address = escapeXml(new URL(path, origin).href)
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
