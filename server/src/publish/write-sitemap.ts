/** Puts the sitemap of a site into the content store. */
import type { ContentStore } from './content-store.ts'
import {
  otherSitemapParts,
  SITEMAP,
  sitemapIndexXml,
  sitemapParts,
  sitemapXml,
  type ListedAddress,
  type SitemapPart,
} from './crawlers.ts'

/** The files of a sitemap, and the pages in each. */
export interface WrittenSitemap {
  readonly origin: string
  readonly parts: readonly SitemapPart[]
  readonly addresses: Readonly<Record<string, string>>
}

interface ToList {
  readonly origin: string
  /** All pages that are listed, asked for where they are not known by what changed. */
  readonly listed: () => readonly ListedAddress[]
  readonly before: WrittenSitemap | undefined
  /** How they are other ones than in `before`; undefined where that is not known. */
  readonly changes?: ListedChanges | undefined
}

export interface ListedChanges {
  /** The ids of all pages that may be other ones, or gone. */
  readonly touched: ReadonlySet<string>
  /** Those of them that are listed now. */
  readonly listed: readonly ListedAddress[]
}

/** Puts the sitemap into the store. Files with the very pages that they had before stay as they are. */
export async function writeSitemap(
  store: ContentStore,
  { origin, listed, before, changes }: ToList,
): Promise<WrittenSitemap> {
  const known = new Map(before?.origin === origin ? before.parts.map((part) => [part.path, part]) : [])
  const changed = before && changes && otherSitemapParts({ parts: before.parts, ...changes })
  const parts = (changed ?? sitemapParts(listed())).map((part) => {
    const last = known.get(part.path)
    return last && isSame(last, part) ? last : part
  })
  const addresses: Record<string, string> = {}
  for (const part of parts) {
    const { path } = part
    addresses[path] =
      known.get(path) === part
        ? before!.addresses[path]!
        : await store.putText(sitemapXml(origin, part), '.xml')
  }
  if (parts.length > 1) addresses[SITEMAP] = await store.putText(sitemapIndexXml(origin, parts), '.xml')
  return { origin, parts, addresses }
}

function isSame({ pages: last }: SitemapPart, { pages }: SitemapPart): boolean {
  return last === pages || (last.length === pages.length && pages.every((page, i) => page === last[i]))
}
