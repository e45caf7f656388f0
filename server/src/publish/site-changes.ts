/** What is another one on a site than it was in the release before, and which pages are to be made again for it. */
import { readOf, type navigationLines, type ReadName, type SiteContext } from '@gullyline/core'
import type { LivePage, Since } from './live-site.ts'

/** What pages read of the site by name, and what it is made of. */
export interface ReadSite extends Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'parts' | 'tree'> {
  /** In the order of the tree. A page that did not change is the same object as before. */
  readonly pages: readonly LivePage[]
  readonly byId: ReadonlyMap<string, LivePage>
  readonly since: Since | undefined
  readonly childrenOf: (id: string) => readonly LivePage[]
  readonly lines: ReturnType<typeof navigationLines>
}

interface SiteChanges {
  /** The ids of pages that are new or other ones. */
  readonly pages: ReadonlySet<string>
  /** What stands for something else: pages that read none of it, and are the same, are made from the same. */
  readonly reads: ReadonlySet<ReadName>
}

/** Returns what changed on a site. */
export function changesBetween(before: ReadSite, now: ReadSite): SiteChanges {
  const reads = new Set<ReadName>()
  const addChanged = (name: ReadName): void => {
    if (!sameJson(readOf(before, name), readOf(now, name))) reads.add(name)
  }
  if (!sameJson(before.lines, now.lines)) reads.add('navigation')
  // One that did not change is the same object: most need not be written out.
  for (const id of keysOfBoth(before.parts, now.parts))
    if (before.parts[id] !== now.parts[id]) addChanged(`part:${id}`)
  for (const kind of ['picture', 'file'] as const)
    for (const id of keysOfBoth(before[`${kind}s`], now[`${kind}s`])) addChanged(`${kind}:${id}`)
  const pages = new Set<string>()
  const parents = new Set<string | null>()
  const add = (page: LivePage): void => {
    addChanged(`path:${page.id}`)
    addChanged(`tree:${page.id}`)
    parents.add(page.parentId)
  }
  for (const page of otherPages(before, now)) {
    const known = before.byId.get(page.id)
    // What only stands elsewhere in the order stands elsewhere among its siblings.
    parents.add(page.parentId)
    if (known === page) continue
    pages.add(page.id)
    add(page)
    if (known) parents.add(known.parentId)
  }
  for (const page of gonePages(before, now)) add(page)
  for (const id of parents) {
    if (id === null) continue
    const [one, other] = [before.childrenOf(id), now.childrenOf(id)]
    if (one.length !== other.length || one.some((page, i) => page !== other[i])) addChanged(`inside:${id}`)
  }
  return { pages, reads }
}

/** The ids of pages that may be other ones, or stand elsewhere; undefined where that is not known. */
export function touchedSince(
  before: Pick<ReadSite, 'pages'>,
  { since }: Pick<ReadSite, 'since'>,
): ReadonlySet<string> | undefined {
  return since?.pages === before.pages ? since.touched : undefined
}

function otherPages(before: ReadSite, now: ReadSite): readonly LivePage[] {
  const touched = touchedSince(before, now)
  // Most pages are the very same objects, in the very same places.
  return touched
    ? [...touched].flatMap((id) => now.byId.get(id) ?? [])
    : now.pages.filter((page, i) => page !== before.pages[i])
}

function gonePages(before: ReadSite, now: ReadSite): readonly LivePage[] {
  const touched = touchedSince(before, now)
  const maybe = touched ? [...touched].flatMap((id) => before.byId.get(id) ?? []) : before.pages
  return maybe.filter(({ id }) => !now.byId.has(id))
}

function keysOfBoth(one: object, other: object): ReadonlySet<string> {
  return new Set([...Object.keys(one), ...Object.keys(other)])
}

function sameJson(one: unknown, other: unknown): boolean {
  return one === other || JSON.stringify(one) === JSON.stringify(other)
}

/**
 * Which pages read what of the site. Names are only ever added: that a page read something once, and does not any more, has
 * it looked at in vain, and no more.
 */
export class Readers {
  readonly #pages = new Map<ReadName, Set<string>>()

  add(pageId: string, reads: readonly ReadName[]): void {
    for (const name of reads) {
      const pages = this.#pages.get(name)
      if (pages) pages.add(pageId)
      else this.#pages.set(name, new Set([pageId]))
    }
  }

  /** The ids of pages that may read one of these. */
  of(names: Iterable<ReadName>): Set<string> {
    const ids = new Set<string>()
    for (const name of names) for (const id of this.#pages.get(name) ?? []) ids.add(id)
    return ids
  }
}
