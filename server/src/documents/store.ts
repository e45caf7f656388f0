/** Documents: added, and saved version after version. */
import { changeSentences, defaultRegistry, type Look, type Page } from '@gullyline/core'
import { DocumentEntity, VersionEntity, type DocumentRow, type DocumentType } from '../db/document-rows.ts'
import { findSite } from './site-row.ts'
import { recordUses } from './uses.ts'
import { packState, type WholeState } from './states.ts'
import { noDocument, readDocument, readStored, STORED_VERSION, WITH_BASE } from './versions.ts'
import type { StoredVersion, Version } from './versions.ts'
import type { SiteData } from '../db/site-scope.ts'

/** Who saves something. */
export interface Author {
  readonly name: string
  /** Null for Gullyline itself. */
  readonly personId: string | null
}

/** What the program adds by itself. */
export const GULLYLINE: Author = { name: 'Gullyline', personId: null }

interface NewDocument {
  readonly id: string
  readonly type: DocumentType
  readonly document: Page
  readonly by: Author
}

/** Adds a document with its first version. */
export async function addDocument(at: SiteData, { id, type, document, by }: NewDocument): Promise<void> {
  await at.manager.insert(DocumentEntity, { id, siteId: at.siteId, type, version: 1, usesKnown: true })
  await insertState(at, { documentId: id, number: 1 }, { document, by, changes: [] })
  const { look } = await findSite(at)
  await recordUses(at, { documentId: id, version: 1 }, document, look as Look)
}

/** A document whose row is locked until the transaction ends: of two saves at once, the second sees what the first saved. */
export interface LockedDocument {
  readonly row: Pick<DocumentRow, 'id' | 'type' | 'version'>
  readonly newest: Version
  readonly whole: WholeState
}

/** The row of a document; refuses an id that no document of the site has. */
export async function findDocument(at: SiteData, id: string): Promise<DocumentRow> {
  const row = await at.manager.findOneBy(DocumentEntity, { id, siteId: at.siteId })
  if (!row) throw noDocument()
  return row
}

/** Locks a document and returns it with its newest version; refuses an id that no document of the site has. */
export async function lockDocument(at: SiteData, id: string): Promise<LockedDocument> {
  // With the lock its newest version is read as it is now, whatever this transaction has read before.
  const [found] = await at.manager.query<(StoredVersion & Pick<DocumentRow, 'type'>)[]>(
    `SELECT ${STORED_VERSION}, d.type FROM documents d
     JOIN versions v ON v.document_id = d.id AND v.number = d.version ${WITH_BASE}
     WHERE d.id = ? AND d.site_id = ? FOR UPDATE`,
    [id, at.siteId],
  )
  if (!found) throw noDocument()
  const { type, ...stored } = found
  const { version, whole } = await readStored(stored)
  return {
    row: { id, type, version: stored.number },
    newest: version,
    whole,
  }
}

/** What is saved as the next version of a document. */
export interface NextVersion {
  readonly document: Page
  readonly by: Author
  /** Drawn by the sender, once for each save. */
  readonly saveId?: string | undefined
}

/** Adds the next version of a document that is locked. Returns its number. */
export async function insertVersion(
  at: SiteData,
  { row, newest, whole }: LockedDocument,
  { document, by, saveId }: NextVersion,
): Promise<number> {
  const number = row.version + 1
  const look = (await findSite(at)).look as Look
  const changes = changeSentences(readDocument(newest), document, defaultRegistry, look)
  await insertState(at, { documentId: row.id, number }, { document, by, saveId, changes, whole })
  await at.manager.update(DocumentEntity, { id: row.id, siteId: at.siteId }, { version: number })
  await recordUses(at, { documentId: row.id, version: number }, document, look)
  return number
}

interface State extends NextVersion {
  readonly changes: readonly string[]
  readonly whole?: WholeState
}

async function insertState(
  at: SiteData,
  key: { readonly documentId: string; readonly number: number },
  { document, by, saveId, changes, whole }: State,
): Promise<void> {
  await at.manager.insert(VersionEntity, {
    ...key,
    ...(await packState(document, whole)),
    changes: [...changes],
    savedAt: new Date(),
    savedBy: by.name.slice(0, 100),
    personId: by.personId,
    saveId: saveId ?? null,
  })
}
