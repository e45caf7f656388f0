/** What the newest and the live version of each document refer to. */
import {
  defaultRegistry,
  documentUses,
  VARIANT_KEY,
  type Look,
  type Page,
  type UsedThing,
} from '@gullyline/core'
import { DocumentEntity } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { liveVersionOf } from './live.ts'
import { documentsOf, newestParts } from './part-versions.ts'
import { findSite } from './site-row.ts'
import { findVersion, readDocument } from './versions.ts'

interface Key {
  readonly documentId: string
  readonly version: number
}

/** Records what a fresh version refers to, and forgets it of versions that are neither the newest nor live any more. */
export async function recordUses(at: SiteData, key: Key, document: Page, look: Look): Promise<void> {
  await insertUses(at, key, document, look)
  const live = await liveVersionOf(at, key.documentId)
  await forgetOld(at, key.documentId, live?.version ?? null)
}

/** The same for a version that went live, of which it may be known already; null for a document that was taken from visitors. */
export async function recordLiveUses(
  at: SiteData,
  { documentId, version }: { readonly documentId: string; readonly version: number | null },
): Promise<void> {
  if (version !== null) await recordOnce(at, { documentId, version })
  await forgetOld(at, documentId, version)
}

async function recordOnce(at: SiteData, { documentId, version }: Key): Promise<void> {
  const [known] = await at.manager.query<unknown[]>(
    'SELECT 1 FROM documents WHERE id = ? AND site_id = ? AND version = ? AND uses_known',
    [documentId, at.siteId, version],
  )
  if (known !== undefined) return
  const { look } = await findSite(at)
  await insertUsesAgain(at, { documentId, version }, look as Look)
}

/** Records what a version refers to that may be recorded already. */
async function insertUsesAgain(at: SiteData, key: Key, look: Look): Promise<void> {
  const { documentId, version } = key
  const document = readDocument(await findVersion(at, documentId, version))
  await at.manager.query('DELETE FROM uses WHERE document_id = ? AND version = ?', [documentId, version])
  await insertUses(at, key, document, look)
}

async function insertUses(
  at: SiteData,
  { documentId, version }: Key,
  document: Page,
  look: Look,
): Promise<void> {
  // What instances fill in is shown by the blocks of their parts.
  const isFilledIn = Object.values(document.nodes).some(
    ({ values, content }) => values ?? content[VARIANT_KEY],
  )
  const parts = isFilledIn ? documentsOf(await newestParts(at, document)) : {}
  const rows = documentUses(document, defaultRegistry, look, parts)
    // What no id can be is no reference to anything.
    .filter(({ id }) => id.length <= 24)
    .map(({ thing, id, count }) => [documentId, version, thing, id, count])
  if (rows.length > 0)
    await at.manager.query('INSERT INTO uses (document_id, version, thing, target, count) VALUES ?', [rows])
}

async function forgetOld(at: SiteData, documentId: string, live: number | null): Promise<void> {
  await at.manager.query(
    `DELETE u FROM uses u JOIN documents d ON d.id = u.document_id
     WHERE u.document_id = ? AND u.version <> d.version AND u.version <> ?`,
    [documentId, live ?? 0],
  )
}

/** Records what documents refer to that were saved before it was recorded. */
export async function recordMissingUses(at: SiteData): Promise<void> {
  const rows = await at.manager.findBy(DocumentEntity, { siteId: at.siteId, usesKnown: false })
  if (rows.length === 0) return
  const { look } = await findSite(at)
  for (const { id: documentId, version } of rows) {
    const live = await liveVersionOf(at, documentId)
    for (const number of new Set([version, live?.version ?? version]))
      await insertUsesAgain(at, { documentId, version: number }, look as Look)
    await at.manager.update(DocumentEntity, { id: documentId, siteId: at.siteId }, { usesKnown: true })
  }
}

/** Returns what the newest versions of documents refer to. */
export function thingsUsedBy(
  at: SiteData,
  documentIds: readonly string[],
): Promise<{ readonly thing: UsedThing; readonly target: string }[]> {
  return at.manager.query(
    `SELECT DISTINCT u.thing, u.target FROM uses u
     JOIN documents d ON d.id = u.document_id AND d.version = u.version
     WHERE d.id IN (?) AND d.site_id = ?`,
    [documentIds, at.siteId],
  )
}

/** A document whose newest version refers to something. */
export interface UsingDocument {
  readonly id: string
  readonly type: string
  readonly count: number
}

/** Returns the documents whose newest version refers to something. */
export function usesOf(at: SiteData, thing: UsedThing, target: string): Promise<UsingDocument[]> {
  return at.manager.query<UsingDocument[]>(
    `SELECT d.id, d.type, u.count FROM uses u
     JOIN documents d ON d.id = u.document_id AND d.version = u.version
     WHERE u.thing = ? AND u.target = ? AND d.site_id = ?`,
    [thing, target, at.siteId],
  )
}
