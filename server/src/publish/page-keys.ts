import { createHash } from 'node:crypto'
import {
  navigationLines,
  readOf,
  type NavigationItem,
  type ReadName,
  type SiteContext,
} from '@gullyline/core'
import type { LivePage } from './live-site.ts'

/** What all pages of a release have in common. */
interface Common {
  /** A digest of whatever every page is made from: the program, the look, the header and the footer among it. */
  readonly common: string
  readonly lines: ReturnType<typeof navigationLines>
  readonly site: Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'parts' | 'tree'>
}

/**
 * Makes the keys of a release's pages: a digest of everything that a page is made from. A page whose key is that of its
 * files needs not be made again.
 */
export function pageKeys({
  common,
  lines,
  site,
}: Common): (page: LivePage, reads: readonly ReadName[]) => string {
  // Most is read by many pages, such as what the header links to.
  const known = new Map<ReadName, string>()
  const valueDigest = (name: ReadName): string => {
    let digest = known.get(name)
    if (digest === undefined) {
      digest = digestOf(name === 'navigation' ? lines : readOf(site, name))
      known.set(name, digest)
    }
    return digest
  }
  return ({ id, version, path, title, settings, isNotFound }, reads) =>
    digestOf([
      common,
      [id, version, path, title, settings, isNotFound],
      reads.map((name) => [name, valueDigest(name)]),
    ])
}

export function digestOf(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('base64url').slice(0, 22)
}

/** Whether the navigation says anything of a page. Of most pages of a large site it does not. */
export function inNavigation(items: readonly NavigationItem[]): (page: LivePage) => boolean {
  const named = new Set(items.flatMap((item) => ('page' in item ? [item.page] : [])))
  return ({ id, settings }) => settings.inNavigation || named.has(id)
}

/** The lines of a site's navigation, made once for all its pages. */
export function liveNavigation(
  items: readonly NavigationItem[],
  pages: readonly LivePage[],
): ReturnType<typeof navigationLines> {
  const told = pages.filter(inNavigation(items))
  return navigationLines(
    items,
    told.map(({ id, parentId, path, title, settings }) => ({
      id,
      parentId,
      path,
      label: settings.navigationLabel || title,
      inNavigation: settings.inNavigation,
    })),
  )
}
