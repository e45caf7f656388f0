/** Sections of a site that are nearly alike: found, and made one part. */
import { setImmediate as nextTurn } from 'node:timers/promises'
import {
  AlikeFinder,
  comparableSections,
  defaultRegistry,
  joinSections,
  MOST_JOINED,
  nodeLabel,
  sectionShape,
  withInstanceAt,
  type AlikeAnswer,
  type AlikeGroup,
  type AlikeSection,
  type AlikeSectionInfo,
  type JoinAlikeRequest,
  type Page,
  type SectionOf,
} from '@gullyline/core'
import type { SiteChange, SiteData } from '../db/site-scope.ts'
import { lockSite } from '../documents/site-row.ts'
import { lockDocument, type Author, type LockedDocument } from '../documents/store.ts'
import { findVersions, readDocument } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import type { Watch } from '../http/progress.ts'
import { findPageRow, insertPageVersion } from '../pages/store.ts'
import { addPart } from './store.ts'

/** So many pages are read at a time; others are answered in between. */
const PAGES_AT_ONCE = 20
/** Nobody looks through more, and those after them are found once these are joined. */
const MOST_GROUPS = 20

interface PageRow {
  readonly id: string
  readonly version: number
  readonly title: string
}

/** Finds the sections that are nearly alike, on the newest versions of the pages in the tree. */
export async function findAlike(at: SiteData, { onProgress, signal }: Watch): Promise<AlikeAnswer> {
  const pages = await at.manager.query<PageRow[]>(
    `SELECT d.id, d.version, p.title FROM documents d JOIN pages p ON p.id = d.id
     WHERE d.site_id = ? AND p.address IS NOT NULL ORDER BY p.address`,
    [at.siteId],
  )
  const sections: AlikeSectionInfo[] = []
  const finder = new AlikeFinder()
  for (let from = 0; from < pages.length; from += PAGES_AT_ONCE) {
    const some = pages.slice(from, from + PAGES_AT_ONCE)
    const documents = await readPages(at, some)
    for (const { id, version, title } of some) {
      const page = documents.get(id)!
      for (const nodeId of comparableSections(page, defaultRegistry)) {
        const name = nodeLabel(page, nodeId, defaultRegistry)
        sections.push({ pageId: id, version, nodeId, pageTitle: title, name })
        finder.add(sectionShape(page, nodeId, defaultRegistry))
      }
      await nextTurn()
      signal.throwIfAborted()
    }
    onProgress(Math.min(from + PAGES_AT_ONCE, pages.length), pages.length)
  }
  const groups: AlikeGroup[] = []
  for (const members of finder.groups().slice(0, MOST_GROUPS)) {
    const group = await describeGroup(
      at,
      members.slice(0, MOST_JOINED).map((one) => sections[one]!),
    )
    if (group) groups.push(group)
    signal.throwIfAborted()
  }
  return { groups, compared: sections.length }
}

/** The sections of a group with what differs in them; undefined where too much does. */
async function describeGroup(
  at: SiteData,
  sections: readonly AlikeSectionInfo[],
): Promise<AlikeGroup | undefined> {
  const ofPage = new Map(sections.map(({ pageId, version }) => [pageId, { id: pageId, version }]))
  const documents = await readPages(at, [...ofPage.values()])
  const joined = joinSections(
    sections.map(({ pageId, nodeId }) => ({ page: documents.get(pageId)!, id: nodeId })),
    defaultRegistry,
    newId,
  )
  if (!joined) return undefined
  const differences = joined.differences.map(({ name, values }) => ({
    name,
    values: values.map((value) => value ?? null),
  }))
  return { sections, differences }
}

function readPages(
  at: SiteData,
  pages: readonly Pick<PageRow, 'id' | 'version'>[],
): Promise<ReadonlyMap<string, Page>> {
  const wanted = pages.map(({ id, version }) => ({ documentId: id, number: version }))
  return findVersions(at, wanted, readDocument)
}

/**
 * Makes one part of sections, and shows it in the place of each: all pages are saved by this person, or none. Refuses, with
 * `stale-save`, sections of pages that were saved since they were compared. Returns the id of the part, and how many pages were
 * saved.
 */
export async function joinAlike(
  at: SiteChange,
  { sections, ...facts }: JoinAlikeRequest,
  by: Author,
): Promise<{ readonly partId: string; readonly pages: number }> {
  if (new Set(sections.map(({ pageId, nodeId }) => `${pageId} ${nodeId}`)).size < sections.length)
    throw new Refused('malformed', 'One section is named twice. Nothing was changed.')
  await lockSite(at)
  const locked = new Map<string, LockedDocument>()
  // In the order of ids, as every save locks.
  for (const pageId of [...new Set(sections.map((one) => one.pageId))].sort()) {
    const page = await findPageRow(at, pageId)
    if (page.binnedAt !== null) throw changedMeanwhile()
    locked.set(pageId, await lockDocument(at, pageId))
  }
  const found = sections.map((one) => findSection(one, locked.get(one.pageId)!))
  const joined = joinSections(found, defaultRegistry, newId)
  if (!joined)
    throw new Refused(
      'not-valid',
      'These sections can’t become one part, because they are not made alike. Nothing was changed.',
    )
  const partId = await addPart(at, { ...facts, type: 'shared', document: joined.part }, by)
  for (const [pageId, document] of locked) {
    const next = sections.reduce(
      (page, { nodeId }, i) =>
        sections[i]!.pageId === pageId
          ? withInstanceAt(page, nodeId, { part: partId, values: joined.values[i]! }, defaultRegistry)
          : page,
      readDocument(document.newest),
    )
    await insertPageVersion(at, document, { document: next, by })
  }
  return { partId, pages: locked.size }
}

function findSection({ version, nodeId }: AlikeSection, { newest }: LockedDocument): SectionOf {
  const page = readDocument(newest)
  if (newest.number !== version || !comparableSections(page, defaultRegistry).includes(nodeId))
    throw changedMeanwhile()
  return { page, id: nodeId }
}

function changedMeanwhile(): Refused {
  return new Refused(
    'stale-save',
    'One of these pages was changed meanwhile, so nothing was joined. Search again to see how things stand.',
  )
}
