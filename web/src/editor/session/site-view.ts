import { inTreeOrder } from '../../pages/page-order.ts'
import type { Site } from '../../api/hooks.ts'
import { createContext, useContext, useState } from 'react'
import {
  createNodeRenderer,
  drawnPage,
  navigationOf,
  pageTree,
  readOf,
  recordReads,
  themedLook,
  type Library,
  type NavigationPage,
  type NodeRenderer,
  type Parts,
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

/** What a site has besides its pages, with the documents of its parts where they are known. */
interface DrawnSite extends Library {
  readonly parts?: Parts
}

/** What pages are drawn with that they ask for by name. */
type Asked = Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'parts' | 'tree'>

/**
 * The site as pages are drawn with it. It goes on being the same for as long as all that was asked for is as it was: what
 * comes later, such as the rest of a long list of pages, is there from then on, and nothing is drawn again for it.
 */
export class Drawing {
  readonly facts: Pick<Site, 'name' | 'language' | 'liveOrigin' | 'look' | 'navigation'>
  readonly #recordings: ReturnType<typeof recordReads>[] = []
  #pages: readonly (TreePage & NavigationPage)[]
  #asked: Asked

  constructor(site: Site, pages: readonly PageSummary[]) {
    this.facts = factsOf(site)
    this.#pages = drawnPages(pages)
    this.#asked = askedOf(site, this.#pages)
  }

  /** A context for one of the pages, that remembers what it is asked for. */
  context({ id, title, theme }: CurrentPage): SiteContext {
    const { name, language, liveOrigin, look, navigation } = this.facts
    const recording = recordReads({
      site: { name, language, home: '/', origin: liveOrigin },
      look: themedLook(look, theme),
      paths: latest(() => this.#asked.paths),
      navigation: navigationOf(navigation, this.#pages, id),
      page: { id, title },
      tree: {
        find: (one) => this.#asked.tree.find(one),
        inside: (one) => this.#asked.tree.inside(one),
      },
      pictures: latest(() => this.#asked.pictures),
      files: latest(() => this.#asked.files),
      parts: latest(() => this.#asked.parts),
      fontBase: '/fonts/',
      purpose: 'canvas',
    })
    this.#recordings.push(recording)
    return recording.context
  }

  /** Takes the site as it is now. False, and nothing is taken, where something is not what was asked for. */
  takes(site: Site, pages: readonly PageSummary[]): boolean {
    const drawn = drawnPages(pages)
    const now = askedOf(site, drawn)
    const reads = new Set(this.#recordings.flatMap((recording) => recording.reads()))
    reads.delete('navigation')
    const lines = (all: readonly NavigationPage[]) => navigationOf(site.navigation, all, '')
    const isSame =
      same(factsOf(site), this.facts) &&
      same(lines(drawn), lines(this.#pages)) &&
      [...reads].every((name) => same(readOf(now, name), readOf(this.#asked, name)))
    if (!isSame) return false
    this.#pages = drawn
    this.#asked = now
    return true
  }
}

function factsOf({ name, language, liveOrigin, look, navigation }: Site): Drawing['facts'] {
  return { name, language, liveOrigin, look, navigation }
}

/** Pages that were never published are drawn as links as well, so that links can be seen to work. */
function drawnPages(pages: readonly PageSummary[]): readonly (TreePage & NavigationPage)[] {
  // Some of the pages of a large site may be there before those that they stand under.
  const ordered = inTreeOrder(pages).map(({ page }) => page)
  const reached = new Set(ordered)
  return [...ordered, ...pages.filter((page) => !reached.has(page))].map(drawnPage)
}

function askedOf({ pictures, files, parts = {} }: DrawnSite, pages: readonly TreePage[]): Asked {
  const paths = Object.fromEntries(pages.map(({ id, path }) => [id, path]))
  return { paths, tree: pageTree(pages), pictures, files, parts }
}

/** A record that is another one whenever it is asked. */
function latest<T extends object>(record: () => T): T {
  return new Proxy({} as T, {
    get: (_none, key) => Reflect.get(record(), key) as unknown,
    has: (_none, key) => Reflect.has(record(), key),
    getOwnPropertyDescriptor: (_none, key) => {
      const found = Reflect.getOwnPropertyDescriptor(record(), key)
      // What the target itself has not must be configurable (ECMAScript, "Proxy invariants").
      return found && { ...found, configurable: true }
    },
  })
}

function same(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other)
}

/** What is drawn of the site, on the screen of a page. */
export function useDrawing(site: Site, pages: readonly PageSummary[]): Drawing {
  const [given, setGiven] = useState(() => ({ site, pages, drawing: new Drawing(site, pages) }))
  if (given.site === site && given.pages === pages) return given.drawing
  const drawing = given.drawing.takes(site, pages) ? given.drawing : new Drawing(site, pages)
  setGiven({ site, pages, drawing })
  return drawing
}

interface CurrentPage {
  readonly id: string
  readonly title: string
  readonly theme: string | null
}

/** What draws a page of the site that is looked at outside of the editor. */
export function viewSite(
  site: Site,
  pages: readonly PageSummary[],
  { id, title, more }: PageSummary,
  registry: Registry,
): NodeRenderer {
  return createNodeRenderer(registry, new Drawing(site, pages).context({ id, title, theme: more.theme }))
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
