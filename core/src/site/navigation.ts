/** The navigation of a site, put together from what pages say of themselves and what the site says of their order. */
import type { NavigationEntry } from '../render/site-context.ts'
import { safeHref } from '../render/allow-list.ts'

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

/**
 * The lines of the navigation. First those that the site names, in its order; then every other page that is in the
 * navigation, in the order given. A page whose parent is in the navigation stands under it, unless the site names it.
 * A place on a page is a line of its own and may be named beside the page itself.
 */
export function navigationOf(
  items: readonly NavigationItem[],
  pages: readonly NavigationPage[],
  currentId: string,
): NavigationEntry[] {
  const byId = new Map(pages.map((page) => [page.id, page]))
  const named = new Set(
    items.flatMap((item) => ('page' in item && item.anchor === undefined ? item.page : [])),
  )
  const shown = (page: NavigationPage | undefined) => page?.inNavigation === true
  const entryOf = (page: NavigationPage, label = page.label): NavigationEntry => ({
    label,
    path: page.path,
    current: page.id === currentId,
    inside: pages
      .filter((one) => one.parentId === page.id && shown(one) && !named.has(one.id))
      .map((one) => entryOf(one)),
  })
  const first = items.flatMap((item): NavigationEntry[] => {
    if ('href' in item) {
      const path = safeHref(item.href)
      return path === undefined ? [] : [{ label: item.label, path, current: false, inside: [] }]
    }
    const page = byId.get(item.page)
    if (!page) return []
    if (item.anchor !== undefined) {
      const path = `${page.path}#${item.anchor}`
      return [{ label: item.label ?? page.label, path, current: false, inside: [] }]
    }
    return shown(page) ? [entryOf(page, item.label)] : []
  })
  const rest = pages.filter(
    (page) =>
      shown(page) &&
      !named.has(page.id) &&
      !shown(page.parentId === null ? undefined : byId.get(page.parentId)),
  )
  return [...first, ...rest.map((page) => entryOf(page))]
}
