/** Parts that are used again: patterns, shared sections and page templates. What is in one is a document with versions. */
import { In } from 'typeorm'
import {
  canStandFor,
  childIds,
  defaultRegistry,
  PART_ROOTS,
  textOf,
  validatePage,
  withCopies,
  withOtherPart,
  withRootId,
  type NewPartRequest,
  type Page,
  type PartFacts,
  type PartRequest,
  type PartType,
  type PartVersion,
  type ReplacePartRequest,
  type SavedPart,
  type SaveTemplateRequest,
} from '@gullyline/core'
import { isDuplicate } from '../db/is-duplicate.ts'
import { DocumentEntity, PartEntity, type PartRow } from '../db/document-rows.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'
import { documentsShowing, reachOf } from '../documents/linked-parts.ts'
import { liveVersions } from '../documents/live.ts'
import { lockSite } from '../documents/site-row.ts'
import { addDocument, findDocument, insertVersion, lockDocument, type Author } from '../documents/store.ts'
import { findNewest, findVersion, findVersions, readDocument, versionInfo } from '../documents/versions.ts'
import { refuseRing } from '../pages/rings.ts'
import { insertPageVersion } from '../pages/store.ts'
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
  const documents = await at.manager.findBy(DocumentEntity, { id: In(ids), siteId: at.siteId })
  const typeOf = new Map(documents.map(({ id, type }) => [id, type as PartType]))
  const wanted = documents.map(({ id, version }) => ({ documentId: id, number: version }))
  const versions = await findVersions(at, wanted, (version) => version)
  const live = await liveVersions(at, ids)
  const reach = await reachOf(at, ids)
  return rows.map(({ id, name, purpose, about, binnedAt }) => {
    const version = versions.get(id)!
    const document = readDocument(version)
    return {
      id,
      type: typeOf.get(id)!,
      name,
      purpose,
      about,
      document,
      words: textOf(document, defaultRegistry),
      version: version.number,
      liveVersion: live.get(id)?.version ?? null,
      reach: reach.get(id)!,
      savedAt: version.savedAt.toISOString(),
      savedBy: version.savedBy,
      binnedAt: binnedAt?.toISOString() ?? null,
    }
  })
}

/** Adds a part, and gives its id. Refuses a name that another part has, and what can't be such a part. */
export async function addPart(
  at: SiteData,
  { document, type = 'pattern', ...facts }: NewPartRequest,
  by: Author,
): Promise<string> {
  refuseInvalid(document, type)
  const id = newId()
  const named = checked(facts)
  // What shows a shared section knows it by its id: its root has the same.
  const stored = type === 'shared' ? withRootId(document, id) : document
  await addDocument(at, { id, type, document: stored, by })
  await unique(named.name, () =>
    at.manager.insert(PartEntity, { id, siteId: at.siteId, ...named, taken: named.name, binnedAt: null }),
  )
  return id
}

function refuseInvalid(document: Page, type: PartType): void {
  const tried = PART_ROOTS[type].map((root) => validatePage(document, defaultRegistry, root))
  const isValid = tried.some((problems) => problems.length === 0)
  if (isValid && (type === 'template' || childIds(document.nodes[document.root]!).length > 0)) return
  throw new Refused('not-valid', `These blocks can’t be saved as a ${WORDS[type]}. Nothing was saved.`, {
    problems: isValid ? [] : tried[0]!,
  })
}

