/** The documents that are edited together on one screen: a page, and what it shares with others. */
import {
  isFrameName,
  joinSession,
  screenRegistry,
  sessionRegistry,
  type FrameName,
  type LinkedPart,
  type Page,
  type SessionPart,
  type SharedVersions,
  type SiteInfo,
} from '@gullyline/core'
import { newId } from './new-id.ts'
import { inSite } from '../../api/site-address.ts'

/** The registry that pages are edited with; see `sessionRegistry`. */
export const editorRegistry = sessionRegistry(screenRegistry)

/** The ids of a page and of what stands on every page. */
export type SessionDocuments = Readonly<Record<'page' | FrameName, string>>

/** The id of one of the documents that are edited together. Parts are called by theirs. */
export function documentIn(documents: SessionDocuments, part: SessionPart): string {
  return part === 'page' || isFrameName(part) ? documents[part] : part
}

/** Parts that pages show, by their ids. */
export type LinkedParts = Readonly<Record<string, LinkedPart>>

/** The documents that are edited with a page. */
export function sessionDocuments(pageId: string, { shared }: SiteInfo): SessionDocuments {
  return { page: pageId, header: shared.header.id, footer: shared.footer.id }
}

/** A page with the site's header and footer, and the parts that they show, joined to it, all as they were saved last. */
export function openSession(page: Page, site: SiteInfo, parts: LinkedParts): Page {
  const documents = Object.entries(parts).map(([id, { document }]) => [id, document] as const)
  const { header, footer } = site
  return joinSession({ page, header, footer, parts: Object.fromEntries(documents) }, newId)
}

/** The versions of what the page shares with others. */
export function sharedVersions({ shared }: SiteInfo, parts: LinkedParts): SharedVersions {
  const versions = Object.entries(parts).map(([id, { version }]) => [id, version] as const)
  return { header: shared.header.version, footer: shared.footer.version, ...Object.fromEntries(versions) }
}

/** Where a version of a document is to be had. */
export function versionPath(documentId: string, number: number): string {
  return inSite(`/documents/${encodeURIComponent(documentId)}/versions/${number}`)
}
