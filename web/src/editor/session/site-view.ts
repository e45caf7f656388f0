import { inTreeOrder } from '../../pages/page-order.ts'
import type { Site } from '../../api/hooks.ts'
import { createContext, useContext, useState } from 'react'
import {
  createNodeRenderer,
  navigationOf,
  pageTree,
  themedLook,
  type Library,
  type NavigationEntry,
  type NavigationPage,
  type NodeRenderer,
  type PageSummary,
  type Picture,
  type Registry,
  type SiteContext,
  type SiteFile,
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

/** A page as others speak of it. */
type DrawnPage = TreePage & NavigationPage

/**
 * What of a site and its pages is drawn on any of them. It goes on being the same for as long as what was there is as it
 * was: what comes later, such as the rest of a long list of pages, is added to it, and nothing is drawn again for it.
 */
export class Drawing {
  readonly facts: Pick<Site, 'name' | 'language' | 'liveOrigin' | 'look' | 'navigation'>
  readonly paths: Record<string, string> = {}
  readonly pictures: Record<string, Picture> = {}
  readonly files: Record<string, SiteFile> = {}
  readonly tree: SiteContext['tree'] = {
    find: (id) => this.#tree.find(id),
    inside: (id) => this.#tree.inside(id),
  }
  #pages: readonly DrawnPage[] = []
  #tree = pageTree([])

  /** Pages that were never published are drawn as links as well, so that links can be seen to work. */
  constructor(site: Site, pages: readonly PageSummary[]) {
    this.facts = factsOf(site)
    this.#add(site, drawnPages(pages))
  }

  /** The lines of the navigation, on one of the pages. */
  navigation(id: string): NavigationEntry[] {
    return navigationOf(this.facts.navigation, this.#pages, id)
  }

  /** Adds what is new. False, and nothing is added, where something is not what it was. */
  takes(site: Site, pages: readonly PageSummary[]): boolean {
    const drawn = drawnPages(pages)
    const known = new Set(this.#pages.map(({ id }) => id))
    const isSame =
      same(factsOf(site), this.facts) &&
      same(
        drawn.filter(({ id }) => known.has(id)),
        this.#pages,
      ) &&
      same(navigationOf(site.navigation, drawn, ''), this.navigation('')) &&
      isPartOf(this.pictures, site.pictures) &&
      isPartOf(this.files, site.files)
    if (isSame) this.#add(site, drawn)
    return isSame
  }

  #add({ pictures, files }: Library, pages: readonly DrawnPage[]): void {
    Object.assign(this.pictures, pictures)
    Object.assign(this.files, files)
    for (const { id, path } of pages) this.paths[id] = path
    this.#pages = pages
    this.#tree = pageTree(pages)
  }
}

function factsOf({ name, language, liveOrigin, look, navigation }: Site): Drawing['facts'] {
  return { name, language, liveOrigin, look, navigation }
}

function drawnPages(pages: readonly PageSummary[]): DrawnPage[] {
  return inTreeOrder(pages).map(({ page }) => {
    const { id, parentId, path, title, description, inNavigation, more } = page
    return { id, parentId, path, title, description, inNavigation, label: more.navigationLabel || title }
  })
}

function same(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other)
}

function isPartOf(known: Readonly<Record<string, unknown>>, all: Readonly<Record<string, unknown>>): boolean {
  return Object.entries(known).every(([id, value]) => value === all[id] || same(value, all[id]))
}

/** What is drawn of the site, on the screen of a page. */
export function useDrawing(site: Site, pages: readonly PageSummary[]): Drawing {
  const [given, setGiven] = useState(() => ({ site, pages, drawing: new Drawing(site, pages) }))
  if (given.site === site && given.pages === pages) return given.drawing
  const drawing = given.drawing.takes(site, pages) ? given.drawing : new Drawing(site, pages)
  setGiven({ site, pages, drawing })
  return drawing
}

/** What draws one page of the site. */
export function rendererOf(
  drawing: Drawing,
  { id, title, theme }: { readonly id: string; readonly title: string; readonly theme: string | null },
  registry: Registry,
): NodeRenderer {
  const { facts, paths, tree, pictures, files } = drawing
  const context: SiteContext = {
    site: { name: facts.name, language: facts.language, home: '/', origin: facts.liveOrigin },
    look: themedLook(facts.look, theme),
    paths,
    navigation: drawing.navigation(id),
    page: { id, title },
    tree,
    pictures,
    files,
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
  return rendererOf(new Drawing(site, pages), { id, title, theme: more.theme }, registry)
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
