/** What visitors see of each document: the version of the newest release that it was part of. */
import { BY_ID, ReleasedEntity, ReleaseEntity } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'

export interface LiveVersion {
  readonly documentId: string
  readonly version: number
  /** When it went live. */
  readonly since: Date
}

/** Returns what is live of a site, or of some of its documents, by the ids of documents. */
export async function liveVersions(
  at: SiteData,
  ids?: readonly string[],
): Promise<ReadonlyMap<string, LiveVersion>> {
  // From the documents on, in this order: beginning with the releases would read all that was ever released.
  const rows = await at.manager.query<LiveVersion[]>(
    `SELECT STRAIGHT_JOIN d.id AS documentId, rd.version, r.at AS since FROM documents d ${ids ? BY_ID : ''}
     JOIN released_documents rd ON rd.document_id = d.id AND rd.release_number =
       (SELECT MAX(n.release_number) FROM released_documents n WHERE n.document_id = d.id)
     JOIN releases r ON r.number = rd.release_number
     WHERE d.site_id = ? AND rd.version IS NOT NULL ${ids ? 'AND d.id IN (?)' : ''}`,
    [at.siteId, ids],
  )
  return new Map(rows.map((row) => [row.documentId, row]))
}

/** SQL that is true for a document that visitors see; `id` is SQL for its id. */
export function isLive(id: string): string {
  return `(${liveVersion(id)}) IS NOT NULL`
}

/** A query for the version that visitors see of a document, and for null where they see none; `id` is SQL for its id. */
export function liveVersion(id: string): string {
  return `SELECT rd.version FROM released_documents rd WHERE rd.document_id = ${id}
    ORDER BY rd.release_number DESC LIMIT 1`
}

/** Returns what is live of one document; undefined for one that visitors do not see. */
export async function liveVersionOf(at: SiteData, documentId: string): Promise<LiveVersion | undefined> {
  const [row] = await at.manager.query<(Omit<LiveVersion, 'version'> & { version: number | null })[]>(
    `SELECT rd.document_id AS documentId, rd.version, r.at AS since
     FROM released_documents rd JOIN releases r ON r.number = rd.release_number
     WHERE rd.document_id = ? AND r.site_id = ? ORDER BY rd.release_number DESC LIMIT 1`,
    [documentId, at.siteId],
  )
  return row?.version == null ? undefined : { ...row, version: row.version }
}

/** Returns those of some documents that were part of no release. */
export async function neverLiveOf(at: SiteData, ids: readonly string[]): Promise<readonly string[]> {
  if (ids.length === 0) return []
  const rows = await at.manager.query<{ id: string }[]>(
    'SELECT DISTINCT document_id AS id FROM released_documents WHERE document_id IN (?)',
    [ids],
  )
  const released = new Set(rows.map(({ id }) => id))
  return ids.filter((id) => !released.has(id))
}

interface NewRelease {
  readonly id: string
  readonly personId: string | null
  /** The version of each document that goes live with it, and null for those that are taken from visitors. */
  readonly versions: Readonly<Record<string, number | null>>
}

/** Records a release. Whatever it does not name stays as it is. */
export async function insertRelease(at: SiteData, { id, personId, versions }: NewRelease): Promise<void> {
  const { identifiers } = await at.manager.insert(ReleaseEntity, {
    id,
    siteId: at.siteId,
    personId,
    at: new Date(),
  })
  const { number: releaseNumber } = identifiers[0] as { readonly number: number }
  const rows = Object.entries(versions).map(([documentId, version]) => ({
    documentId,
    releaseNumber,
    version,
  }))
  if (rows.length > 0) await at.manager.insert(ReleasedEntity, rows)
}
