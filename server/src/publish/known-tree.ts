/** The tree of a site as publishing reads it: all of it once, and then what changed. */
import { CHANGED_PAGES, lastPageChange } from '../db/page-changes.ts'
import type { PageRow } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { asTree } from '../pages/tree.ts'

/** What publishing needs to know of a page that stands in the tree. */
export type StandingPage = Pick<PageRow, 'id' | 'parentId' | 'position' | 'slug'> & {
  readonly address: string
}

/** The tree of a site as it was after a change. */
export interface KnownTree {
  /** The number of the last change of its pages. */
  readonly change: number
  /** In the order of the tree. */
  readonly pages: readonly StandingPage[]
}

/** Which pages stand elsewhere than when the tree was known. */
export interface Moved {
  readonly ids: ReadonlySet<string>
  /** Those of them that did not stand in it. */
  readonly back: readonly string[]
}

interface ReadTree {
  readonly tree: KnownTree
  readonly moved: Moved
}

const NONE_MOVED: Moved = { ids: new Set(), back: [] }

export async function wholeTree(at: SiteData): Promise<ReadTree> {
  const rows = await at.manager.query<PlacedPage[]>(`SELECT ${PLACE} FROM pages p WHERE p.site_id = ?`, [
    at.siteId,
  ])
  const pages = asTree(rows.filter(isStanding).sort(byPlace))
  return { tree: { change: await lastPageChange(at), pages }, moved: NONE_MOVED }
}

/** The tree as it is, by the pages that changed since it was known. */
export async function treeSince(at: SiteData, known: KnownTree): Promise<ReadTree> {
  const change = await lastPageChange(at)
  if (change === known.change) return { tree: known, moved: NONE_MOVED }
  const sql = `SELECT ${PLACE} FROM ${CHANGED_PAGES}`
  const rows = await at.manager.query<PlacedPage[]>(sql, [at.siteId, known.change])
  const changed = new Map(rows.map((page) => [page.id, page]))
  const stood = new Set<string>()
  const others: StandingPage[] = []
  for (const page of known.pages) {
    const now = changed.get(page.id)
    if (now) stood.add(page.id)
    // What was saved and stands where it stood is left alone.
    if (now && isSamePlace(now, page)) changed.delete(page.id)
    if (!changed.has(page.id)) others.push(page)
  }
  if (changed.size === 0) return { tree: { change, pages: known.pages }, moved: NONE_MOVED }
  const placed = [...changed.values()].filter(isStanding).sort(byPlace)
  const back = placed.flatMap(({ id }) => (stood.has(id) ? [] : [id]))
  return { tree: { change, pages: merged(others, placed) }, moved: { ids: new Set(changed.keys()), back } }
}

/** Two lists in the order of the tree as one. The other one mostly has few pages: what stands between them is not compared. */
function merged(one: readonly StandingPage[], other: readonly StandingPage[]): StandingPage[] {
  const all: StandingPage[] = []
  let from = 0
  for (const page of other) {
    for (const to = placeOf(page, one); from < to; from++) all.push(one[from]!)
    all.push(page)
  }
  for (; from < one.length; from++) all.push(one[from]!)
  return all
}

/** How many pages of a list in the order of the tree stand before a page. */
function placeOf(page: StandingPage, list: readonly StandingPage[]): number {
  let [low, high] = [0, list.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (byPlace(list[middle]!, page) < 0) low = middle + 1
    else high = middle
  }
  return low
}

type PlacedPage = Omit<StandingPage, 'address'> & Pick<PageRow, 'address'>

/** Of a page, what says where it stands: little, so that thousands are read in a moment. */
const PLACE = 'p.id, p.parent_id AS parentId, p.position, p.slug, p.address'

function isSamePlace(page: PlacedPage, before: StandingPage): boolean {
  return (['parentId', 'position', 'slug', 'address'] as const).every((key) => page[key] === before[key])
}

/** Pages in the bin have no address. */
function isStanding(page: PlacedPage): page is StandingPage {
  return page.address !== null
}

function byPlace(one: StandingPage, other: StandingPage): number {
  return one.position - other.position || (one.id < other.id ? -1 : 1)
}
