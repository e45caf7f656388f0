/** The documents that are edited together on one screen: a page, and what it shares with others. */
import {
  joinSession,
  screenRegistry,
  sessionRegistry,
  type Page,
  type SessionPart,
  type SharedVersions,
  type SiteInfo,
} from '@gullyline/core'
import { newId } from './new-id.ts'
import { inSite } from '../../api/site-address.ts'

/** The registry that pages are edited with; see `sessionRegistry`. */
export const editorRegistry = sessionRegistry(screenRegistry)

/** The ids of the documents that are edited together. */
export type SessionDocuments = Readonly<Record<SessionPart, string>>

/** The documents that are edited with a page. */
export function sessionDocuments(pageId: string, { shared }: SiteInfo): SessionDocuments {
  return { page: pageId, header: shared.header.id, footer: shared.footer.id }
}

/** A page with the site's header and footer joined to it, all as they were saved last. */
export function openSession(page: Page, site: SiteInfo): Page {
  return joinSession({ page, header: site.header, footer: site.footer }, newId)
}

/** The versions of what the site shares between pages. */
export function sharedVersions({ shared }: SiteInfo): SharedVersions {
  return { header: shared.header.version, footer: shared.footer.version }
}

/** Where a version of a document is to be had. */
export function versionPath(documentId: string, number: number): string {
  return inSite(`/documents/${encodeURIComponent(documentId)}/versions/${number}`)
}
