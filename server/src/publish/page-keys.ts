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
  readonly site: Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'tree'>
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

/** What pages read of the site by name, and what it is made of. */
export interface ReadSite extends Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'tree'> {
  readonly pages: readonly LivePage[]
  readonly lines: ReturnType<typeof navigationLines>
}

/** Returns what stands for something else now than before: pages that read none of it are made from the same. */
export function changedReads(before: ReadSite, now: ReadSite): ReadonlySet<ReadName> {
  const changed = new Set<ReadName>()
  if (!sameJson(before.lines, now.lines)) changed.add('navigation')
  for (const kind of ['picture', 'file'] as const)
    for (const id of keysOfBoth(before[`${kind}s`], now[`${kind}s`]))
      if (!isReadAlike(before, now, `${kind}:${id}`)) changed.add(`${kind}:${id}`)
  const pages = new Map(before.pages.map((page) => [page.id, page]))
  const ids = new Set(pages.keys())
  for (const page of now.pages) {
    ids.add(page.id)
    // Most pages are the very same objects.
    if (pages.get(page.id) === page) pages.delete(page.id)
    else pages.set(page.id, page)
  }
  for (const id of pages.keys())
    for (const name of [`path:${id}`, `tree:${id}`] as const)
      if (!isReadAlike(before, now, name)) changed.add(name)
  for (const id of ids) {
    const [one, other] = [before.tree.inside(id), now.tree.inside(id)]
    const isSame = one.length === other.length && one.every((page, i) => page === other[i])
    if (!isSame && !isReadAlike(before, now, `inside:${id}`)) changed.add(`inside:${id}`)
  }
  return changed
}

function keysOfBoth(one: object, other: object): ReadonlySet<string> {
  return new Set([...Object.keys(one), ...Object.keys(other)])
}

function isReadAlike(before: ReadSite, now: ReadSite, name: ReadName): boolean {
  return sameJson(readOf(before, name), readOf(now, name))
}

function sameJson(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(one) === JSON.stringify(other)
}

export function digestOf(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('base64url').slice(0, 22)
}

/** The lines of a site's navigation, made once for all its pages. */
export function liveNavigation(
  items: readonly NavigationItem[],
  pages: readonly LivePage[],
): ReturnType<typeof navigationLines> {
  return navigationLines(
    items,
    pages.map(({ id, parentId, path, title, settings }) => ({
      id,
      parentId,
      path,
      label: settings.navigationLabel || title,
      inNavigation: settings.inNavigation,
    })),
  )
}
