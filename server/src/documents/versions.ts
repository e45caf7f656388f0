/** Versions of documents: read, listed, and added one after another. */
import { migratePage, PAGE_FORMAT, type Page, type VersionInfo } from '@gullyline/core'
import { BY_ID, DocumentEntity, VersionEntity, type VersionRow } from '../db/document-rows.ts'
import { Refused } from '../http/errors.ts'
import { unpackDelta, unpackWhole, type WholeState } from './states.ts'
import type { SiteData } from '../db/site-scope.ts'

/** A version with the document as it was saved, in whatever format that was. */
export interface Version extends Pick<
  VersionRow,
  'documentId' | 'number' | 'savedAt' | 'savedBy' | 'saveId'
> {
  readonly document: Page
}

/** A version as its row has it. */
export interface StoredVersion extends Omit<Version, 'document'> {
  readonly base: number | null
  readonly state: Buffer
  readonly baseState: Buffer | null
}

/** The columns of a `StoredVersion`, of `versions v` and of the version `b` that it is stored as a difference from. */
export const STORED_VERSION =
  'v.document_id AS documentId, v.number, v.base, v.state, v.saved_at AS savedAt, v.saved_by AS savedBy, ' +
  'v.save_id AS saveId, b.state AS baseState'
export const WITH_BASE = 'LEFT JOIN versions b ON b.document_id = v.document_id AND b.number = v.base'

/** Returns a version; refuses a number that does not exist. */
export async function findVersion(at: SiteData, documentId: string, number: number): Promise<Version> {
  const [row] = await storedVersions(at, [{ documentId, number }])
  if (!row) throw noVersion(number)
  return readVersion(row)
}

/** Returns the newest version of a document; refuses an id that no document of the site has. */
export async function findNewest(at: SiteData, documentId: string): Promise<Version> {
  const [row] = await at.manager.query<StoredVersion[]>(
    `SELECT ${STORED_VERSION} FROM documents d
     JOIN versions v ON v.document_id = d.id AND v.number = d.version ${WITH_BASE}
     WHERE d.id = ? AND d.site_id = ?`,
    [documentId, at.siteId],
  )
  if (!row) throw noDocument()
  return readVersion(row)
}

/** What lists tell of a version. */
export type VersionFacts = Pick<VersionRow, 'documentId' | 'number' | 'savedAt' | 'savedBy'>

/** Returns what lists tell of the newest version of every page of a site, or of some documents, by their ids. */
export async function newestVersions(
  at: SiteData,
  ids?: readonly string[],
): Promise<ReadonlyMap<string, VersionFacts>> {
  const rows = await at.manager.query<VersionFacts[]>(
    `SELECT v.document_id AS documentId, v.number, v.saved_at AS savedAt, v.saved_by AS savedBy
     FROM documents d ${ids ? BY_ID : ''}
     JOIN versions v ON v.document_id = d.id AND v.number = d.version
     WHERE d.site_id = ? AND ${ids ? 'd.id IN (?)' : "d.type = 'page'"}`,
    [at.siteId, ids],
  )
  return new Map(rows.map((row) => [row.documentId, row]))
}

/** So many versions are read with one query. */
const READ_AT_ONCE = 20

export interface VersionKey {
  readonly documentId: string
  readonly number: number
}

/**
 * Reads versions of several documents, and returns what `read` makes of each, by the id of its document: the versions
 * themselves are let go of. Refuses a number that does not exist.
 */
export async function findVersions<T>(
  at: SiteData,
  wanted: readonly VersionKey[],
  read: (version: Version) => T,
): Promise<Map<string, T>> {
  const found = new Map<string, T>()
  for (let from = 0; from < wanted.length; from += READ_AT_ONCE)
    for (const row of await storedVersions(at, wanted.slice(from, from + READ_AT_ONCE)))
      found.set(row.documentId, read(await readVersion(row)))
  for (const { documentId, number } of wanted) if (!found.has(documentId)) throw noVersion(number)
  return found
}

function storedVersions(at: SiteData, keys: readonly VersionKey[]): Promise<StoredVersion[]> {
  return at.manager.query<StoredVersion[]>(
    `SELECT ${STORED_VERSION} FROM versions v ${WITH_BASE}
     JOIN documents d ON d.id = v.document_id AND d.site_id = ?
     WHERE (v.document_id, v.number) IN (?)`,
    [at.siteId, keys.map(({ documentId, number }) => [documentId, number])],
  )
}

/** Unpacks a version. */
async function readVersion(stored: StoredVersion): Promise<Version> {
  return (await readStored(stored)).version
}

/** Unpacks a version, and the whole state that the next one may be stored as a difference from. */
export async function readStored({ state, baseState, base, ...version }: StoredVersion): Promise<{
  readonly version: Version
  readonly whole: WholeState
}> {
  const stored = baseState ?? state
  const whole = { number: base ?? version.number, bytes: stored.length, document: await unpackWhole(stored) }
  const document = baseState === null ? whole.document : await unpackDelta(state, whole.document)
  return { version: { ...version, document }, whole }
}

/** The document of a version, brought up to the format of today. Refuses one of a format that is not known yet. */
export function readDocument({ document }: Pick<Version, 'document'>): Page {
  const page = migratePage(document) as Page
  if (page.format === PAGE_FORMAT) return page
  throw new Refused(
    'not-valid',
    'This page was saved by a newer version of Gullyline and can’t be opened by this one. Nothing was changed; start the newer version.',
  )
}

/** So many versions are listed at once. */
const MOST_LISTED = 50

/**
 * Returns versions of a document, newest first, without what is in them: the newest 50, or those before one. Refuses an id
 * that no document of the site has.
 */
export async function listVersions(
  at: SiteData,
  documentId: string,
  before = Number.MAX_SAFE_INTEGER,
): Promise<VersionInfo[]> {
  if (!(await at.manager.existsBy(DocumentEntity, { id: documentId, siteId: at.siteId }))) throw noDocument()
  const rows = await at.manager
    .createQueryBuilder(VersionEntity, 'v')
    .select(['v.documentId', 'v.number', 'v.savedAt', 'v.savedBy', 'v.saveId', 'v.changes'])
    .where('v.document_id = :documentId AND v.number < :before', { documentId, before })
    .orderBy('v.number', 'DESC')
    .limit(MOST_LISTED)
    .getMany()
  return rows.map((row) => ({ ...versionInfo(row), changes: row.changes as readonly string[] }))
}

/** What is told of a version in answers. */
export function versionInfo({
  number,
  savedAt,
  savedBy,
  saveId,
}: Pick<VersionRow, 'number' | 'savedAt' | 'savedBy' | 'saveId'>): VersionInfo {
  return { number, savedAt: savedAt.toISOString(), savedBy, ...(saveId === null ? {} : { saveId }) }
}

/** The refusal of an id that no document has. */
export function noDocument(): Refused {
  return new Refused('not-found', 'There is no such page. It may have been deleted.')
}

function noVersion(number: number): Refused {
  return new Refused('not-found', `This page has no version ${number}.`)
}
