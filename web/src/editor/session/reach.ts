/** What a change of something shared changes, in words. */
import type { PageSummary, SharedName } from '@gullyline/core'

const TITLES: Readonly<Record<SharedName, string>> = { header: 'Header', footer: 'Footer' }

/**
 * Says on how many pages a shared section stands, and how many of those visitors see: "Header: on 12 pages, 9 live". While
 * not all pages are there, it says no more than that.
 */
export function reachWords(
  name: SharedName,
  { pages, isWhole }: { readonly pages: readonly PageSummary[]; readonly isWhole: boolean },
): string {
  if (!isWhole) return `${TITLES[name]}: on all pages`
  const live = pages.filter(({ liveSince }) => liveSince !== null).length
  return `${TITLES[name]}: on ${pages.length === 1 ? '1 page' : `${pages.length} pages`}, ${live} live`
}
