import { inTreeOrder } from '../../pages/page-order.ts'
import type { Site } from '../../api/hooks.ts'
import { createContext, useContext } from 'react'
import {
  createNodeRenderer,
  navigationOf,
  pageTree,
  themedLook,
  type NavigationPage,
  type NodeRenderer,
  type PageSummary,
  type Registry,
  type SiteContext,
  type TreePage,
} from '@gullyline/core'

/** The site around the page. */
export interface SiteView {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  /** Whether all pages and the whole library are there, and not only what the page shows. */
  readonly isWhole: boolean
  /** The page that is open. */
  readonly summary: PageSummary
}

/** What of a site and its pages is drawn on any of them. When a page was saved, nearly always nothing of it is another. */
export interface Drawing {
  readonly site: Pick<Site, 'name' | 'language' | 'liveOrigin' | 'look' | 'navigation' | 'pictures' | 'files'>
  /** In the order of the tree. */
  readonly pages: readonly (TreePage & NavigationPage)[]
}

/** Returns it; pages that were never published are drawn as links as well, so that links can be seen to work. */
export function drawingOf(
  { name, language, liveOrigin, look, navigation, pictures, files }: Site,
  pages: readonly PageSummary[],
): Drawing {
  return {
    site: { name, language, liveOrigin, look, navigation, pictures, files },
    pages: inTreeOrder(pages).map(({ page }) => {
      const { id, parentId, path, title, description, inNavigation, more } = page
      return { id, parentId, path, title, description, inNavigation, label: more.navigationLabel || title }
    }),
  }
}

interface DrawnPage {
  readonly id: string
  readonly title: string
  readonly theme: string | null
}

/** What draws one page of the site. */
export function rendererOf(
  { site, pages }: Drawing,
  { id, title, theme }: DrawnPage,
  registry: Registry,
): NodeRenderer {
  const context: SiteContext = {
    site: { name: site.name, language: site.language, home: '/', origin: site.liveOrigin },
    look: themedLook(site.look, theme),
    paths: Object.fromEntries(pages.map((page) => [page.id, page.path])),
    navigation: navigationOf(site.navigation, pages, id),
    page: { id, title },
    tree: pageTree(pages),
    pictures: site.pictures,
    files: site.files,
    fontBase: '/fonts/',
    purpose: 'canvas',
  }
  return createNodeRenderer(registry, context)
}

/** What draws a page of the site that is looked at outside of the editor. */
export function viewSite(
  site: Site,
  pages: readonly PageSummary[],
  { id, title, more }: PageSummary,
  registry: Registry,
): NodeRenderer {
  return rendererOf(drawingOf(site, pages), { id, title, theme: more.theme }, registry)
}

const SiteViewContext = createContext<SiteView | undefined>(undefined)
export const SiteViewProvider = SiteViewContext.Provider

export function useSiteView(): SiteView {
  const view = useContext(SiteViewContext)
  if (!view) throw new Error('useSiteView is used outside of the editor')
  return view
}

const RendererContext = createContext<NodeRenderer | undefined>(undefined)
export const RendererProvider = RendererContext.Provider

/** What draws the page: another one only when something is that the page may show. */
export function useRenderer(): NodeRenderer {
  const renderer = useContext(RendererContext)
  if (!renderer) throw new Error('useRenderer is used outside of the editor')
  return renderer
}