const WORDS: Readonly<Record<PartType, string>> = {
  pattern: 'pattern',
  shared: 'shared section',
  template: 'page template',
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

/** The type of a part; refuses an id that no part has. */
export async function partTypeOf(at: SiteData, id: string): Promise<PartType> {
  await partRow(at, id)
  return (await findDocument(at, id)).type as PartType
}

/** Saves a newer version of a template. Refuses, with `stale-save`, one that is not made of the newest. */
export async function saveTemplate(
  at: SiteChange,
  id: string,
  { base, document }: SaveTemplateRequest,
  by: Author,
): Promise<void> {
  const { binnedAt } = await partRow(at, id)
  const locked = await lockDocument(at, id)
  if (binnedAt !== null || locked.row.type !== 'template') throw notThere()
  refuseInvalid(document, 'template')
  if (readDocument(locked.newest).root !== document.root)
    throw new Refused(
      'not-valid',
      'The page was made from another template, so this one was not changed. Save the page as a new template.',
    )
  if (locked.newest.number !== base)
    throw new Refused(
      'stale-save',
      'Someone else changed this template in the meantime. Nothing was saved: open this again to see theirs.',
      { current: versionInfo(locked.newest) },
    )
  await insertVersion(at, locked, { document, by })
}

/** A version of a part as it was saved. */
export async function partVersion(at: SiteData, id: string, number: number): Promise<PartVersion> {
  await partRow(at, id)
  const found = await findVersion(at, id, number)
  return { version: found.number, document: readDocument(found) }
}

/**
 * Takes a part from the shelf; it stays in the bin, and copies of it on pages stay as they are. Refuses, with `in-use`, a
 * shared section that stands anywhere.
 */
export async function binPart(at: SiteChange, id: string): Promise<void> {
  if ((await partRow(at, id)).binnedAt !== null) throw notThere()
  // Pages made from a template stay as they are without it.
  if ((await documentsShowing(at, id)).length > 0)
    throw new Refused(
      'in-use',
      'This shared section is still in use. Nothing was deleted; say what is to stand there instead.',
    )
  await at.manager.update(PartEntity, { id, siteId: at.siteId }, { binnedAt: new Date(), taken: null })
}

/**
 * Shows another shared section wherever one stands, or leaves copies of it there: every document that shows it is saved by
 * this person, all of them or none.
 */
export async function replacePart(
  at: SiteChange,
  id: string,
  { instead }: ReplacePartRequest,
  by: Author,
): Promise<void> {
  // As where parts are saved: the other one may be put into this one meanwhile.
  await lockSite(at)
  if ((await partTypeOf(at, id)) !== 'shared') throw notThere()
  const own = readDocument(await findNewest(at, id))
  const other = instead === 'copies' ? undefined : await otherPart(at, own, instead.part)
  for (const { id: documentId, type } of await documentsShowing(at, id)) {
    const locked = await lockDocument(at, documentId)
    const document = readDocument(locked.newest)
    const next = other
      ? withOtherPart(document, own, other, defaultRegistry)
      : withCopies(document, id, own, defaultRegistry, newId)
    const insert = type === 'page' ? insertPageVersion : insertVersion
    await insert(at, locked, { document: next, by })
  }
  if (other) await refuseRing(at, [other.root])
}

/** A part that can stand where another one does. */
async function otherPart(at: SiteData, own: Page, id: string): Promise<Page> {
  const { binnedAt } = await partRow(at, id)
  const other = readDocument(await findNewest(at, id))
  if (binnedAt === null && canStandFor(other, own) && other.root !== own.root) return other
  throw new Refused(
    'not-valid',
    'The other shared section can’t stand in the place of this one: one is made of whole sections, the other of blocks. Nothing was changed.',
  )
}

/** Offers a part again. Refuses it where another one has its name by now. */
export async function restorePart(at: SiteData, id: string): Promise<void> {
  const { name, binnedAt } = await partRow(at, id)
  if (binnedAt === null) throw new Refused('not-found', 'This was not deleted. Nothing was changed.')
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
  return new Refused('not-found', 'There is no such part. It may have been deleted.')
}

function checked<T extends PartFacts>(facts: T): T {
  const oneLine = (words: string): string => words.replace(/\s+/g, ' ').trim()
  return { ...facts, name: oneLine(facts.name), about: oneLine(facts.about) }
}

async function unique(name: string, write: () => Promise<unknown>): Promise<void> {
  try {
    await write()
  } catch (error) {
    if (!isDuplicate(error)) throw error
    throw new Refused(
      'name-taken',
      `“${name}” is the name of another part of this site. Nothing was changed; choose another name.`,
      { problems: [{ pointer: '/name', message: 'is the name of another part' }] },
    )
  }
}
