/** The files that search engines ask for. */

export interface ListedAddress {
  /** Starting and ending with a slash. */
  readonly path: string
  /** When what visitors see there was saved. */
  readonly savedAt: Date
}

/** Everything may be read; pages that are not to be listed say so themselves (RFC 9309). */
export function robotsTxt(origin: string): string {
  return `User-agent: *\nAllow: /\n\nSitemap: ${origin}/sitemap.xml\n`
}

/** A sitemap by the schema of sitemaps.org, version 0.9: addresses escaped, moments as W3C dates. */
export function sitemapXml(origin: string, pages: readonly ListedAddress[]): string {
  const entries = pages.map(
    ({ path, savedAt }) =>
      `<url><loc>${escapeXml(new URL(path, origin).href)}</loc><lastmod>${savedAt.toISOString()}</lastmod></url>`,
  )
  return (
    '<?xml version="1.0" encoding="UTF-8"?>\n' +
    `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${entries.join('\n')}\n</urlset>\n`
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
