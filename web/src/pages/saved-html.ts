import {
  renderPage,
  screenRegistry,
  type OpenedPage,
  type PageSummary,
  type SiteContext,
} from '@gullyline/core'
import type { Site } from '../api/hooks.ts'
import { viewSite } from '../editor/session/site-view.ts'

/** A page of the list as it was last saved, with all that it is drawn with. */
export interface SavedPage {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly page: PageSummary
  readonly opened: OpenedPage
}

/** What the page is drawn with, as for visitors. */
export function savedContext({ site, pages, page, opened }: SavedPage): SiteContext {
  const shown = Object.entries(opened.around.parts).map(([id, { document }]) => [id, document] as const)
  const withParts = { ...site, parts: Object.fromEntries(shown) }
  const { context } = viewSite(withParts, pages, page, screenRegistry)
  return { ...context, purpose: 'publish' }
}

/** The page as visitors would get it, with its styles. */
export function savedHtml(saved: SavedPage): string {
  const { site, page, opened } = saved
  const parts = {
    page: opened.document,
    header: site.header,
    footer: site.footer,
    title: page.title,
    description: page.description,
  }
  return renderPage(parts, screenRegistry, savedContext(saved), 'inline').html
}
