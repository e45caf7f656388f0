/** Rules of the page tree: addresses, order and states. Pure. */
import transliterate from '@sindresorhus/transliterate'
import type { PageMore, PageState, PageSummary } from '@gullyline/core'
import type { PageRow } from '../db/rows.ts'
import type { LiveVersion } from '../documents/live.ts'
import type { VersionFacts } from '../documents/versions.ts'

const LONGEST_SLUG = 80
/** Scripts that are written in Latin letters by letter; of others, the marks that this drops are letters of their own. */
const SPELT_IN_ASCII =
  /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Armenian}\p{Script=Georgian}]+/gu

/**
 * The page's part of an address made from its title: words joined by hyphens, in ASCII where there is a usual way to write
 * them so. Letters of other scripts stay as they are, which browsers send percent-encoded (URL Standard, "path state").
 */
export function slugOf(title: string): string {
  const plain = title
    .normalize('NFKC')
    .replace(SPELT_IN_ASCII, (letters) => transliterate(letters))
    .toLowerCase()
  const joined = plain.replace(/[^\p{L}\p{N}\p{M}]+/gu, '-').replace(/^-/, '')
  // By characters: half a surrogate pair is none.
  const slug = [...joined].slice(0, LONGEST_SLUG).join('').replace(/-$/, '')
  return slug || 'page'
}

/** A slug that none of the siblings has: the one wanted, else with the first free number behind it. */
export function freeSlug(wanted: string, siblings: readonly string[]): string {
  let slug = wanted
  for (let n = 2; siblings.includes(slug); n++) slug = `${wanted}-${n}`
  return slug
}

type TreeRow = Pick<PageRow, 'id' | 'parentId' | 'slug'>

/**
 * The whole address of each page by id, starting and ending with a slash. A page whose parents form a loop, which no act
 * makes, is taken for one at the top: whatever the rows say, there is an answer.
 */
export function pagePaths(pages: readonly TreeRow[]): Record<string, string> {
  const byId = new Map(pages.map((page) => [page.id, page]))
  const known = new Map<string, string>()
  const pathOf = (page: TreeRow, below: ReadonlySet<string>): string => {
    const found = known.get(page.id)
    if (found !== undefined) return found
    const parent = page.parentId === null || below.has(page.parentId) ? undefined : byId.get(page.parentId)
    const start = parent ? pathOf(parent, new Set([...below, page.id])) : '/'
    const path = `${start}${page.slug === '' ? '' : `${page.slug}/`}`
    known.set(page.id, path)
    return path
  }
  return Object.fromEntries(pages.map((page) => [page.id, pathOf(page, new Set([page.id]))]))
}

/**
 * The rows as one tree: a page whose parent is not among them, or which stands under itself, stands at the top. No act
 * leaves such rows; reading must survive them all the same.
 */
export function asTree<R extends TreeRow>(rows: readonly R[]): R[] {
  const byId = new Map(rows.map((row) => [row.id, row]))
  const isBroken = (row: R): boolean => {
    const seen = new Set<string>()
    for (let at: R | undefined = row; at; at = at.parentId === null ? undefined : byId.get(at.parentId)) {
      if (seen.has(at.id)) return at.id === row.id
      seen.add(at.id)
    }
    return row.parentId !== null && !byId.has(row.parentId)
  }
  return rows.map((row) => (isBroken(row) ? { ...row, parentId: null } : row))
}

function pageState(version: number, live: LiveVersion | undefined): PageState {
  if (!live) return 'never-published'
  return live.version === version ? 'live' : 'changed'
}

/** What a page without a title is called in lists. */
export const UNTITLED = 'Untitled page'

export function summarize(
  page: PageRow,
  path: string,
  newest: Pick<VersionFacts, 'number' | 'savedAt' | 'savedBy'>,
  live: LiveVersion | undefined,
): PageSummary {
  return {
    id: page.id,
    parentId: page.parentId,
    position: page.position,
    title: page.title || UNTITLED,
    slug: page.slug,
    path,
    description: page.description,
    inNavigation: Boolean(page.inNavigation),
    more: page.more as PageMore,
    state: pageState(newest.number, live),
    version: newest.number,
    savedAt: newest.savedAt.toISOString(),
    savedBy: newest.savedBy,
    liveSince: live?.since.toISOString() ?? null,
  }
}
