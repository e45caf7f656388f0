/** What visitors see of each document: the version of the newest release that it was part of. */
import { ReleasedEntity, ReleaseEntity } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'

export interface LiveVersion {
  readonly documentId: string
  readonly version: number
  /** When it went live. */
  readonly since: Date
}

/** SQL for the newest release of each document; `which` is a condition on the documents. */
function newest(which: string): string {
  return `SELECT rd.document_id AS documentId, rd.version, r.at AS since
    FROM released_documents rd
    JOIN releases r ON r.number = rd.release_number
    JOIN (SELECT document_id, MAX(release_number) AS newest FROM released_documents ${which} GROUP BY document_id) n
      ON n.document_id = rd.document_id AND n.newest = rd.release_number`
}

/** Returns what is live of a site, or of some of its documents, by the ids of documents. */
export async function liveVersions(
  at: SiteData,
  ids?: readonly string[],
): Promise<ReadonlyMap<string, LiveVersion>> {
  const rows = ids
    ? await at.manager.query<LiveVersion[]>(
        `${newest('WHERE document_id IN (?)')} WHERE r.site_id = ? AND rd.version IS NOT NULL`,
        [ids, at.siteId],
      )
    : await at.manager.query<LiveVersion[]>(`${newest('')} WHERE r.site_id = ? AND rd.version IS NOT NULL`, [
        at.siteId,
      ])
  return new Map(rows.map((row) => [row.documentId, row]))
}

/** SQL that is true for a document that visitors see; `id` is SQL for its id. */
export function isLive(id: string): string {
  return `(SELECT rd.version FROM released_documents rd WHERE rd.document_id = ${id}
    ORDER BY rd.release_number DESC LIMIT 1) IS NOT NULL`
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

/** Whether a document was part of any release. */
export function wasEverLive(at: SiteData, documentId: string): Promise<boolean> {
  return at.manager.existsBy(ReleasedEntity, { documentId })
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
