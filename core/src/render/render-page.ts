import type { Registry } from '../blocks/registry.ts'
import { getNode, type Page } from '../page/page.ts'
import { el, SLOT_TAG, type Element, type ElementContent } from '../kit/element.ts'
import { behaviours } from '../../generated/behaviours.js'
import { layoutOf } from '../site/layouts.ts'
import type { NodeRenderer, RenderedNode } from './render-node.ts'
import { fontPath, uprightFonts } from './look-css.ts'
import { serializeHtml, wholeHtml } from './serialize-html.ts'
import type { SiteContext } from '../kit/site-context.ts'
import { expandParts, type ShownId } from '../resolve/expand.ts'
import { resolve, type ResolveOptions } from '../resolve/resolve.ts'
import { renderStylesheet, type Stylesheet, type UsedNames } from './stylesheet.ts'
import { TreeHtml, type WrittenNode } from './tree-html.ts'

/** A page and what its site puts around it. */
export interface PageParts {
  readonly page: Page
  readonly header?: Page
  readonly footer?: Page
  readonly title: string
  readonly description: string
  /** False keeps search engines from listing the page. */
  readonly isListed?: boolean
  /** Its address; absent for a page that has none of its own. */
  readonly path?: string
  /** The id of a picture to show where the page is shared. */
  readonly sharePicture?: string | null
}

/** Where a document finds its stylesheet, and the hash it must have (Subresource Integrity, section 3.5). */
export interface StylesheetLink {
  readonly href: string
  readonly integrity?: string
}

/** A page ready to be written to files. */
export interface RenderedPage {
  /** The whole document. */
  readonly html: string
  readonly css: string
  /** The script that its blocks need; empty for nearly all pages. */
  readonly script: string
}

/** A tree of nodes as one element, and every node that went into it. */
export interface RenderedTree {
  readonly element: Element
  readonly nodes: readonly RenderedNode[]
}

/** Renders all that is shown of a page into one hast element. The same page and site always give the same tree. */
export function renderTree(page: Page, renderer: NodeRenderer): RenderedTree {
  const nodes: RenderedNode[] = []
  const { registry, context } = renderer
  const expanded = expandParts(page, registry, context.parts)
  const resolved = resolve(
    { page: expanded },
    { registry, look: context.look, audience: audienceOf(context) },
  )
  const build = (id: ShownId): Element => {
    const shown = resolved.get(id)!
    const rendered = renderer.render(shown)
    nodes.push(rendered)
    const fill = (element: Element): Element => ({
      ...element,
      children: element.children.flatMap((child): ElementContent[] => {
        if (child.type !== 'element') return [child]
        if (child.tagName !== SLOT_TAG) return [fill(child)]
        return (shown.slots[String(child.properties.name)] ?? []).map(build)
      }),
    })
    return fill(rendered.element)
  }
  return { element: build(resolved.root), nodes }
}

function audienceOf({ purpose }: SiteContext): ResolveOptions['audience'] {
  return purpose === 'canvas' ? 'editor' : 'visitor'
}

/**
 * Renders a page with its site's header and footer to a document and a stylesheet. `stylesheet` says, given the
 * stylesheet, how the document finds it; with `inline` the document holds it, for previews.
 */
export function renderPage(
  parts: PageParts,
  registry: Registry,
  context: SiteContext,
  stylesheet: StylesheetPlace,
): RenderedPage {
  return createPageRenderer(registry, context)(parts, stylesheet)
}

/** How a document finds its stylesheet and, where it has one, its script; `inline` holds the first and leaves the second away. */
export type StylesheetPlace = ((content: string, type: 'css' | 'js') => StylesheetLink) | 'inline'

/** Renders one page again and again as it is edited, each time only what changed; gives what `renderPage` would. */
export function createPageRenderer(
  registry: Registry,
  context: SiteContext,
): (parts: PageParts, stylesheet: StylesheetPlace) => RenderedPage {
  const audience = audienceOf(context)
  const trees = [0, 1, 2].map(() => new TreeHtml(registry, context, { audience }))
  const filesOf = keptFiles(registry, context)
  const startOf = keptStart(context)
  return (parts, stylesheet) => {
    const { header, page, footer } = parts
    const isBare = layoutOf(getNode(page, page.root).content).header === 'bare'
    const documents = [header && { page: header, isBare }, { page }, footer && { page: footer }]
    const used = trees.filter((tree, i) => {
      const document = documents[i]
      if (document) tree.update(document)
      return document !== undefined
    })
    const files = filesOf(used)
    const start = startOf(parts, files, stylesheet)
    const html = [start, SKIP_HTML, ...used.flatMap((tree) => tree.strings()), '</body></html>\n'].join('')
    return { html, css: files.css, script: files.script }
  }
}

