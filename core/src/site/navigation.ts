/** The navigation of a site, put together from what pages say of themselves and what the site says of their order. */
import type { NavigationEntry } from '../kit/site-context.ts'
import { safeHref } from '../kit/allow-list.ts'

/** A line of the navigation as a site keeps it: a page, at its place in the order, or an address with words of its own. */
export type NavigationItem =
  | { readonly page: string; readonly anchor?: string; readonly label?: string }
  | { readonly href: string; readonly label: string }

/** What the navigation needs to know of a page. */
export interface NavigationPage {
  readonly id: string
  readonly parentId: string | null
  /** Its text in the navigation. */
  readonly label: string
  readonly path: string
  readonly inNavigation: boolean
}

/** A line as it is on every page: which of them it leads to is marked by `withCurrent`. */
export interface NavigationLine {
  readonly label: string
  readonly path: string
  /** The page that it is the line of; none for addresses and for places on a page. */
  readonly page?: string
  readonly inside: readonly NavigationLine[]
}

/** The most that a site's `navigationLimit` can be: more than anybody reads in a menu. */
export const MOST_NAVIGATION = 500

/** The lines of the navigation as a page shows them. Refer to `navigationLines`. */
export function navigationOf(
  items: readonly NavigationItem[],
  pages: readonly NavigationPage[],
  currentId: string,
): NavigationEntry[] {
  return withCurrent(navigationLines(items, pages), currentId)
}

/** The same lines on one page, which is marked. */
export function withCurrent(lines: readonly NavigationLine[], currentId: string): NavigationEntry[] {
  return lines.map(({ label, path, page, inside }) => ({
    label,
    path,
    current: page === currentId,
    inside: withCurrent(inside, currentId),
  }))
}

/**
 * The lines of the navigation. First those that the site names, in its order; then every other page that is in the
 * navigation, in the order given. A page whose parent is in the navigation stands under it, unless the site names it.
 * A place on a page is a line of its own and may be named beside the page itself.
 */
export function navigationLines(
  items: readonly NavigationItem[],
  pages: readonly NavigationPage[],
): NavigationLine[] {
  const byId = new Map(pages.map((page) => [page.id, page]))
  const named = new Set(
    items.flatMap((item) => ('page' in item && item.anchor === undefined ? item.page : [])),
  )
  const shown = (page: NavigationPage | undefined) => page?.inNavigation === true
  const isUnder = (page: NavigationPage) =>
    shown(page) && !named.has(page.id) && page.parentId !== null && shown(byId.get(page.parentId))
  const below = new Map<string | null, NavigationPage[]>()
  for (const page of pages.filter(isUnder)) {
    const others = below.get(page.parentId)
    if (others) others.push(page)
    else below.set(page.parentId, [page])
  }
  const lineOf = (page: NavigationPage, label = page.label): NavigationLine => ({
    label,
    path: page.path,
    page: page.id,
    inside: (below.get(page.id) ?? []).map((one) => lineOf(one)),
  })
  const first = items.flatMap((item): NavigationLine[] => {
    if ('href' in item) {
      const path = safeHref(item.href)
      return path === undefined ? [] : [{ label: item.label, path, inside: [] }]
    }
    const page = byId.get(item.page)
    if (!page) return []
    if (item.anchor !== undefined) {
      const path = `${page.path}#${item.anchor}`
      return [{ label: item.label ?? page.label, path, inside: [] }]
    }
    return shown(page) ? [lineOf(page, item.label)] : []
  })
  const rest = pages.filter((page) => shown(page) && !named.has(page.id) && !isUnder(page))
  return [...first, ...rest.map((page) => lineOf(page))]
}
