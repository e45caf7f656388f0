import { inTreeOrder } from '../../pages/page-order.ts'
import type { Site } from '../../api/hooks.ts'
import { createContext, useContext } from 'react'
import {
  createNodeRenderer,
  navigationOf,
  pageTree,
  themedLook,
  type NodeRenderer,
  type PageSummary,
  type Registry,
  type SiteContext,
} from '@gullyline/core'

/** The site around the page, ready for the renderer. */
export interface SiteView {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  /** Whether all pages and the whole library are there, and not only what the page shows. */
  readonly isWhole: boolean
  /** The page that is open. */
  readonly summary: PageSummary
  readonly renderer: NodeRenderer
}

/** The site as the editor shows it: pages that were never published are linked to as well, so that links can be seen to work. */
export function viewSite(
  site: Site,
  pages: readonly PageSummary[],
  current: PageSummary,
  registry: Registry,
): SiteView {
  const tree = inTreeOrder(pages).map(({ page }) => page)
  const labelled = tree.map((page) => ({ ...page, label: page.more.navigationLabel || page.title }))
  const context: SiteContext = {
    site: { name: site.name, language: site.language, home: '/', origin: site.liveOrigin },
    look: themedLook(site.look, current.more.theme),
    paths: Object.fromEntries(pages.map((page) => [page.id, page.path])),
    navigation: navigationOf(site.navigation, labelled, current.id),
    page: { id: current.id, title: current.title },
    tree: pageTree(tree),
    pictures: site.pictures,
    files: site.files,
    fontBase: '/fonts/',
    purpose: 'canvas',
  }
  return { site, pages, isWhole: true, summary: current, renderer: createNodeRenderer(registry, context) }
}

const SiteViewContext = createContext<SiteView | undefined>(undefined)
export const SiteViewProvider = SiteViewContext.Provider

export function useSiteView(): SiteView {
  const view = useContext(SiteViewContext)
  if (!view) throw new Error('useSiteView is used outside of the editor')
  return view
}