/** Everything before the body's content, kept while it stays the same. */
function keptStart(
  context: SiteContext,
): (parts: PageParts, files: PageFiles, stylesheet: StylesheetPlace) => string {
  let known: readonly unknown[] = []
  let start = ''
  return (parts, files, stylesheet) => {
    const { title, description, isListed, path, sharePicture } = parts
    const now = [title, description, isListed, path, sharePicture, files.css, stylesheet, files.script]
    if (now.every((value, i) => value === known[i])) return start
    known = now
    const fonts = stylesheet === 'inline' ? [] : fontElements(context)
    const head = wholeHtml(headElement(parts, context, [...fonts, ...filesElements(files, stylesheet)]))
    const language = wholeHtml(el('html', { lang: context.site.language })).replace('</html>', '')
    start = `<!DOCTYPE html>${language}${head}<body>`
    return start
  }
}

const SKIP = el('a', { className: ['skip'], href: '#content' }, 'Skip to the content')
const SKIP_HTML = wholeHtml(SKIP)

interface PageFiles extends Pick<RenderedPage, 'css' | 'script'> {
  /** `css` in its parts. */
  readonly sheet: Stylesheet
}

/** The stylesheet and the script of trees, kept for as long as they use the same names and rules. */
function keptFiles(registry: Registry, context: SiteContext): (trees: readonly TreeHtml[]) => PageFiles {
  let key: string | undefined
  let known: PageFiles = { sheet: { fonts: '', rules: '' }, css: '', script: '' }
  return (trees) => {
    const now = trees.map((tree) => `${trees.length} ${tree.id} ${tree.styleState}`).join()
    if (now === key) return known
    key = now
    const nodes = trees.flatMap((tree) => tree.written())
    const sheet = renderStylesheet(registry, context, nodes, usedNames(nodes))
    known = { sheet, css: sheet.fonts + sheet.rules, script: scriptFor(nodes) }
    return known
  }
}

function headElement(parts: PageParts, context: SiteContext, files: readonly Element[]): Element {
  const title = parts.title === context.site.name ? parts.title : `${parts.title} · ${context.site.name}`
  return el(
    'head',
    {},
    el('meta', { charSet: 'utf-8' }),
    el('meta', { name: 'viewport', content: 'width=device-width, initial-scale=1' }),
    el('title', {}, title),
    parts.description !== '' && el('meta', { name: 'description', content: parts.description }),
    parts.isListed === false && el('meta', { name: 'robots', content: 'noindex' }),
    addressElements(parts, context),
    sharingElements(parts, context),
    (context.site.icons ?? []).map(({ rel, ...icon }) => el('link', { rel: [rel], ...icon })),
    files,
  )
}

/** Fonts that nearly every page shows, asked for with the page and not once its stylesheet was read. */
function fontElements(context: SiteContext): Element[] {
  return uprightFonts(context.look).map((file) =>
    el('link', {
      rel: ['preload'],
      as: 'font',
      type: 'font/woff2',
      crossOrigin: 'anonymous',
      href: fontPath(file, context),
    }),
  )
}

/** The one address of the page, whatever others it can be reached by (RFC 6596, "canonical"). */
function addressElements({ path }: PageParts, { site }: SiteContext): Element[] {
  const address = path === undefined ? undefined : wholeAddress(path, site)
  return address === undefined ? [] : [el('link', { rel: ['canonical'], href: address })]
}

function wholeAddress(path: string, { origin }: SiteContext['site']): string | undefined {
  return origin === undefined ? undefined : origin + encodeURI(path)
}

/** What others show of the page where it is shared (the Open Graph protocol, ogp.me); nothing where it has no address. */
function sharingElements(
  { title, description, path, sharePicture }: PageParts,
  context: SiteContext,
): Element[] {
  const { site, pictures } = context
  const address = path === undefined ? undefined : wholeAddress(path, site)
  if (address === undefined) return []
  const chosen = sharePicture ?? site.sharePicture
  const picture = chosen && Object.hasOwn(pictures, chosen) ? pictures[chosen] : undefined
  return [
    ['og:type', 'website'],
    ['og:site_name', site.name],
    ['og:title', title],
    ...(description === '' ? [] : [['og:description', description]]),
    ['og:url', address],
    ...(picture
      ? [
          ['og:image', (site.origin ?? '') + picture.fallback],
          ['og:image:alt', picture.alt],
        ]
      : []),
  ].map(([property, content]) => el('meta', { property, content }))
}

function filesElements({ sheet, css, script }: PageFiles, link: StylesheetPlace): Element[] {
  if (link === 'inline') return [el('style', {}, sheet.fonts), el('style', {}, sheet.rules)]
  const { href, ...more } = link(css, 'css')
  const style = el('link', { rel: ['stylesheet'], href, ...more })
  if (script === '') return [style]
  const { href: src, ...rest } = link(script, 'js')
  return [style, el('script', { src, defer: true, ...rest })]
}

/** The scripts that blocks on the page ask for, each once, always in the same order. */
function scriptFor(nodes: readonly WrittenNode[]): string {
  const names = new Set<string>()
  for (const { behaviour } of nodes) if (behaviour !== undefined) names.add(behaviour)
  return [...names]
    .sort()
    .map((name) => behaviours[name] ?? '')
    .join('')
}

/** Every tag and class of a document with these nodes. */
function usedNames(nodes: readonly WrittenNode[]): UsedNames {
  const names = new Set(['html', 'body', ...serializeHtml(SKIP).names])
  for (const node of nodes) for (const name of node.html.names) names.add(name)
  return names
}
