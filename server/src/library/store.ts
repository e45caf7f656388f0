/** Parts that are used again on pages: patterns that people save. What is in one is a document with versions. */
import { QueryFailedError } from 'typeorm'
import {
  defaultRegistry,
  textOf,
  validatePage,
  type NewPartRequest,
  type PartFacts,
  type PartRequest,
  type SavedPart,
} from '@gullyline/core'
import { PartEntity, type PartRow } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { addDocument, type Author } from '../documents/store.ts'
import { findVersions, newestVersions, readDocument, type Version } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { refuseStale } from '../http/refuse-stale.ts'

/** All parts of a site by their names, those in the bin last. */
export async function listParts(at: SiteData): Promise<SavedPart[]> {
  const rows = await at.manager.find(PartEntity, { where: { siteId: at.siteId }, order: { name: 'ASC' } })
  return describe(
    at,
    rows.toSorted((a, b) => Number(a.binnedAt !== null) - Number(b.binnedAt !== null)),
  )
}

/** One part. */
export async function findPart(at: SiteData, id: string): Promise<SavedPart> {
  const [part] = await describe(at, [await partRow(at, id)])
  return part!
}

async function describe(at: SiteData, rows: readonly PartRow[]): Promise<SavedPart[]> {
  const ids = rows.map(({ id }) => id)
  if (ids.length === 0) return []
  const newest = await newestVersions(at, ids)
  const wanted = ids.map((documentId) => ({ documentId, number: newest.get(documentId)!.number }))
  const versions = await findVersions(at, wanted, (version) => version)
  return rows.map((row) => toPart(row, versions.get(row.id)!))
}

function toPart({ id, name, purpose, about, binnedAt }: PartRow, version: Version): SavedPart {
  const document = readDocument(version)
  return {
    id,
    name,
    purpose,
    about,
    document,
    words: textOf(document, defaultRegistry),
    savedAt: version.savedAt.toISOString(),
    savedBy: version.savedBy,
    binnedAt: binnedAt?.toISOString() ?? null,
  }
}

/** Adds a pattern, and gives its id. Refuses a name that another part has, and what can't be a pattern. */
export async function addPattern(
  at: SiteData,
  { document, ...facts }: NewPartRequest,
  by: Author,
): Promise<string> {
  const problems = validatePage(document, defaultRegistry, 'pattern')
  const isEmpty = problems.length === 0 && document.nodes[document.root]!.slots.blocks?.length === 0
  if (problems.length > 0 || isEmpty)
    throw new Refused('not-valid', 'These blocks can’t be saved as a pattern. Nothing was saved.', {
      problems,
    })
  const id = newId()
  const named = checked(facts)
  await addDocument(at, { id, type: 'pattern', document, by })
  await unique(named.name, () =>
    at.manager.insert(PartEntity, { id, siteId: at.siteId, ...named, taken: named.name, binnedAt: null }),
  )
  return id
}

/** Changes name, purpose or description of a part; fields that are left out stay. Throws `Refused` if a field is not as the sender saw it. */
export async function changePart(at: SiteData, id: string, { was, ...wanted }: PartRequest): Promise<void> {
  const { name, purpose, about, binnedAt } = await partRow(at, id)
  if (binnedAt !== null) throw notThere()
  const now = { name, purpose, about }
  refuseStale({ now: { ...now }, was: { ...was }, wanted, by: 'Someone else' })
  const next = checked({ ...now, ...wanted })
  await unique(next.name, () =>
    at.manager.update(PartEntity, { id, siteId: at.siteId }, { ...next, taken: next.name }),
  )
}

/** Takes a part from the shelf; it stays in the bin, and copies of it on pages stay as they are. */
export async function binPart(at: SiteData, id: string): Promise<void> {
  if ((await partRow(at, id)).binnedAt !== null) throw notThere()
  await at.manager.update(PartEntity, { id, siteId: at.siteId }, { binnedAt: new Date(), taken: null })
}

/** Offers a part again. Refuses it where another one has its name by now. */
export async function restorePart(at: SiteData, id: string): Promise<void> {
  const { name, binnedAt } = await partRow(at, id)
  if (binnedAt === null) throw new Refused('not-found', 'This pattern was not deleted. Nothing was changed.')
  await unique(name, () =>
    at.manager.update(PartEntity, { id, siteId: at.siteId }, { binnedAt: null, taken: name }),
  )
}

async function partRow(at: SiteData, id: string): Promise<PartRow> {
  const row = await at.manager.findOneBy(PartEntity, { id, siteId: at.siteId })
  if (!row) throw notThere()
  return row
}

function notThere(): Refused {
  return new Refused('not-found', 'There is no such pattern. It may have been deleted.')
}

function checked<T extends PartFacts>(facts: T): T {
  const oneLine = (words: string): string => words.replace(/\s+/g, ' ').trim()
  return { ...facts, name: oneLine(facts.name), about: oneLine(facts.about) }
}

/** Of two who want one name at once, the key of the table tells the second. */
const DUPLICATE = 'ER_DUP_ENTRY'

async function unique(name: string, write: () => Promise<unknown>): Promise<void> {
  try {
    await write()
  } catch (error) {
    const isTaken =
      error instanceof QueryFailedError && (error.driverError as { code?: string }).code === DUPLICATE
    if (!isTaken) throw error
    throw new Refused(
      'name-taken',
      `There is a pattern named “${name}” already. Nothing was changed; choose another name.`,
      { problems: [{ pointer: '/name', message: 'is the name of another pattern' }] },
    )
  }
}
